import { proposal } from "../insight/proposal.ts";
import { addContainer, addElement, addLeg, addScreen, freshElementId, freshLegId, freshPlaceId, newContainer } from "../model/edits/add.ts";
import { changeScreen } from "../model/edits/change.ts";
import type { Edit } from "../model/edits/edit.ts";
import { applyEdit } from "../model/edits/kinds.ts";
import { addScreenBeside, linkElement } from "../model/edits/link.ts";
import { difference } from "../model/edits/revise.ts";
import { elementIdOf, elementsOf, lookup, nameOf } from "../model/lookup.ts";
import { sameName } from "../model/names.ts";
import type { Container, Leg, Move, Project, Screen } from "../model/schema.ts";
import type { LineProblem } from "./ast.ts";
import { type Built, readLines } from "./build.ts";
import { isUntouched } from "./isLines.ts";
import { flagged } from "./legs.ts";

/** What some lines make of a project: one edit, and what it makes in words; or what is wrong with them. */
export type IntoResult = { ok: true; edit: Edit; makes: string[]; last: string | undefined } | { ok: false; problems: LineProblem[] };

/**
 * What quick lines make of a project. In one in which nothing was built they are all of it; else screens and modals are found by their
 * names or added, beside a place where that is given, and what stands on them is added to what is there.
 */
export function linesInto(project: Project, text: string, beside?: string): IntoResult {
  const read = readLines(text, project.name);
  if (!read.ok) return read;
  if (isUntouched(project)) {
    const next = { ...read.project, name: read.named ? read.project.name : project.name };
    return { ok: true, edit: difference(project, next, "Build from lines"), makes: madeWords(project, next), last: next.screens[0]?.id };
  }
  const inside = read.project.containers.find((one) => one.kind === "tabs" || one.kind === "drawer");
  if (inside)
    return {
      ok: false,
      problems: [
        { line: 1, column: 1, message: `“${inside.name}” is a set of ${inside.kind}; lines with containers make a project, and this one is begun already` },
      ],
    };
  const merging = new Merging(project, read, beside);
  return { ok: true, edit: difference(project, merging.project, "Build from lines"), makes: madeWords(project, merging.project), last: merging.first };
}

/** What is in a project that was not in another, in words. */
function madeWords(before: Project, after: Project): string[] {
  const known = lookup(before).places;
  const name = (id: string) => `“${nameOf(after, id)}”`;
  const screens = after.screens.filter(({ id }) => !known.has(id)).map(({ id }) => name(id));
  const containers = after.containers.filter(({ id }) => !known.has(id)).map(({ id, kind }) => `${kind} ${name(id)}`);
  const elements = after.screens.flatMap(({ id }) => elementsOf(after, id)).length - before.screens.flatMap(({ id }) => elementsOf(before, id)).length;
  const legs = after.legs.filter((leg) => !lookup(before).legs.has(leg.id));
  const counted = (count: number, what: string) => (count > 0 ? [`${count} ${what}${count === 1 ? "" : "s"}`] : []);
  return [...(screens.length > 0 ? [`screens ${screens.join(", ")}`] : []), ...containers, ...counted(elements, "element"), ...counted(legs.length, "leg")];
}

class Merging {
  project: Project;
  /** The first screen that the lines name. */
  first: string | undefined;
  private readonly ids = new Map<string, string>();

  constructor(
    project: Project,
    private readonly from: Built,
    private beside: string | undefined,
  ) {
    this.project = project;
    for (const container of from.project.containers) if (container.kind === "modal") this.modal(container);
    for (const screen of from.project.screens) this.screen(screen);
    for (const leg of from.project.legs) this.leg(leg);
    this.first = this.ids.get(from.project.screens[0]?.id ?? "");
  }

  private apply(edit: Edit) {
    this.project = applyEdit(this.project, edit);
  }

  private modal(modal: Extract<Container, { kind: "modal" }>) {
    const known = this.project.containers.find((one) => one.kind === "modal" && sameName(one.name, modal.name));
    if (known) {
      this.ids.set(modal.id, known.id);
      const [only] = modal.members;
      const shown = known.members.find((id) => lookup(this.project).screens.has(id));
      if (only !== undefined && shown !== undefined) this.ids.set(only, shown);
      return;
    }
    const id = freshPlaceId(this.project, modal.name);
    this.ids.set(modal.id, id);
    this.apply(addContainer({ ...newContainer("modal", id, modal.name, []), shape: modal.shape, edge: modal.edge } as Container));
    for (const member of modal.members) {
      const screen = lookup(this.from.project).screens.get(member);
      if (!screen) continue;
      const made = freshPlaceId(this.project, screen.name);
      this.ids.set(member, made);
      this.apply(addScreen({ ...screen, id: made, elements: [] }, id));
    }
    const container = lookup(this.project).containers.get(id);
    if (container)
      this.project = {
        ...this.project,
        containers: this.project.containers.map((one) => (one.id === id ? { ...one, start: one.members[0] ?? one.start } : one)),
      };
  }

  private screen(screen: Screen) {
    const known = this.ids.get(screen.id) ?? this.project.screens.find(({ name }) => sameName(name, screen.name))?.id;
    const { id, elements, name, ...rest } = screen;
    const container = this.project.containers.find((one) => sameName(one.name, name));
    if (known === undefined && container && elements.length === 0 && screen.params.length === 0) {
      // Only named as a target: it may be a modal or a stack that is there.
      this.ids.set(id, container.id);
      return;
    }
    let at = known;
    if (at === undefined) {
      const { edit, screenId } = addScreenBeside(this.project, this.beside, name);
      this.apply(edit);
      this.apply(changeScreen(this.project, screenId, rest));
      at = screenId;
    }
    this.beside ??= at;
    this.ids.set(id, at);
    for (const element of elements) {
      const there = elementsOf(this.project, at).find(({ label, kind }) => sameName(label, element.label) && kind === element.kind);
      const elementId = there?.id ?? freshElementId(this.project, at, element.label);
      this.ids.set(`${id} ${element.id}`, elementId);
      if (!there) this.apply(addElement(at, { ...element, id: elementId }));
    }
  }

  private leg(leg: Leg) {
    const from = this.ids.get(leg.from);
    const to = leg.move && "to" in leg.move ? this.ids.get(leg.move.to) : undefined;
    if (from === undefined) return;
    const inner = elementIdOf(leg);
    const element = inner === undefined ? undefined : this.ids.get(`${leg.from} ${inner}`);
    const plain = leg.on.kind === "tap" && leg.on.outcome === undefined && leg.when === undefined && leg.set === undefined;
    const open = this.from.loose.get(leg.id);
    if (plain && to !== undefined && open) {
      const proposed = proposal(this.project, { place: from, element }, to);
      this.apply(linkElement(this.project, { place: from, element }, to, { ...proposed, move: flagged(proposed.move, open) }).edit);
      return;
    }
    const on = element === undefined ? leg.on : { ...leg.on, element };
    const move =
      leg.move && open && to !== undefined ? flagged(proposal(this.project, { place: from, element }, to).move, open) : leg.move && this.moved(leg.move);
    const { move: _, ...rest } = leg;
    this.apply(addLeg(this.project, { ...rest, id: freshLegId(this.project, leg.id), from, on: on as Leg["on"], ...(move ? { move } : {}) }));
  }

  /** A move with the places of this project. */
  private moved(move: Move): Move {
    const id = (of: string) => this.ids.get(of) ?? of;
    return {
      ...move,
      ...("to" in move ? { to: id(move.to) } : {}),
      ...("in" in move && move.in !== undefined ? { in: id(move.in) } : {}),
      ...("show" in move && move.show !== undefined ? { show: id(move.show) } : {}),
      ...("modal" in move && move.modal !== undefined ? { modal: id(move.modal) } : {}),
    } as Move;
  }
}
