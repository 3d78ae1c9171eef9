/** The steps that are possible in a state of the search, and all that they may come to. */

import { placesShown } from "../../insight/rules/moment.ts";
import { once } from "../../model/once.ts";
import type { NavEvent, Project } from "../../model/schema.ts";
import type { Plan } from "../../plan/plan.ts";
import { isPinnedAt } from "../../semantics/bar.ts";
import { branchesInReach, isSource } from "../../semantics/reach.ts";
import { branchNode, currentScreen, isOpenDrawer, visiblePath } from "../../semantics/state.ts";
import { arrive, step } from "../../semantics/step.ts";
import type { Outcome, State } from "../../semantics/types.ts";
import type { Edge, Way } from "./exploration.ts";
import type { Abstraction } from "./types.ts";

const NOTHING: readonly never[] = [];

/** A step that does nothing yet: what it comes to is filled in. */
export function noEdge(): Edge {
  return {
    event: undefined,
    way: "restart",
    choices: NOTHING,
    to: 0,
    outcome: "moved",
    grew: false,
    hides: NOTHING,
    uncovers: undefined,
    leaves: NOTHING,
    shows: undefined,
    asMade: undefined,
    why: undefined,
    fired: NOTHING,
    refusals: NOTHING,
    copies: NOTHING,
    handed: NOTHING,
    passed: NOTHING,
    around: NOTHING,
  };
}

/** What came of an event, and what happened on the way. `restarts`: facts that are not followed start at their initial values, all of them or those that do not persist. */
export function watched(
  abstraction: Abstraction,
  run: () => Outcome,
  restarts?: "all" | "passing",
): { value: Outcome; seen: Pick<Edge, "fired" | "refusals" | "copies" | "handed" | "passed" | "around">; missed: Abstraction["missed"] } {
  if (abstraction.assigned.size > 0) abstraction.assigned = new Map();
  if (restarts && !abstraction.closest)
    for (const { id, source, persists, initial } of abstraction.original.facts)
      if (source === "app" && !abstraction.precision.follows.has(id) && (restarts === "all" || !persists))
        abstraction.assigned.set(id, { known: initial, version: 0 });
  if (abstraction.missed.size > 0) abstraction.missed = new Map();
  const value = run();
  const { fired, refused } = value.log;
  const copied = value.log.copied.map(({ leg, place }) => ({ leg, place, beneath: [...(abstraction.rests.asked.get(place) ?? [])] }));
  const around = value.log.passed.flatMap(placesShown);
  const passed = value.log.passed.flatMap((state) => [currentScreen(state).at, ...state.layers.map((layer) => layer.at)]);
  return {
    value,
    seen: { fired: kept(fired), refusals: kept(refused), copies: kept(copied), handed: kept(value.log.handed), passed: kept(passed), around: kept(around) },
    missed: abstraction.missed,
  };
}

/** The list, or one empty list for all. */
function kept<T>(list: readonly T[]): readonly T[] {
  return list.length === 0 ? NOTHING : list;
}

/** One result of an event: the state where it moved, and what was looked for in contexts and not found. */
interface Result {
  edge: Edge;
  state: State | undefined;
  missed: Abstraction["missed"];
}

/**
 * All results of one event, for every way in which the unknown may turn out; `state` where it moved. Ignored ones are kept where another
 * way moves, and where a leg has fired that did nothing.
 */
export function run(abstraction: Abstraction, from: State, event: NavEvent | undefined, way: Way): Result[] {
  const restarts = event?.do === "launch" || (event?.do === "enter" && event.cold) ? "passing" : undefined;
  const ways = abstraction.chooser.each(() => watched(abstraction, () => outcomeOf(abstraction, from, event), restarts));
  const out: Result[] = [];
  for (const { result, choices } of ways) {
    const { value: stepped, seen, missed } = result;
    if (stepped.outcome === "ignored" && seen.fired.length === 0 && ways.length < 2) continue;
    if (abstraction.only && !choices.some(({ answer }) => answer === abstraction.only?.content)) continue;
    const why = stepped.outcome === "refused" ? stepped.why : undefined;
    out.push({
      edge: { ...noEdge(), event, way, choices, outcome: stepped.outcome, why, grew: stepped.outcome === "moved" && hasGrown(from, stepped.state), ...seen },
      state: stepped.outcome === "moved" ? stepped.state : undefined,
      missed,
    });
  }
  return out;
}

/** Whether a stack that showed has all that it had and more on it. */
function hasGrown(from: State, to: State): boolean {
  const branch = from.layers.length;
  if (to.layers.length !== branch) return false;
  const before = visiblePath(branchNode(from, branch));
  return visiblePath(branchNode(to, branch)).some((node, depth) => {
    const was = before[depth];
    if (node.kind !== "stack" || was?.kind !== "stack" || node.at !== was.at) return false;
    return node.items.length > was.items.length && was.items.every((item, i) => item === node.items[i]);
  });
}

/** One event, or a change of outside facts, which lets arrive legs fire. */
function outcomeOf({ app }: Abstraction, state: State, event: NavEvent | undefined): Outcome {
  return event ? step(app, state, event) : arrive(app, state, state);
}

/** An event with what it is to the person; undefined where outside facts change. */
export interface Step {
  event: NavEvent | undefined;
  way: Way;
}

const LEAD: Step = { event: { do: "lead" }, way: "out" };
const BACK: Step = { event: { do: "back" }, way: "back" };
const CLOSE = (["outside", "swipe", "button"] as const).map((via): Step => ({ event: { do: "close", via }, way: "out" }));
const AUTOMATIC: Step = { event: undefined, way: "automatic" };

/** The legs from each place, and the choices of each tab set or drawer, as steps; made once for a project. */
interface Offered {
  legs: Map<string, readonly Step[]>;
  choices: Map<string, readonly Step[]>;
}

function offeredBy({ from, containers }: Plan): Offered {
  const legs = [...from].map(([place, { events }]): [string, Step[]] => [place, events.map(({ id }) => ({ event: { do: "leg", leg: id }, way: "out" }))]);
  const choices = [...containers].flatMap(([id, { kind, members }]): Array<[string, Step[]]> => {
    const by = kind === "tabs" ? "tab" : kind === "drawer" ? "pick" : undefined;
    return by ? [[id, members.map((to) => ({ event: { do: by, to }, way: "out" }))]] : [];
  });
  return { legs: new Map(legs), choices: new Map(choices) };
}

/** The events that a person or the clock could cause, each once. */
export function events({ app, original }: Abstraction, state: State): Step[] {
  const { legs, choices } = once(app.plan, offeredBy);
  const lists: Array<readonly Step[]> = [];
  for (const branch of branchesInReach(app, state)) {
    const path = visiblePath(branchNode(state, branch));
    const modal = state.layers[branch - 1];
    for (const { at } of (modal ? [modal, ...path] : [...path]).reverse()) {
      const from = legs.get(at);
      if (from && from.length > 0 && !lists.includes(from) && isSource(app, state, branch, at)) lists.push(from);
    }
    for (const node of path) {
      const offers = node.kind === "tabs" || (node.kind === "drawer" && (node.open || isPinnedAt(app.plan, node.at, state.width)));
      const from = offers ? choices.get(node.at) : undefined;
      if (from && !lists.includes(from)) lists.push(from);
    }
  }
  const out = lists.flat();
  out.push(LEAD);
  if (state.layers.length > 0 || visiblePath(state.base).some(isOpenDrawer)) out.push(...CLOSE);
  out.push(BACK);
  if (app.plan.from.get(currentScreen(state).at)?.arrive.length && original.facts.some((fact) => fact.source === "outside")) out.push(AUTOMATIC);
  return out;
}

export function startEvents(project: Project, how: "launch" | "enter"): NavEvent[] {
  return how === "launch" ? [{ do: "launch" }] : project.entrances.map((entrance): NavEvent => ({ do: "enter", entrance: entrance.id, cold: true }));
}

/** What tells the steps from one state apart. */
export function stepName({ event, way }: Step): string {
  switch (event?.do) {
    case "leg":
      return event.leg;
    case "tab":
    case "pick":
      return `${event.do} ${event.to}`;
    case "close":
      return `close ${event.via}`;
    case "enter":
      return `enter ${event.entrance}`;
    default:
      return `${event?.do ?? "facts"} ${way}`;
  }
}
