import { proposal } from "../insight/proposal.ts";
import { emptyProject, newContainer, newScreen } from "../model/edits/add.ts";
import { freshId } from "../model/edits/edit.ts";
import { firstScreen } from "../model/lookup.ts";
import { takesPass } from "../model/moves.ts";
import { suitedMove, withArguments } from "../model/propose.ts";
import { problemLine, readProjectData } from "../model/read.ts";
import type { Container, Element, Entrance, Leg, Move, Project, Screen } from "../model/schema.ts";
import type { At, ElementNode, LegNode, LineProblem, Lines, Option, PlaceNode } from "./ast.ts";
import { parseLines, pathOf } from "./parse.ts";
import { unquoted } from "./scan.ts";
import {
  barOf,
  CONTAINER_FLAGS,
  CONTAINER_KINDS,
  ELEMENT_FLAGS,
  ELEMENT_SAID,
  LEG_FLAGS,
  LEG_SAID,
  MOVE_FLAGS,
  SCREEN_FLAGS,
  SCREEN_SAID,
  WAY_IN_FLAGS,
  WAYS,
} from "./words.ts";

export type LinesResult = { ok: true; project: Project } | { ok: false; problems: LineProblem[] };

/** A project as its lines make it, with what they leave open. */
export interface Built {
  ok: true;
  project: Project;
  /** Whether the lines name the project. */
  named: boolean;
  /** Ids of the legs whose way the lines leave open. */
  loose: ReadonlySet<string>;
}

/** A project from quick lines, or every problem with its line, its column and what is expected. */
export function fromLines(text: string, name = "App"): LinesResult {
  return readLines(text, name);
}

/** The same, with what the lines leave open. */
export function readLines(text: string, name: string): Built | Extract<LinesResult, { ok: false }> {
  const { lines, problems } = parseLines(text);
  const builder = new Builder(lines, name);
  const project = builder.build();
  if (lines.places.length === 0 && problems.length === 0)
    problems.push({ line: 1, column: 1, message: "there is no screen in it; expected one a line, such as Home: Plots > Plots" });
  const all = [...problems, ...builder.problems].sort((a, b) => a.line - b.line || a.column - b.column);
  if (all.length > 0) return { ok: false, problems: all };
  const read = readProjectData(project);
  if (read.ok) return { ok: true, project: read.project, named: lines.name !== undefined, loose: new Set(builder.loose.map(({ leg }) => leg.id)) };
  return {
    ok: false,
    problems: read.problems.slice(0, 20).map((problem) => ({ line: 1, column: 1, message: `the lines make no project: ${problemLine(problem)}` })),
  };
}

interface Made {
  id: string;
  node: PlaceNode;
  owner: Made | undefined;
  container: Container | undefined;
  screen: Screen | undefined;
}

/** A leg whose way the lines leave open. */
interface Loose {
  leg: Leg;
  to: string;
  element: string | undefined;
  args: Record<string, string> | undefined;
}

const NOWHERE: Omit<PlaceNode, "name" | "line" | "column"> = { params: [], options: [], elements: [], members: [] };

class Builder {
  readonly problems: LineProblem[] = [];
  private readonly made: Made[] = [];
  private readonly ids = new Set<string>();
  private readonly legIds = new Set<string>();
  private project: Project;
  readonly loose: Loose[] = [];

  constructor(
    private readonly lines: Lines,
    name: string,
  ) {
    this.project = { ...emptyProject(lines.name ?? name), screens: [] };
  }

  private wrong({ line, column }: At, message: string) {
    this.problems.push({ line, column, message });
  }

  build(): Project {
    for (const node of this.lines.places) this.place(node, undefined);
    this.missing();
    const root = this.root();
    this.project = {
      ...this.project,
      root,
      facts: this.facts(),
      types: this.types(),
      containers: this.made.flatMap(({ container }) => container ?? []),
      screens: this.made.flatMap(({ screen }) => screen ?? []),
    };
    for (const one of this.made) this.contents(one);
    this.project = {
      ...this.project,
      screens: this.made.flatMap(({ screen }) => screen ?? []),
      containers: this.made.flatMap(({ container }) => container ?? []),
    };
    const legs = this.made.flatMap((one) => one.node.elements.flatMap((element, i) => this.legsOf(one, element, i)));
    this.project = { ...this.project, legs, entrances: this.waysIn() };
    return this.tried();
  }

  private fresh(name: string): string {
    const id = freshId(name, this.ids, "place");
    this.ids.add(id);
    return id;
  }

  private place(node: PlaceNode, owner: Made | undefined): Made {
    const id = this.fresh(node.name);
    const kind = CONTAINER_KINDS[node.options[0]?.text ?? ""] ?? (node.members.length > 0 ? { kind: "stack" as const } : undefined);
    const one: Made = { id, node, owner, container: undefined, screen: undefined };
    this.made.push(one);
    if (!kind) {
      one.screen = this.screen(node, id);
      return one;
    }
    if (node.params.length > 0) this.wrong(node, `“${node.name}” is a container; only screens take parameters`);
    const inside =
      kind.kind === "modal" && node.members.length === 0
        ? [{ ...NOWHERE, name: node.name, line: node.line, column: node.column, elements: node.elements }]
        : node.members;
    if (inside !== node.members) one.node = { ...node, elements: [] };
    const members = inside.map((member) => this.place(member, one));
    const own = members.filter(({ container }) => container?.kind !== "modal");
    const start = own.find((member) => member.node.options.some(({ text }) => text === "start")) ?? own[0];
    one.container = this.container(
      node,
      newContainer(
        kind.kind,
        id,
        node.name,
        own.map((member) => member.id),
      ),
      kind.shape,
      start?.id ?? id,
    );
    return one;
  }

  private screen(node: PlaceNode, id: string): Screen {
    let screen: Screen = newScreen(id, node.name);
    screen.params = node.params.map(({ name, type, required, default: value }) => ({
      name,
      type,
      required,
      ...(value === undefined ? {} : { default: value as string }),
    }));
    for (const option of node.options) {
      const bar = barOf(option.text);
      if (bar) screen = { ...screen, bar };
      else if (option.text !== "start" && option.text !== "apart" && !option.text.startsWith("up "))
        screen = this.worded(option, screen, SCREEN_FLAGS, SCREEN_SAID, "hub, once, planned, no bar, path /plots or title …");
    }
    return screen;
  }

  private container(node: PlaceNode, made: Container, shape: string | undefined, start: string): Container {
    let container: Container = { ...made, start };
    if (container.kind === "modal" && shape) {
      const edge = shape === "sheet" || shape === "full" ? "bottom" : shape === "panel" ? "right" : "center";
      container = { ...container, shape: shape as "sheet", edge };
    }
    for (const option of node.options) {
      if (option.text === "start" || option.text === "apart" || CONTAINER_KINDS[option.text]) continue;
      const bar = barOf(option.text);
      const placed = container.kind === "modal" ? modalPlace(option.text) : undefined;
      if (bar) container = { ...container, bar };
      else if (placed) container = { ...container, ...placed } as Container;
      else
        container = this.worded(
          option,
          container,
          CONTAINER_FLAGS,
          [],
          "the kind of container first (stack, tabs, drawer, sheet, dialog), then what is special of it",
        );
    }
    return container;
  }

  /** A thing with what one option says of it. */
  private worded<T>(
    option: Option,
    of: T,
    flags: ReadonlyArray<{ word: string; set: (of: T) => T }>,
    said: ReadonlyArray<{ word: string; set: (of: T, value: string) => T }>,
    expected: string,
  ): T {
    // Tabs and drawers share some words; each sets what it is about.
    const known = flags.filter(({ word }) => word === option.text);
    if (known.length > 0) return known.reduce((now, { set }) => set(now), of);
    const with_ = said.find(({ word }) => option.text.startsWith(`${word} `));
    if (with_) return with_.set(of, unquoted(option.text.slice(with_.word.length + 1).trim()));
    this.wrong(option, `found “${option.text}”, expected ${expected}`);
    return of;
  }

  /** Places that lines lead to and that none makes are made beside where they are led to from. */
  private missing() {
    for (const one of [...this.made])
      for (const element of one.node.elements)
        for (const leg of element.legs) {
          const { target } = leg;
          if (target.is !== "place" || target.path.length !== 1 || this.find(target.path)) continue;
          const [name = ""] = target.path;
          const kind = leg.options.map(({ text }) => CONTAINER_KINDS[text]).find((found) => found?.kind === "modal");
          const node: PlaceNode = { ...NOWHERE, name, line: leg.line, column: leg.column };
          if (kind)
            this.place(
              { ...node, options: [{ text: leg.options.find(({ text }) => CONTAINER_KINDS[text])?.text ?? "sheet", line: leg.line, column: leg.column }] },
              undefined,
            );
          else this.beside(one, this.place(node, undefined));
        }
  }

  /** Puts a new screen into the stack of another; where that stands in none, a stack is put around the two. */
  private beside(from: Made, made: Made) {
    const around = from.container && from.container.kind !== "modal" ? from : from.owner;
    made.owner = around;
    if (!around?.container) return;
    const { container } = around;
    if (container.kind === "stack" || from.container) {
      container.members.push(made.id);
      return;
    }
    const node: PlaceNode = { ...NOWHERE, name: from.node.name, line: from.node.line, column: from.node.column };
    const stack: Made = { id: this.fresh(`${from.node.name} stack`), node, owner: around, screen: undefined, container: undefined };
    stack.container = newContainer("stack", stack.id, from.node.name, [from.id, made.id]);
    around.container = {
      ...container,
      members: container.members.map((id) => (id === from.id ? stack.id : id)),
      start: container.start === from.id ? stack.id : container.start,
    };
    from.owner = stack;
    made.owner = stack;
    this.made.push(stack);
  }

  private root(): string {
    const top = this.made.filter(
      ({ owner, container, node }) => owner === undefined && container?.kind !== "modal" && !node.options.some(({ text }) => text === "apart"),
    );
    const [only, ...others] = top;
    if (only && others.length === 0) return only.id;
    if (!only) {
      const first = this.made.find(({ screen }) => screen);
      return first?.id ?? "home";
    }
    const id = this.fresh("App");
    const stack: Made = {
      id,
      node: { ...NOWHERE, name: "App", line: 1, column: 1 },
      owner: undefined,
      screen: undefined,
      container: newContainer(
        "stack",
        id,
        "App",
        top.map((one) => one.id),
      ),
    };
    for (const one of top) one.owner = stack;
    this.made.unshift(stack);
    return id;
  }

  private facts(): Project["facts"] {
    return this.lines.facts.map(({ id, name, values, options }) => {
      const [first = false] = values;
      const boolean = typeof first === "boolean";
      const is = (word: string) => options.some(({ text }) => text === word);
      for (const option of options)
        if (option.text !== "outside" && option.text !== "persists") this.wrong(option, `found “${option.text}”, expected outside or persists`);
      return {
        id,
        ...(name === undefined ? {} : { name }),
        type: boolean ? ("boolean" as const) : ("choice" as const),
        ...(boolean ? {} : { values: values.map(String) }),
        initial: boolean ? first : String(first),
        source: is("outside") ? ("outside" as const) : ("app" as const),
        ...(is("persists") ? { persists: true } : {}),
      };
    });
  }

  private types(): Project["types"] {
    return this.lines.rows.map(({ id, fields, rows }) => ({
      id,
      fields,
      samples: rows.map((row) => Object.fromEntries(fields.map(({ name, type }, i) => [name, cellOf(row[i] ?? "", type)]))),
    }));
  }

  /** The place of a path: a name alone, or with names of containers around it before it. */
  private find(path: readonly string[]): Made | undefined {
    const [name, ...around] = [...path].reverse();
    const fits = (one: Made) =>
      around.reduce<{ at: Made | undefined; ok: boolean }>(({ at, ok }, wanted) => ({ at: at?.owner, ok: ok && at?.owner?.node.name === wanted }), {
        at: one,
        ok: true,
      }).ok;
    const all = this.made.filter((one) => one.node.name === name && fits(one));
    return all.find(({ screen }) => screen) ?? all[0];
  }

  /** Elements, and what names other places. */
  private contents(one: Made) {
    const up = one.node.options.find(({ text }) => text.startsWith("up "));
    if (one.screen && up) {
      const target = this.find(pathOf(up.text.slice(3).trim()));
      if (target?.screen) one.screen = { ...one.screen, up: target.id };
      else this.wrong(up, `found “${up.text}”, expected up and the name of a screen`);
    }
    const taken = new Set<string>();
    const elements = one.node.elements.flatMap((node): Element[] => {
      if (node.trigger) return [];
      const named = node.options.find(({ text }) => /^as [a-z]\w*$/.test(text))?.text.slice(3);
      const id = named ?? freshId(node.label, taken, "element");
      taken.add(id);
      let element: Element = { id, kind: node.kind, label: node.label };
      for (const option of node.options) {
        if (option.text === `as ${named}`) continue;
        if (option.text === "list" || option.text === "button" || option.text === "icon") element = { ...element, kind: option.text };
        else if (option.text.startsWith("not on ")) {
          const target = this.find(pathOf(option.text.slice(7).trim()));
          if (target) element = { ...element, except: [...(element.except ?? []), target.id] };
          else this.wrong(option, `found “${option.text}”, expected not on and the name of a place`);
        } else element = this.worded(option, element, ELEMENT_FLAGS, ELEMENT_SAID, "in bar, at foot, of plot, says …, shown if …, enabled if …");
      }
      return [element];
    });
    if (one.screen) one.screen = { ...one.screen, elements };
    else if (one.container && elements.length > 0) one.container = { ...one.container, elements };
  }

  private legsOf(one: Made, node: ElementNode, i: number): Leg[] {
    // Elements without a trigger of their own come in the order of their lines.
    const at = one.node.elements.slice(0, i).filter(({ trigger }) => !trigger).length;
    const element = node.trigger ? undefined : (one.screen ?? one.container)?.elements?.[at]?.id;
    return node.legs.flatMap((leg) => this.leg(one.id, element, node, leg));
  }

  private leg(from: string, element: string | undefined, node: ElementNode, { outcome, target, args, options, line, column }: LegNode): Leg[] {
    const id = freshId(`${node.label} ${target.is === "place" ? (target.path.at(-1) ?? "") : target.what}`.slice(0, 40), this.legIds, "leg");
    this.legIds.add(id);
    const kind = options.some(({ text }) => text === "hold") ? "hold" : options.some(({ text }) => text === "submit") ? "submit" : "tap";
    let leg: Leg = { id, from, on: element === undefined ? triggerOfNode(node) : { kind, element, ...(outcome === undefined ? {} : { outcome }) } };
    const rest = options.filter(({ text }) => text !== "hold" && text !== "submit");
    if (target.is === "doing") {
      const move = this.doing(target, args, { line, column });
      leg = { ...leg, ...(move ? { move } : {}) };
      return [this.finished(leg, rest)];
    }
    const found = this.find(target.path);
    if (!found) {
      this.wrong({ line, column }, `there is no place “${target.path.join("/")}”; expected the name of a screen or container of these lines`);
      return [];
    }
    const named = this.way(found, rest, args);
    const way = named && !args ? withArguments(this.project, from, element, named) : named;
    if (!way) this.loose.push({ leg, to: found.id, element, args });
    return [this.finished({ ...leg, ...(way ? { move: way } : {}) }, rest)];
  }

  private doing({ what, name }: Extract<LegNode["target"], { is: "doing" }>, give: Record<string, string> | undefined, at: At): Move | undefined {
    const named = name === undefined || what === "leave" ? undefined : this.find(pathOf(name));
    if (name !== undefined && what !== "leave" && !named)
      this.wrong(at, `there is no place “${unquoted(name)}”; expected ${what} alone, or with the name of a ${what === "close" ? "modal" : "drawer"}`);
    const given = give && Object.keys(give).length > 0 ? { give } : {};
    switch (what) {
      case "back":
        return { kind: "back", ...given };
      case "up":
        return { kind: "up" };
      case "close":
        return { kind: "close", ...(named ? { modal: named.id } : {}), ...given };
      case "menu":
      case "open menu":
      case "close menu":
        return { kind: "menu", ...(named ? { drawer: named.id } : {}), ...(what === "menu" ? {} : { action: what === "open menu" ? "open" : "close" }) };
      case "leave":
        return { kind: "leave", ...(name === undefined ? {} : { url: name }) };
      case "go on":
        return { kind: "proceed" };
      case "nothing":
        return undefined;
    }
  }

  /** The move that the options name; undefined where they leave it open. */
  private way(to: Made, options: readonly Option[], args: Record<string, string> | undefined): Move | undefined {
    const pass = args && Object.keys(args).length > 0 ? { pass: args } : {};
    const named = (["push", "replace", "reset", "return", "open", "select"] as const).find((kind) => options.some(({ text }) => WAYS[kind].includes(text)));
    const opening = options.find(({ text }) => text.startsWith("showing "));
    if (named === "open" || opening) {
      const modal = to.container?.kind === "modal" ? to : this.modalAround(to);
      const show = opening ? this.find(pathOf(opening.text.slice(8).trim()))?.id : modal && modal !== to ? to.id : undefined;
      return { kind: "open", to: (modal ?? to).id, ...(show === undefined || (!opening && show === this.firstOf(modal)) ? {} : { show }), ...pass };
    }
    if (!named) return undefined;
    const within = options.find(({ text }) => text.startsWith("in "));
    const into = within ? { in: this.find(pathOf(within.text.slice(3).trim()))?.id ?? "" } : {};
    switch (named) {
      case "push":
        return { kind: "push", to: to.id, ...pass, ...into };
      case "reset":
        return { kind: "reset", to: to.id, ...pass, ...into };
      case "replace":
        return { kind: "replace", to: to.id, ...pass };
      case "return": {
        const gives = options.filter(({ text }) => text.startsWith("gives "));
        const give = Object.fromEntries(
          gives.map(
            ({ text }) =>
              text
                .slice(6)
                .split(/\s*=\s*(.*)/s)
                .slice(0, 2) as [string, string],
          ),
        );
        return { kind: "return", to: to.id, ...pass, ...(gives.length > 0 ? { give } : {}) };
      }
      case "select":
        return { kind: "select", to: to.id };
    }
  }

  private modalAround(one: Made): Made | undefined {
    for (let at = one.owner; at; at = at.owner) if (at.container?.kind === "modal") return at;
    return undefined;
  }

  private firstOf(modal: Made | undefined): string | undefined {
    return modal && firstScreen(this.project, modal.id)?.id;
  }

  /** A leg with what its other options say. */
  private finished(leg: Leg, options: readonly Option[]): Leg {
    let done = leg;
    for (const option of options) {
      const { text } = option;
      if (Object.values(WAYS).some((words) => words.includes(text)) || /^(in|showing|gives) /.test(text)) continue;
      const flag = MOVE_FLAGS.find(({ word }) => word === text);
      if (flag) {
        if (done.move) done = { ...done, move: flag.set(done.move) };
        continue;
      }
      const [, fact, value] = /^set ([a-z]\w*) = (.+)$/s.exec(text) ?? [];
      if (fact !== undefined && value !== undefined) done = { ...done, set: { ...done.set, [fact]: value } };
      else done = this.worded(option, done, LEG_FLAGS, LEG_SAID, "how it leads there (push, replace, reset, pop to, open, switch), if …, set member = true");
    }
    return done;
  }

  private waysIn(): Entrance[] {
    const taken = new Set<string>();
    return this.lines.ways.flatMap(({ name, pattern, leg }): Entrance[] => {
      const found = leg.target.is === "place" ? this.find(leg.target.path) : undefined;
      if (!found) {
        this.wrong(leg, "found no place of that name, expected a screen or container of these lines");
        return [];
      }
      const called = name ?? pattern ?? "";
      const id = freshId(called.replace(/[{}]/g, ""), taken, "wayIn");
      taken.add(id);
      let entrance: Entrance = {
        id,
        name: called,
        kind: "link",
        ...(pattern === undefined ? {} : { pattern }),
        to: found.id,
        ...(leg.args ? { pass: leg.args } : {}),
        warm: "rebuild",
      };
      for (const option of leg.options) {
        const [, word, value = ""] = /^(if|else) (.+)$/s.exec(option.text) ?? [];
        const other = word === "else" ? this.find(pathOf(value)) : undefined;
        if (word === "if") entrance = { ...entrance, when: value };
        else if (other) entrance = { ...entrance, otherwise: other.id };
        else entrance = this.worded(option, entrance, WAY_IN_FLAGS, [], "notification, shortcut, waits, on top, if …, else and the name of a place");
      }
      return [entrance];
    });
  }

  /** The project with a way for each leg that the lines leave open: the one that works where its element is really met. */
  private tried(): Project {
    const suited = new Map(
      this.loose.map(({ leg, to, element, args }) => {
        const move = suitedMove(this.project, leg.from, to);
        return [leg.id, args ? withPassed(move, args) : withArguments(this.project, leg.from, element, move)] as const;
      }),
    );
    const flags = (leg: Leg, move: Move): Leg => ({ ...leg, move });
    const first = {
      ...this.project,
      legs: this.project.legs.map((leg) => flags(leg, leg.move ?? (suited.get(leg.id) as Move))).map((leg) => (leg.move ? leg : withoutMove(leg))),
    };
    if (this.problems.length > 0 || !readProjectData(first).ok) return first;
    const proposed = new Map(
      this.loose.map(({ leg, to, element, args }) => {
        const { move } = proposal(first, { place: leg.from, element, on: element === undefined ? (leg.on as never) : undefined }, to);
        return [leg.id, args ? withPassed(move, args) : move] as const;
      }),
    );
    return { ...first, legs: first.legs.map((leg) => ({ ...leg, ...(proposed.has(leg.id) ? { move: proposed.get(leg.id) as Move } : {}) })) };
  }
}

function withoutMove({ move: _, ...leg }: Leg): Leg {
  return leg;
}

function withPassed(move: Move, args: Record<string, string>): Move {
  if (!takesPass(move)) return move;
  const { pass: _, ...rest } = move;
  return Object.keys(args).length > 0 ? { ...rest, pass: args } : rest;
}

function triggerOfNode({ trigger }: ElementNode): Leg["on"] {
  return trigger ?? { kind: "arrive" };
}

function cellOf(text: string, type: string) {
  if (type === "number" || type === "integer") return Number.isFinite(Number(text)) && text !== "" ? Number(text) : unquoted(text);
  if (type === "boolean") return text === "true";
  return unquoted(text);
}

/** `from the right`, `half high`: where a modal comes from and how much of the page it takes. */
export function modalPlace(word: string): Partial<Extract<Container, { kind: "modal" }>> | undefined {
  const [, edge] = /^from the (top|bottom|left|right|center)$/.exec(word) ?? [];
  if (edge !== undefined) return { edge: edge as "top" };
  const [, align] = /^aligned to the (start|center|end)$/.exec(word) ?? [];
  if (align !== undefined) return { align: align as "start" };
  const extent = { "as large as it needs": "fit", "half the page": "half", "most of the page": "most" }[word];
  return extent === undefined ? undefined : { extent: extent as "fit" };
}
