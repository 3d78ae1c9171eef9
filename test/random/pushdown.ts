import { readProjectData } from "../../src/core/model/read.ts";
import type { Project } from "../../src/core/model/schema.ts";
import type { Rule } from "../oracle/pushdown.ts";
import { pick, seeded } from "./documents.ts";

/** What lies beneath all else. */
export const BOTTOM = "_";

type Move =
  | { kind: "push"; to: string; repeat?: "copy" | "stay" | "rewind" }
  | { kind: "replace" | "reset"; to: string }
  | { kind: "return"; to: string; orElse?: "push" | "replace" | "nothing" }
  | { kind: "open"; to: string }
  | { kind: "close"; modal?: string }
  | { kind: "back" };

/** A leg of such an app: it needs the fact to have a value, and sets it. */
export interface RandomLeg {
  id: string;
  from: string;
  when: string | undefined;
  sets: string | undefined;
  move: Move;
}

/** A modal of such an app with a stack in it. */
export interface RandomModal {
  id: string;
  members: string[];
  closeOn: string[];
}

/**
 * An app of one stack, modals with a stack each, and one fact, so that it is a pushdown system as the textbook has them: the fact is the
 * control state, all stacks together are one, and a symbol says what lies beneath in its own stack, and which modals are open.
 */
export interface RandomSystem {
  project: Project;
  controls: string[];
  screens: string[];
  modals: RandomModal[];
  legs: RandomLeg[];
  symbols: StackSymbols;
  rules: Rule[];
}

/** A screen as it lies on a stack. */
export interface StackSymbol {
  screen: string;
  beneath: readonly string[];
  modals: readonly string[];
}

/** StackSymbols by their names. */
export type StackSymbols = ReadonlyMap<string, StackSymbol>;

export const nameOf = ({ screen, beneath, modals }: StackSymbol): string => `${screen}/${beneath.join()}/${modals.join()}`;

export const START = nameOf({ screen: "a", beneath: [], modals: [] });

export function randomSystem(seed: number): RandomSystem {
  const random = seeded(seed);
  const some = <T>(list: T[], least: number): T[] => list.slice(0, least + Math.floor(random() * (list.length - least + 1)));
  const base = some(["a", "b", "c", "d", "e"], 2);
  const controls = some(["p", "q", "r", "s"], 1);
  const modals = some([0, 1], 0).map(
    (i): RandomModal => ({ id: `m${i}`, members: some([`x${i}`, `y${i}`], 1), closeOn: ["back", "outside"].filter(() => random() < 0.35) }),
  );
  const screens = [...base, ...modals.flatMap(({ members }) => members)];
  const to = () => pick(random, screens);
  const move = (): Move => {
    const kind = pick(random, ["push", "push", "push", "replace", "back", "reset", "return", "open", "close"] as const);
    if (kind === "back") return { kind };
    if (kind === "push") return { kind, to: to(), repeat: pick(random, ["copy", "copy", "stay", "rewind"] as const) };
    if (kind === "return") return { kind, to: to(), orElse: pick(random, ["push", "replace", "nothing"] as const) };
    if (kind === "replace" || kind === "reset" || modals.length === 0) return { kind: kind === "replace" ? kind : "reset", to: to() };
    const modal = pick(random, modals).id;
    return kind === "open" ? { kind, to: modal } : { kind, ...(random() < 0.3 ? { modal } : {}) };
  };
  const legs = screens
    .flatMap((from) => some([from, from, from], random() < 0.2 ? 0 : 1))
    .map((from, i): RandomLeg => {
      const given = { when: random() < 0.4 ? pick(random, controls) : undefined, sets: random() < 0.4 ? pick(random, controls) : undefined };
      return { id: `leg${i}`, from, ...(controls.length > 1 ? given : { when: undefined, sets: undefined }), move: move() };
    });
  const system = { controls, screens, modals, legs };
  return { ...system, ...rulesOf(system), project: projectOf(system, base, () => random() < 0.5) };
}

function projectOf({ screens, controls, modals, legs }: Parts, base: string[], maybe: () => boolean): Project {
  const stack = (id: string, members: string[]) => ({ kind: "stack", id, name: id, start: members[0], members });
  const read = readProjectData({
    format: "etape/1",
    name: "system",
    root: "s",
    facts: controls.length < 2 ? [] : [{ id: "control", type: "choice", values: controls, initial: "p", source: "app" }],
    types: [],
    containers: [
      stack("s", base),
      ...modals.flatMap(({ id, members, closeOn }) => [
        { kind: "modal", id, name: id, start: `${id}stack`, members: [`${id}stack`], shape: "sheet", edge: "bottom", blocks: true, dims: true, closeOn },
        stack(`${id}stack`, members),
      ]),
    ],
    screens: screens.map((id) => ({
      id,
      name: id,
      params: [],
      up: "none",
      bar: { show: true, lead: "none" },
      elements: legs.flatMap((leg) => (leg.from === id ? [{ id: `on${leg.id}`, kind: "button", label: leg.id }] : [])),
      mayRepeat: maybe(),
    })),
    legs: legs.map(({ id, from, when, sets, move }) => ({
      id,
      from,
      on: { kind: "tap", element: `on${id}` },
      move,
      ...(when ? { when: `fact.control == "${when}"` } : {}),
      ...(sets ? { set: { control: `"${sets}"` } } : {}),
    })),
    entrances: [],
    walks: [],
  });
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return read.project;
}

type Parts = Pick<RandomSystem, "controls" | "screens" | "modals" | "legs">;

/** What an event does to the top of the stack: other symbols instead of it, or taking off until something is met; undefined where it is ignored, or leaves the app. */
export type Effect =
  | { push: readonly StackSymbol[] }
  | { until: string; isMet: (symbol: StackSymbol) => boolean; instead?: (symbol: StackSymbol) => StackSymbol };

/** The system's Back on a symbol, and what a leg of the kind does. */
export function back({ beneath, modals: open }: StackSymbol, modals: readonly RandomModal[]): Effect | undefined {
  const top = modals.find(({ id }) => id === open.at(-1));
  return beneath.length > 0 || top?.closeOn.includes("back") ? { push: [] } : undefined;
}

/** A tap outside the topmost modal. */
export function outside({ modals: open }: StackSymbol, modals: readonly RandomModal[]): Effect | undefined {
  const top = modals.find(({ id }) => id === open.at(-1));
  return top?.closeOn.includes("outside") ? closing(open.length - 1) : undefined;
}

export function effectOf({ move }: RandomLeg, top: StackSymbol, modals: readonly RandomModal[]): Effect | undefined {
  const { screen, beneath, modals: open } = top;
  const on = (to: string): Effect => ({ push: [{ screen: to, beneath: [...new Set([...beneath, screen])].sort(), modals: open }, top] });
  const instead = (to: string): Effect => ({ push: [{ ...top, screen: to }] });
  const backTo = (to: string): Effect => ({ until: `${to} of ${open.join()}`, isMet: (symbol) => symbol.screen === to });
  switch (move.kind) {
    case "back":
      return back(top, modals);
    case "replace":
      return instead(move.to);
    case "push":
      if (move.to === screen && move.repeat !== "copy") return undefined;
      return move.repeat === "rewind" && beneath.includes(move.to) ? backTo(move.to) : on(move.to);
    case "reset":
      if (beneath.length === 0) return instead(move.to);
      return { until: `the lowest, for ${move.to}`, isMet: (symbol) => symbol.beneath.length === 0, instead: (symbol) => ({ ...symbol, screen: move.to }) };
    case "return":
      if (move.to === screen) return undefined;
      if (beneath.includes(move.to)) return backTo(move.to);
      return move.orElse === "nothing" ? undefined : move.orElse === "replace" ? instead(move.to) : on(move.to);
    case "open": {
      const at = open.indexOf(move.to);
      if (at >= 0) return at === open.length - 1 ? undefined : closing(at + 1);
      const start = modals.find(({ id }) => id === move.to)?.members[0] ?? "";
      return { push: [{ screen: start, beneath: [], modals: [...open, move.to] }, top] };
    }
    case "close": {
      const at = move.modal === undefined ? open.length - 1 : open.indexOf(move.modal);
      return at < 0 ? undefined : closing(at);
    }
  }
}

const closing = (left: number): Effect => ({ until: `${left} modals`, isMet: ({ modals }) => modals.length <= left });

export const isFired = ({ when }: RandomLeg, control: string): boolean => when === undefined || when === control;

/** The symbols that there may be, and the rules of all events on them. */
function rulesOf({ controls, modals, legs }: Parts): { symbols: StackSymbols; rules: Rule[] } {
  const start: StackSymbol = { screen: "a", beneath: [], modals: [] };
  const symbols = new Map([[START, start]]);
  const rules: Rule[] = [];
  const untils = new Map<string, { effect: Extract<Effect, { until: string }>; to: string }>();
  const add = (from: string, top: string, to: string, effect: Effect | undefined) => {
    if (!effect) return;
    if ("push" in effect) {
      for (const symbol of effect.push) if (!symbols.has(nameOf(symbol))) symbols.set(nameOf(symbol), symbol);
      rules.push({ from, top, to, push: effect.push.map(nameOf) });
      return;
    }
    const name = `${to} after all above ${effect.until}`;
    untils.set(name, { effect, to });
    rules.push({ from, top, to: name, push: [] });
  };
  // What one symbol gives may be found while others are taken off, and what these give in turn.
  for (let known = -1; known < symbols.size + untils.size; ) {
    known = symbols.size + untils.size;
    rules.length = 0;
    for (const [top, symbol] of symbols) {
      for (const control of controls) {
        add(control, top, control, back(symbol, modals));
        add(control, top, control, outside(symbol, modals));
        for (const leg of legs) if (leg.from === symbol.screen && isFired(leg, control)) add(control, top, leg.sets ?? control, effectOf(leg, symbol, modals));
      }
      for (const [name, { effect, to }] of untils)
        add(name, top, effect.isMet(symbol) ? to : name, { push: effect.isMet(symbol) ? [effect.instead?.(symbol) ?? symbol] : [] });
    }
  }
  return { symbols, rules };
}
