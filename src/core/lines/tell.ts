import { proposal } from "../insight/proposal.ts";
import { freshId } from "../model/edits/edit.ts";
import { sameValue } from "../model/json.ts";
import { elementIdOf, elementsOf, lookup, mustBePassed, targetOf, treeOf, upTarget } from "../model/lookup.ts";
import { takesPass, withPass } from "../model/moves.ts";
import { folded, sameName } from "../model/names.ts";
import { inStackMeant, suitedMove, withArguments } from "../model/propose.ts";
import type { Container, Leg, Move, Project, Screen } from "../model/schema.ts";
import { goesOn } from "./elements.ts";
import {
  argsText,
  containerWords,
  factLine,
  flags,
  inParentheses,
  kindWords,
  labelText,
  paramsText,
  placeName,
  rowsLine,
  saids,
  triggerText,
} from "./phrases.ts";
import { TAKEN_IN_RULE } from "./ruleLine.ts";
import { ruleLine } from "./rules.ts";
import { quotedIfNeeded } from "./scan.ts";
import { TAKEN_TARGET } from "./targets.ts";
import { hubsWithoutUp, insideLane, isStartOver, menuScreens, NO_STACK, popsToOtherLane } from "./usual.ts";
import { AROUND, barWord, ELEMENT_FLAGS, ELEMENT_SAID, LEG_FLAGS, LEG_SAID, MOVE_FLAGS, SCREEN_FLAGS, SCREEN_SAID, WAY_IN_FLAGS, WAYS } from "./words.ts";

/** Letters of a line beyond which elements stand on lines of their own. */
const LONG = 110;

/** A project as quick lines. What they cannot tell is listed by {@link lostInLines}. */
export function toLines(project: Project): string {
  return new Teller(project).text();
}

/** What of a project its quick lines leave out, one thing a line; ids are never told. */
export function lostInLines(project: Project): string[] {
  const legs = project.legs.filter(({ motion }) => motion);
  const count = (number: number, what: string) => (number === 0 ? [] : [`${number} × ${what}`]);
  const icons = [...project.containers, ...project.screens].filter(({ icon }) => icon !== undefined);
  const dangling = project.legs.filter((leg) => {
    const { move } = leg;
    const to = move?.kind === "close" ? move.modal : move?.kind === "menu" ? move.drawer : targetOf(leg);
    return to !== undefined && !lookup(project).places.has(to);
  });
  const samples = project.types
    .flatMap((type) => type.samples)
    .filter((row) => Object.values(row).some((value) => typeof value === "object" && value !== null));
  return [
    ...(project.about === undefined ? [] : ["what the project is about"]),
    ...count(project.walks.length, "kept walk"),
    ...(project.rules ?? []).flatMap((rule) =>
      ruleLine(project, rule, (id) => id, rule.name) === undefined ? [`the rule “${rule.name}”: it names what lines cannot express`] : [],
    ),
    ...count((project.rules ?? []).filter(({ about }) => about !== undefined).length, "explanation of a rule"),
    ...count(project.accepted?.length ?? 0, "finding that is intended"),
    ...count(legs.length + project.containers.filter(({ motion }) => motion).length, "motion of its own"),
    ...count(icons.length, "icon"),
    ...count(project.screens.flatMap(({ pictures }) => pictures ?? []).length, "picture"),
    ...count([...project.screens, ...project.containers].filter(({ bar }) => bar?.backLabel !== undefined).length, "label of Back"),
    ...project.entrances.flatMap(({ name, to }) => (lookup(project).places.has(to) ? [] : [`the way in “${name}”: it leads nowhere`])),
    ...project.containers.flatMap(({ name, start, members }) =>
      members.length === 0 || members.includes(start) ? [] : [`the start of “${name}”: it is none of its members`],
    ),
    ...dangling.map(({ id }) => `where the leg “${id}” leads: there is no such place`),
    ...project.legs.flatMap(({ id, move }) =>
      move?.kind === "select" && insideLane(project, move.to) ? [`where the leg “${id}” switches: it leads nowhere`] : [],
    ),
    ...count(samples.length, "sample row with lists or parts in it"),
    ...(project.mapOrder ? ["the order of the map"] : []),
  ];
}

/** A move that leads to a place. */
type ToPlace = Extract<Move, { kind: "push" | "replace" | "reset" | "return" | "open" | "select" }>;

class Teller {
  private readonly told = new Set<string>();
  /** By container the names of the screens that were told in it. */
  private readonly toldNames = new Set<string>();
  private readonly out: string[] = [];
  /** Ids of places in the order of their lines, by name. */
  private readonly named = new Map<string, string[]>();

  /** Whether nothing but names is told. */
  private readonly bare: boolean;

  constructor(private readonly project: Project) {
    const { legs, screens, containers } = project;
    this.bare = legs.length === 0 && [...screens, ...containers].every((one) => !one.elements?.length && !("params" in one && one.params.length > 0));
    for (const id of this.order()) this.named.set(this.name(id), [...(this.named.get(this.name(id)) ?? []), id]);
  }

  private name(id: string): string {
    const place = lookup(this.project).places.get(id);
    return (place?.kind === "screen" ? place.screen.name : place?.container.name) || id;
  }

  /** Places as their lines come: the tree from the root, the modals, then what is in no container. */
  private order(): string[] {
    const { containers, screens, root } = this.project;
    const seen = new Set<string>();
    const visit = (id: string) => {
      if (seen.has(id) || !lookup(this.project).places.has(id)) return;
      seen.add(id);
      for (const member of lookup(this.project).containers.get(id)?.members ?? []) visit(member);
    };
    visit(root);
    for (const modal of containers) if (modal.kind === "modal") visit(modal.id);
    for (const one of [...containers, ...screens]) visit(one.id);
    return [...seen];
  }

  text(): string {
    const { name, facts, types, entrances, root, containers, screens } = this.project;
    this.out.push(`app ${quotedIfNeeded(name)}`);
    for (const fact of facts) this.out.push(factLine(fact));
    for (const type of types) this.out.push(rowsLine(type));
    for (const entrance of entrances) if (lookup(this.project).places.has(entrance.to)) this.out.push(this.wayIn(entrance));
    this.out.push("");
    this.place(root, 0);
    for (const modal of containers) if (modal.kind === "modal") this.place(modal.id, 0);
    for (const one of [...containers, ...screens]) this.place(one.id, 0, true);
    const rules = (this.project.rules ?? []).flatMap(
      (rule) => ruleLine(this.project, rule, (id) => this.path(id, TAKEN_IN_RULE), quotedIfNeeded(rule.name)) ?? [],
    );
    if (rules.length > 0) this.out.push("", ...rules);
    return `${this.out.join("\n")}\n`;
  }

  private place(id: string, indent: number, apart = false) {
    if (this.told.has(id)) return;
    this.told.add(id);
    const place = lookup(this.project).places.get(id);
    if (!place) return;
    const pad = "  ".repeat(indent);
    const owner = lookup(this.project).owners.get(id);
    const starts = owner !== undefined && owner.start === id && owner.members[0] !== id;
    if (place.kind === "screen") {
      const name = this.isDefinedBeside(id, owner) || this.isToldAgain(id, owner, indent) ? JSON.stringify(this.name(id)) : placeName(this.name(id), true);
      this.line(
        pad,
        `${name}${paramsText(place.screen.params)}${inParentheses([...this.screenWords(place.screen, starts), ...(apart ? ["apart"] : [])])}`,
        id,
        this.elements(id),
      );
      return;
    }
    const { container } = place;
    const only = this.collapsed(container);
    const words = [...containerWords(container, starts, apart, this.bare), ...(this.sideBySide(container) ? [NO_STACK] : [])];
    this.line(pad, `${placeName(this.name(id), words.length === 0)}${inParentheses(words)}`, id, only ? this.elements(only) : this.elements(id));
    if (only) this.told.add(only);
    else for (const member of container.members) this.place(member, indent + 1);
  }

  /** Whether a screen with the name of this one has been told where this one is: its line would be read as one more of that. */
  private isToldAgain(id: string, owner: Container | undefined, indent: number): boolean {
    const key = `${indent === 0 ? "" : (owner?.id ?? "")} ${folded(this.name(id))}`;
    const again = this.toldNames.has(key);
    this.toldNames.add(key);
    return again;
  }

  /** Whether a place beside the tabs that a screen is in is called like the screen: its line would be read as one of the screen. */
  private isDefinedBeside(id: string, owner: Container | undefined): boolean {
    if (owner?.kind !== "tabs" && owner?.kind !== "drawer") return false;
    const beside = lookup(this.project).owners.get(owner.id)?.members ?? [];
    return beside.some((other) => other !== owner.id && sameName(this.name(other), this.name(id)));
  }

  /** Whether a modal holds several screens without a stack of their own, which its lines would give it. */
  private sideBySide({ kind, members }: Container): boolean {
    const left = members.filter((member) => !this.told.has(member) && lookup(this.project).places.has(member));
    return kind === "modal" && left.length > 1 && left.every((member) => lookup(this.project).screens.has(member));
  }

  /** The one screen of a modal that is told with it: of its name, with nothing special. */
  private collapsed(container: Container): string | undefined {
    const [only, ...others] = container.members;
    if (container.kind !== "modal" || only === undefined || others.length > 0 || this.told.has(only)) return undefined;
    const screen = lookup(this.project).screens.get(only);
    const plain = screen && screen.name === container.name && screen.params.length === 0 && this.screenWords(screen, false).length === 0;
    return plain && this.elements(container.id).length === 0 ? only : undefined;
  }

  private line(pad: string, head: string, _: string, elements: string[]) {
    const whole = elements.length === 0 ? `${pad}${head}` : `${pad}${head}: ${elements.join(", ")}`;
    if (whole.length <= LONG || elements.length === 0) this.out.push(whole);
    else this.out.push(`${pad}${head}`, ...elements.map((element) => `${pad}  - ${element}`));
  }

  private screenWords(screen: Screen, starts: boolean): string[] {
    const target = screen.up === "auto" && hubsWithoutUp(this.project).has(screen.id) ? (upTarget(this.project, screen.id) ?? "") : screen.up;
    const up = lookup(this.project).screens.has(target) ? [`up ${this.path(target)}`] : [];
    const owner = lookup(this.project).owners.get(screen.id)?.kind;
    // Without the word it would be read as a detail of the tab that leads to it.
    const isTab = (owner === "tabs" || owner === "drawer") && screen.params.some(mustBePassed);
    return [
      ...(starts ? ["start"] : []),
      ...(isTab ? ["tab"] : []),
      ...flags(screen, SCREEN_FLAGS),
      ...up,
      ...[barWord(screen) ?? (menuScreens(this.project).has(screen.id) ? "bar" : undefined)].flatMap((word) => word ?? []),
      ...saids(screen, SCREEN_SAID),
    ];
  }

  private elements(id: string): string[] {
    const legs = lookup(this.project).legsFrom.get(id) ?? [];
    const taken = new Set<string>();
    const all = elementsOf(this.project, id);
    const own = all.map((element, i) => {
      const usual = freshId(element.label || element.id, taken, "element");
      // Conditions ask for what was typed by the id of its field.
      // One that is called like an earlier one would be read as one with it.
      const field = (element.kind === "field" || element.kind === "switch") && usual !== element.id;
      const again = all.slice(0, i).some((one) => one.kind === element.kind && (one.label || one.id) === (element.label || element.id));
      const named = field || again ? [`as ${element.id}`] : [];
      taken.add(named.length > 0 ? element.id : usual);
      const words = [
        ...kindWords(element),
        ...named,
        ...flags(element, ELEMENT_FLAGS),
        ...saids(element, ELEMENT_SAID),
        ...(element.except ?? []).filter((other) => lookup(this.project).places.has(other)).map((other) => `not on ${this.path(other)}`),
      ];
      const own = legs.filter((leg) => elementIdOf(leg) === element.id);
      return `${labelText(element, own.length > 0)}${inParentheses(words)}${this.legs(own)}`;
    });
    const others = legs.filter((leg) => elementIdOf(leg) === undefined);
    const triggers = [...new Set(others.map((leg) => triggerText(leg.on)))];
    const apart = own.map((text, i) => {
      const label = all[i]?.label || all[i]?.id || "";
      return i > 0 && goesOn(own[i - 1] ?? "", text) ? `${JSON.stringify(label)}${text.slice(label.length)}` : text;
    });
    return [...apart, ...triggers.map((trigger) => `${trigger}${this.legs(others.filter((leg) => triggerText(leg.on) === trigger))}`)];
  }

  private legs(list: readonly Leg[]): string {
    return list.length === 0 ? "" : ` > ${list.map((leg) => this.leg(leg)).join(" | ")}`;
  }

  private leg(leg: Leg): string {
    const outcome = "outcome" in leg.on && leg.on.outcome !== undefined ? `${JSON.stringify(leg.on.outcome)}: ` : "";
    const { target, words } = this.way(leg);
    const more = [
      ...(leg.on.kind === "hold" || leg.on.kind === "submit" ? [leg.on.kind] : []),
      ...words,
      ...flags(leg, LEG_FLAGS),
      ...saids(leg, LEG_SAID),
      ...Object.entries(leg.set ?? {}).map(([fact, value]) => `set ${fact} = ${value}`),
    ];
    return `${outcome}${target}${inParentheses(more)}`;
  }

  /** Where a leg leads, and the words for how. */
  private way(leg: Leg): { target: string; words: string[] } {
    const { move } = leg;
    const gone = (id: string | undefined) => id !== undefined && !lookup(this.project).places.has(id);
    if (!move || (move.kind === "close" && gone(move.modal)) || (move.kind === "menu" && gone(move.drawer))) return NOTHING;
    switch (move.kind) {
      case "back":
        return { target: `back${argsText(move.give)}`, words: [] };
      case "up":
        return { target: "up", words: [] };
      case "close":
        return { target: `close${move.modal === undefined ? "" : ` ${this.path(move.modal)}`}${argsText(move.give)}`, words: [] };
      case "menu":
        return {
          target: `${move.action === "open" ? "open menu" : move.action === "close" ? "close menu" : "menu"}${move.drawer === undefined ? "" : ` ${this.path(move.drawer)}`}`,
          words: [],
        };
      case "leave":
        return { target: move.url === undefined ? "leave" : `leave ${move.url}`, words: [] };
      case "proceed":
        return { target: "go on", words: [] };
      default:
        return this.toPlace(leg, move);
    }
  }

  private toPlace(leg: Leg, move: ToPlace): { target: string; words: string[] } {
    const to = targetOf(leg) ?? "";
    if (!lookup(this.project).places.has(to)) return NOTHING;
    const element = elementIdOf(leg);
    const usual = this.usual(leg, to);
    const pass = "pass" in move ? move.pass : undefined;
    const guess = usual?.move ?? (takesPass(move) ? withArguments(this.project, leg.from, element, stripped(move)) : move);
    const guessed = "pass" in guess ? guess.pass : undefined;
    const args = pass && Object.keys(pass).length > 0 ? argsText(pass) : guessed && Object.keys(guessed).length > 0 ? "()" : "";
    const target = `${this.path(usual?.to ?? to)}${args}`;
    return { target, words: usual ? [] : this.moveWords(leg.from, move) };
  }

  /** The target by whose name alone the way is understood, if it is. */
  private usual(leg: Leg, to: string): { to: string; move: Move } | undefined {
    const { move } = leg;
    // What a place opens around itself is told in full: without words, such a line closes it.
    if (!move || (to !== leg.from && treeOf(this.project, to).includes(leg.from))) return undefined;
    const wanted = stripped(move);
    const shown = move.kind === "open" && move.show !== undefined ? move.show : to;
    // What its label says of the way would be read otherwise.
    const by = elementIdOf(leg);
    if (by !== undefined && [shown, to].some((named) => isStartOver(this.project, leg.from, by, named))) return undefined;
    for (const named of new Set([shown, to])) {
      if (!sameValue(stripped(suitedMove(this.project, leg.from, named)), wanted)) continue;
      const element = elementIdOf(leg);
      const tried = proposal(this.project, { place: leg.from, element, on: element === undefined ? (leg.on as never) : undefined }, named);
      if (sameValue(stripped(tried.move), wanted)) return { to: named, move: tried.move };
    }
    return undefined;
  }

  private moveWords(from: string, move: ToPlace): string[] {
    const [word = ""] = WAYS[move.kind as keyof typeof WAYS] ?? [];
    const within =
      "in" in move && move.in !== undefined && move.in !== "beneath" && lookup(this.project).places.has(move.in) ? [`in ${this.path(move.in)}`] : [];
    const showing = move.kind === "open" && move.show !== undefined && lookup(this.project).places.has(move.show) ? [`showing ${this.path(move.show)}`] : [];
    const gives = move.kind === "return" ? Object.entries(move.give ?? {}).map(([name, value]) => `gives ${name} = ${value}`) : [];
    const isMeant = sameValue(inStackMeant(this.project, from, move), move) && !popsToOtherLane(this.project, from, move);
    const around = isMeant ? [] : [AROUND];
    return [word, ...within, ...around, ...showing, ...flags<Move>(move, MOVE_FLAGS), ...gives];
  }

  /** A place by its name, and by those of the containers around it as far as that is needed to tell it from others. */
  private path(id: string, taken = TAKEN_TARGET): string {
    const same = this.named.get(this.name(id)) ?? [id];
    const { screens, owners } = lookup(this.project);
    const first = same.find((one) => screens.has(one)) ?? same[0];
    const path = [this.name(id)];
    if (first !== id)
      for (let owner = owners.get(id); owner; owner = owners.get(owner.id)) {
        path.unshift(owner.name);
        const still = same.filter((one) => this.within(one, path.slice(0, -1)));
        if ((still.find((one) => screens.has(one)) ?? still[0]) === id) break;
      }
    return path.map((name) => quotedIfNeeded(name, taken)).join("/");
  }

  private within(id: string, around: readonly string[]): boolean {
    let owner = lookup(this.project).owners.get(id);
    for (const name of [...around].reverse()) {
      if (owner?.name !== name) return false;
      owner = lookup(this.project).owners.get(owner.id);
    }
    return true;
  }

  private wayIn(entrance: Project["entrances"][number]): string {
    const named = entrance.name !== entrance.pattern || entrance.pattern === undefined ? [JSON.stringify(entrance.name)] : [];
    const words = [
      ...flags(entrance, WAY_IN_FLAGS),
      ...(entrance.when === undefined ? [] : [`if ${entrance.when}`]),
      ...(entrance.otherwise === undefined || !lookup(this.project).places.has(entrance.otherwise) ? [] : [`else ${this.path(entrance.otherwise)}`]),
    ];
    const head = [...named, ...(entrance.pattern === undefined ? [] : [entrance.pattern])].join(" ");
    return `in ${head} > ${this.path(entrance.to)}${entrance.pass ? argsText(entrance.pass) || "()" : ""}${inParentheses(words)}`;
  }
}

/** Where a leg only sets facts, or leads to a place that is not there. */
const NOTHING = { target: "nothing", words: [] };

/** A move without what it passes. */
const stripped = (move: Move): Move => withPass(move, undefined);
