import { freshId } from "../model/edits/edit.ts";
import { firstScreen } from "../model/lookup.ts";
import { takesPass, withPass } from "../model/moves.ts";
import { withArguments } from "../model/propose.ts";
import type { Entrance, Leg, Move, Project } from "../model/schema.ts";
import type { At, ElementNode, LegNode, Lines, Option } from "./ast.ts";
import type { Expressions, Here } from "./expressions.ts";
import type { Made, Places } from "./places.ts";
import type { Problems } from "./problems.ts";
import { unquoted } from "./scan.ts";
import { pathOf } from "./targets.ts";
import { isStartOver, popsToOtherLane } from "./usual.ts";
import { AROUND, CONTAINER_KINDS, LEG_FLAGS, LEG_SAID, MOVE_FLAGS, WAY_IN_FLAGS, WAYS } from "./words.ts";

/** A leg whose way the lines leave open. */
export interface Loose {
  leg: Leg;
  to: string;
  element: string | undefined;
  args: Record<string, string> | undefined;
  /** What is said of the way, whichever it will be. */
  flags: Option[];
  at: At;
}

/** A move that passes what the lines name; where it can pass nothing, that is wrong. */
export function passing(move: Move, { args, at }: Pick<Loose, "args" | "at">, problems: Problems): Move {
  if (!args) return move;
  const named = Object.keys(args);
  if (named.length > 0 && !takesPass(move))
    problems.wrong(
      at,
      `${move.kind === "close" ? "closing a modal" : "going over to a tab or an entry of a menu"} passes nothing to a place; expected it without ${named.join(", ")}, or a way that does, such as push`,
    );
  return withPass(move, named.length > 0 ? args : undefined);
}

/** Legs and ways in from their lines. The project has its places and elements, and no legs yet. */
export class Legs {
  /** Legs whose way the lines leave open. */
  readonly loose: Loose[] = [];
  /** Legs whose way is named, and not in which stack it takes place. */
  readonly stackless = new Set<string>();
  /** Where each leg stands in the lines. */
  readonly at = new Map<string, At>();
  private readonly ids = new Set<string>();

  constructor(
    private readonly project: Project,
    private readonly places: Places,
    private readonly problems: Problems,
    private readonly expressions: Expressions,
  ) {}

  legsOf(one: Made, node: ElementNode, i: number): Leg[] {
    // Elements without a trigger of their own come in the order of their lines.
    const at = one.node.elements.slice(0, i).filter(({ trigger }) => !trigger).length;
    const element = node.trigger ? undefined : (one.screen ?? one.container)?.elements?.[at]?.id;
    const here = this.places.here(one, node);
    return node.legs.flatMap((leg) => this.leg(one.id, element, node, this.expressed(leg, here)));
  }

  private leg(from: string, element: string | undefined, node: ElementNode, { outcome, target, args, options, line, column }: LegNode): Leg[] {
    const id = freshId(`${node.label} ${target.is === "place" ? (target.path.at(-1) ?? "") : target.what}`.slice(0, 40), this.ids, "leg");
    this.ids.add(id);
    this.at.set(id, { line, column });
    const kind = options.some(({ text }) => text === "hold") ? "hold" : options.some(({ text }) => text === "submit") ? "submit" : "tap";
    let leg: Leg = { id, from, on: element === undefined ? triggerOfNode(node) : { kind, element, ...(outcome === undefined ? {} : { outcome }) } };
    const rest = options.filter(({ text }) => text !== "hold" && text !== "submit");
    if (target.is === "doing") {
      const move = this.doing(target, args, { line, column });
      leg = { ...leg, ...(move ? { move } : {}) };
      return [this.finished(leg, rest)];
    }
    const found = this.places.find(target.path);
    if (!found) {
      this.problems.wrong({ line, column }, `there is no place “${target.path.join("/")}”; expected the name of a screen or container of these lines`);
      return [];
    }
    const said = this.way(found, rest, args);
    const anew = !said && element !== undefined && !rest.some(isFlag) && isStartOver(this.project, from, element, found.id);
    const told = anew ? this.way(found, [{ text: "reset", line, column }], args) : said;
    const isPlain = !rest.some((option) => option.text === AROUND || isFlag(option));
    const elsewhere = told && !args && isPlain && popsToOtherLane(this.project, from, told);
    const named = elsewhere ? undefined : told;
    if (named && !rest.some(({ text }) => text === AROUND)) this.stackless.add(id);
    const way = named && !args ? withArguments(this.project, from, element, named) : named;
    if (!way) this.loose.push({ leg, to: found.id, element, args, flags: rest.filter(isFlag), at: { line, column } });
    return [this.finished({ ...leg, ...(way ? { move: way } : {}) }, rest)];
  }

  /** A leg with its conditions and values as expressions. */
  private expressed(leg: LegNode, here: Here): LegNode {
    return {
      ...leg,
      options: this.expressions.options(leg.options, here),
      ...(leg.args ? { args: this.expressions.args(leg.args, leg, here) } : {}),
    };
  }

  private doing({ what, name }: Extract<LegNode["target"], { is: "doing" }>, give: Record<string, string> | undefined, at: At): Move | undefined {
    const named = name === undefined || what === "leave" ? undefined : this.places.find(pathOf(name));
    if (name !== undefined && what !== "leave" && !named)
      this.problems.wrong(at, `there is no place “${unquoted(name)}”; expected ${what} alone, or with the name of a ${what === "close" ? "modal" : "drawer"}`);
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
    const named = (["push", "replace", "reset", "return", "open", "select"] as const).find((kind) =>
      options.some(({ text }) => WAYS[kind].includes(text) || MOVE_FLAGS.some((flag) => flag.word === text && flag.names === kind)),
    );
    const opening = this.placed(options, "showing", "a screen");
    const within = this.placed(options, "in", "a stack");
    if (named === "open" || opening) {
      const modal = to.container?.kind === "modal" ? to : this.modalAround(to);
      const show = opening ? opening.id : modal && modal !== to ? to.id : undefined;
      return { kind: "open", to: (modal ?? to).id, ...(show === undefined || (!opening && show === this.firstOf(modal)) ? {} : { show }), ...pass };
    }
    const into = within ? { in: within.id } : {};
    if (!named) return within ? { kind: "push", to: to.id, ...pass, ...into } : undefined;
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
        return { kind: "select", to: this.places.lane(to).id };
    }
  }

  /** The place that an option names: `in Plots`. */
  private placed(options: readonly Option[], word: string, what: string): Made | undefined {
    const option = options.find(({ text }) => text.startsWith(`${word} `) && text !== AROUND);
    const found = option && this.places.find(pathOf(option.text.slice(word.length).trim()));
    if (option && !found) this.problems.wrong(option, `found “${option.text}”, expected ${word} and the name of ${what}`);
    return found;
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
    let done: Leg = leg.move ? { ...leg, move: flagged(leg.move, options.filter(isFlag), this.problems) } : leg;
    for (const option of options) {
      const { text } = option;
      if (isFlag(option) || text === AROUND || Object.values(WAYS).some((words) => words.includes(text)) || /^(in|showing|gives) /.test(text)) continue;
      const holder = CONTAINER_KINDS[text]?.kind;
      if (holder === "tabs" || holder === "drawer") {
        const menu = holder === "drawer" ? ", and a control opens it with > menu" : "";
        this.problems.wrong(option, `“${text}” says what a place holds; expected a line such as Main (${text}) with its screens further in${menu}`);
        continue;
      }
      const [, fact, value] = /^set ([a-z]\w*) = (.+)$/s.exec(text) ?? [];
      if (fact !== undefined && value !== undefined) done = { ...done, set: { ...done.set, [fact]: value } };
      else
        done = this.problems.worded(
          option,
          done,
          LEG_FLAGS,
          LEG_SAID,
          "how it leads there (push, replace, reset, pop to, open, switch), if …, set member = true",
        );
    }
    return done;
  }

  waysIn(ways: Lines["ways"]): Entrance[] {
    const taken = new Set<string>();
    return ways.flatMap(({ name, pattern, leg: told }): Entrance[] => {
      const leg = this.expressed(told, { params: new Set() });
      const found = leg.target.is === "place" ? this.places.find(leg.target.path) : undefined;
      if (!found) {
        this.problems.wrong(leg, "found no place of that name, expected a screen or container of these lines");
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
        const other = word === "else" ? this.places.find(pathOf(value)) : undefined;
        if (word === "if") entrance = { ...entrance, when: value };
        else if (other) entrance = { ...entrance, otherwise: other.id };
        else entrance = this.problems.worded(option, entrance, WAY_IN_FLAGS, [], "notification, shortcut, waits, on top, if …, else and the name of a place");
      }
      return [entrance];
    });
  }
}

/** A move with what options say of it; an option that such a move does not know is wrong. */
export function flagged(move: Move, options: readonly Option[], problems?: Problems): Move {
  return options.reduce((now, option) => {
    const flag = MOVE_FLAGS.find(({ word }) => word === option.text);
    const next = flag?.set(now) ?? now;
    if (flag && !flag.has(next)) problems?.wrong(option, `“${option.text}” says nothing of this way; expected it with ${flag.with}`);
    return next;
  }, move);
}

function triggerOfNode({ trigger }: ElementNode): Leg["on"] {
  return trigger ?? { kind: "arrive" };
}

function isFlag({ text }: Option): boolean {
  return MOVE_FLAGS.some(({ word }) => word === text);
}
