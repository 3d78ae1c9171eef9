import { proposal } from "../insight/proposal.ts";
import { addContainer, addElement, addEntrance, addLeg, addScreen, freshElementId, freshLegId, freshPlaceId } from "../model/edits/add.ts";
import { changeContainer, changeElement, changeScreen } from "../model/edits/change.ts";
import { type Edit, freshId } from "../model/edits/edit.ts";
import { applyEdit } from "../model/edits/kinds.ts";
import { addScreenBeside, linkElement, stackFor } from "../model/edits/link.ts";
import { addRule } from "../model/edits/rules.ts";
import { elementIdOf, elementsOf, lookup, mustBePassed, ownersAround, upTarget } from "../model/lookup.ts";
import { sameName } from "../model/names.ts";
import { inStackMeant } from "../model/propose.ts";
import type { Container, Element, Leg, Move, Project, Screen } from "../model/schema.ts";
import type { LineProblem } from "./ast.ts";
import type { Built } from "./build.ts";
import { flagged, passing } from "./legs.ts";
import { Problems } from "./problems.ts";
import { rulesOf } from "./rules.ts";
import { placeAt } from "./standing.ts";
import { hubsWithoutUp } from "./usual.ts";

/** How the places of lines are found in the project that they go into. */
export interface Finding {
  /** What some names stand for, whatever the places there are called. */
  bound?: ReadonlyMap<string, string> | undefined;
  /** Whether other names stand for places that are there; else each of them is a new place. */
  byName: boolean;
  /** Beside which place new ones go that stand in no container of the lines. */
  beside?: string | undefined;
}

/** Puts what lines make into a project in which something is there already. */
export class Merging {
  project: Project;
  /** The first place that the lines name, as it is in the project. */
  first: string | undefined;
  readonly problems: LineProblem[] = [];
  private readonly ids = new Map<string, string>();
  private beside: string | undefined;

  constructor(
    private readonly before: Project,
    private readonly from: Built,
    private readonly finding: Finding,
  ) {
    this.project = before;
    this.beside = finding.beside;
    this.data();
    const { owners } = lookup(from.project);
    const top = (id: string) => id !== from.wrapper && (owners.get(id) === undefined || owners.get(id)?.id === from.wrapper);
    // Modals come first: what else the lines name may stand for one.
    const containers = [...from.project.containers].sort((a, b) => Number(b.kind === "modal") - Number(a.kind === "modal"));
    for (const { id } of [...containers, ...from.project.screens]) if (top(id)) this.place(id, undefined);
    for (const { id, up } of from.project.screens) this.up(id, up);
    this.hubs();
    for (const leg of from.project.legs) this.leg(leg);
    this.waysIn();
    this.rules();
    this.first = this.ids.get(from.project.screens[0]?.id ?? "");
  }

  /** What a place of the lines is in the project. */
  idOf(built: string): string | undefined {
    return this.ids.get(built);
  }

  private apply(edit: Edit) {
    this.project = applyEdit(this.project, edit);
  }

  private data() {
    const { facts, types } = this.project;
    const fresh = <T extends { id: string }>(list: readonly T[], known: readonly T[]) => list.filter(({ id }) => !known.some((one) => one.id === id));
    this.project = {
      ...this.project,
      facts: [...facts, ...fresh(this.from.project.facts, facts)],
      types: [...types, ...fresh(this.from.project.types, types)],
    };
  }

  private place(id: string, owner: string | undefined) {
    const { screens, containers } = lookup(this.from.project);
    const screen = screens.get(id);
    const container = containers.get(id);
    if (screen) this.screen(screen, owner);
    else if (container) this.container(container, owner);
  }

  private container(container: Container, owner: string | undefined) {
    const { finding } = this;
    const named = (one: Container) => one.kind === container.kind && sameName(one.name, container.name);
    const known = finding.bound?.get(container.name) ?? (finding.byName ? this.project.containers.find(named)?.id : undefined);
    const inside = known ?? this.made(container, owner);
    this.ids.set(container.id, inside);
    const [only] = container.members;
    const shown = lookup(this.project)
      .containers.get(inside)
      ?.members.find((id) => lookup(this.project).screens.has(id));
    const says = lookup(this.from.project).screens.get(only ?? "");
    // A modal of one screen is known by the name of either.
    if (known !== undefined && container.kind === "modal" && says && sameName(says.name, container.name) && shown !== undefined) {
      this.ids.set(says.id, shown);
      this.elements(says, shown);
    } else for (const member of container.members) this.place(member, inside);
    this.elements(container, inside);
    const start = this.ids.get(container.start);
    if (known === undefined && start !== undefined) this.apply(changeContainer(this.project, inside, { start }));
  }

  /** A new container, still without its members. */
  private made({ elements: _, ...container }: Container, owner: string | undefined): string {
    const id = freshPlaceId(this.project, container.name);
    const around = container.kind === "modal" ? undefined : (owner ?? this.stackBeside());
    this.apply(addContainer({ ...container, id, members: [] }, around));
    return id;
  }

  /** The container in which what stands beside something goes. */
  private stackBeside(): string | undefined {
    const { containers, owners } = lookup(this.project);
    const around = this.beside === undefined ? undefined : owners.get(this.beside)?.id;
    return around ?? (containers.has(this.project.root) ? this.project.root : undefined);
  }

  private screen(screen: Screen, owner: string | undefined) {
    const { id, elements: _, name, up: __, ...rest } = screen;
    const { bound, byName } = this.finding;
    const known = bound?.get(name) ?? (byName ? this.project.screens.find((one) => sameName(one.name, name))?.id : undefined);
    const container = byName ? this.project.containers.find((one) => sameName(one.name, name)) : undefined;
    if (known === undefined && owner === undefined && container && screen.elements.length === 0 && screen.params.length === 0) {
      // Only named as a target: it may be a modal or a stack that is there.
      this.ids.set(id, container.id);
      return;
    }
    const there = known === undefined ? undefined : lookup(this.project).owners.get(known);
    if (known !== undefined && owner !== undefined && bound?.get(name) === undefined && there?.id !== owner)
      this.problems.push({
        ...(this.from.at.get(id) ?? { line: 1, column: 1 }),
        message: `“${name}” is in “${there?.name ?? "no container"}” already; expected a name that is not there yet (in the outline, screens are dragged into other containers)`,
      });
    const at = known ?? this.added(name, rest, owner, this.leadingTo(id));
    if (known !== undefined && byName) this.told(known, rest);
    if (bound?.get(name) === undefined && (known !== undefined || owner === undefined)) this.beside ??= at;
    this.ids.set(id, at);
    this.elements(screen, at);
  }

  /** What a line says of a screen that is there: further parameters, and what is special of it. */
  private told(id: string, { params, ...rest }: Omit<Screen, "id" | "name" | "up" | "elements">) {
    const screen = lookup(this.project).screens.get(id);
    if (!screen) return;
    const more = params.filter(({ name }) => !screen.params.some((param) => param.name === name));
    const change: Partial<Screen> = { ...rest, ...(more.length > 0 ? { params: [...screen.params, ...more] } : {}) };
    if (Object.keys(change).length > 0) this.apply(changeScreen(this.project, id, change));
  }

  /** The screen of the project that leads to a new one: what is led to stands in the stack of that, of a page before that of a modal. */
  private leadingTo(id: string): string | undefined {
    const { screens } = lookup(this.from.project);
    const legs = this.finding.byName ? this.from.project.legs.filter(({ from, move }) => from !== id && move && "to" in move && move.to === id) : [];
    if (legs.some(({ move }) => move?.kind === "reset")) return undefined;
    const from = legs.flatMap((leg): string[] => {
      const name = screens.get(leg.from)?.name;
      const known = this.ids.get(leg.from) ?? (name === undefined ? undefined : this.project.screens.find((one) => sameName(one.name, name))?.id);
      const isGoneTo = leg.move?.kind === "push" || this.from.loose.has(leg.id);
      return known !== undefined && isGoneTo && lookup(this.project).screens.has(known) ? [known] : [];
    });
    const isInModal = (screen: string) => ownersAround(this.project, screen).some(({ kind }) => kind === "modal");
    return from.find((screen) => !isInModal(screen)) ?? from[0];
  }

  private added(name: string, rest: Omit<Screen, "id" | "name" | "up" | "elements">, owner: string | undefined, from: string | undefined): string {
    if (owner !== undefined) return this.addedTo(owner, name, rest);
    const by = from ?? (this.finding.byName ? undefined : this.beside);
    if (by !== undefined) {
      const { edit, stack } = stackFor(this.project, by);
      if (edit) this.apply(edit);
      return this.addedTo(stack, name, rest);
    }
    const { edit, screenId } = addScreenBeside(this.project, this.beside, name);
    this.apply(edit);
    this.apply(changeScreen(this.project, screenId, rest));
    return screenId;
  }

  private addedTo(owner: string | undefined, name: string, rest: Omit<Screen, "id" | "name" | "up" | "elements">): string {
    const id = freshPlaceId(this.project, name);
    this.apply(addScreen({ ...rest, id, name, up: "auto", elements: [] }, owner));
    return id;
  }

  /** What stands on a place of the lines is added to what stands on the one that it is. */
  private elements({ id, elements = [] }: { id: string; elements?: readonly Element[] | undefined }, at: string) {
    for (const element of elements) {
      const led = (one: Element) =>
        lookup(this.project)
          .legsFrom.get(at)
          ?.some((leg) => elementIdOf(leg) === one.id) ?? false;
      const there = elementsOf(this.project, at).find((one) => sameName(one.label, element.label) && one.kind === element.kind);
      const known = there && (this.finding.byName || !led(there)) ? there : undefined;
      const elementId = known?.id ?? freshElementId(this.project, at, this.finding.byName ? element.label : element.id);
      this.ids.set(`${id} ${element.id}`, elementId);
      const except = element.except?.flatMap((place) => this.ids.get(place) ?? []);
      const { id: _, kind, label, except: __, ...said } = element;
      if (!known) this.apply(addElement(at, { id: elementId, kind, label, ...said, ...(except ? { except } : {}) }));
      else if (Object.keys(said).length > 0) this.apply(changeElement(this.project, at, elementId, said));
    }
  }

  private up(id: string, up: string) {
    const at = this.ids.get(id);
    const screen = at === undefined ? undefined : lookup(this.project).screens.get(at);
    if (!screen || (up === "auto" && lookup(this.before).screens.has(screen.id))) return;
    if (up !== "auto") this.apply(changeScreen(this.project, screen.id, { up: this.ids.get(up) ?? up }));
    if (this.finding.byName || up !== "auto") return;
    const needed = lookup(this.project)
      .screens.get(upTarget(this.project, screen.id) ?? "")
      ?.params.filter(mustBePassed);
    // Up hands on what has the same name; where that is not all, there is no Up.
    if (needed?.some(({ name }) => !screen.params.some((param) => param.name === name))) this.apply(changeScreen(this.project, screen.id, { up: "none" }));
  }

  /** Hubs from which Up would now lead back to what was to be gone through once get none. */
  private hubs() {
    if (!this.finding.byName) return;
    const known = hubsWithoutUp(this.before);
    for (const id of hubsWithoutUp(this.project)) if (!known.has(id)) this.apply(changeScreen(this.project, id, { up: "none" }));
  }

  private leg(leg: Leg) {
    const from = this.ids.get(leg.from);
    const to = leg.move && "to" in leg.move ? this.ids.get(leg.move.to) : undefined;
    if (from === undefined) return;
    const inner = elementIdOf(leg);
    const element = inner === undefined ? undefined : this.ids.get(`${leg.from} ${inner}`);
    const open = this.from.loose.get(leg.id);
    const on = element === undefined ? leg.on : ({ ...leg.on, element } as Leg["on"]);
    const move = open && to !== undefined ? this.tried(from, element, on, to, open) : isMoving(leg) ? this.moved(leg, from) : undefined;
    const plain = leg.on.kind === "tap" && leg.on.outcome === undefined && leg.when === undefined && leg.set === undefined;
    if (plain && to !== undefined && move) {
      this.apply(linkElement(this.project, { place: from, element }, to, { move, sentence: "" }).edit);
      return;
    }
    const { move: _, ...rest } = leg;
    this.apply(addLeg(this.project, { ...rest, id: freshLegId(this.project, leg.id), from, on, ...(move ? { move } : {}) }));
  }

  /** The way that works where the element is really met, with what the lines say of it. */
  private tried(from: string, element: string | undefined, on: Leg["on"], to: string, open: Open): Move {
    const { move } = proposal(this.project, { place: from, element, on: element === undefined ? (on as never) : undefined }, to);
    const problems = new Problems();
    const done = flagged(passing(move, open, problems), open.flags);
    this.problems.push(...problems.list);
    return done;
  }

  /** A move with the places of this project. */
  private moved({ id, move }: Leg & { move: Move }, from: string): Move {
    const keys = ["to", "in", "show", "modal", "drawer"] as const;
    const places = keys.flatMap((key) => (key in move ? [[key, this.ids.get(move[key as never]) ?? move[key as never]]] : []));
    const here: Move = { ...move, ...Object.fromEntries(places) };
    return this.finding.byName && this.from.stackless.has(id) ? inStackMeant(this.project, from, here) : here;
  }

  /** Rules speak of places of the lines and, by their names, of those that are there already. */
  private rules() {
    const problems = new Problems();
    const placeOf = (path: readonly string[]) => {
      const built = this.from.placeOf(path);
      return (built === undefined ? undefined : this.ids.get(built)) ?? placeAt(this.project, path);
    };
    const known = this.project.rules ?? [];
    const fresh = this.from.rules.filter(({ name }) => !known.some((rule) => sameName(rule.name, name)));
    for (const rule of rulesOf(fresh, this.project, placeOf, problems)) this.apply(addRule(rule));
    this.problems.push(...problems.list);
  }

  private waysIn() {
    for (const way of this.from.project.entrances) {
      const to = this.ids.get(way.to);
      if (to === undefined) continue;
      const id = freshId(way.name.replace(/[{}]/g, ""), new Set(this.project.entrances.map((one) => one.id)), "wayIn");
      const otherwise = way.otherwise === undefined ? undefined : this.ids.get(way.otherwise);
      this.apply(addEntrance({ ...way, id, to, ...(otherwise === undefined ? {} : { otherwise }) }));
    }
  }
}

const isMoving = (leg: Leg): leg is Leg & { move: Move } => leg.move !== undefined;

type Open = Built["loose"] extends ReadonlyMap<string, infer T> ? T : never;
