/** The steps that are possible in a state of the search, and all that they may come to. */

import { once } from "../model/once.ts";
import type { NavEvent, Project } from "../model/schema.ts";
import type { Plan } from "../plan/plan.ts";
import { isPinnedAt } from "../semantics/bar.ts";
import { branchesInReach, isSource } from "../semantics/reach.ts";
import { branchNode, currentScreen, isOpenDrawer, visiblePath } from "../semantics/state.ts";
import { arrive, step } from "../semantics/step.ts";
import type { Outcome, State } from "../semantics/types.ts";
import { mayTurnOutAs } from "./chooser.ts";
import type { Edge, Way } from "./exploration.ts";
import type { AbstractProject } from "./followed.ts";

const NOTHING: readonly never[] = [];

/** A step that does nothing yet: what it comes to is filled in. */
export function noEdge(): Edge {
  return {
    event: undefined,
    way: "anew",
    choices: NOTHING,
    to: 0,
    outcome: "moved",
    asMade: undefined,
    why: undefined,
    unsure: undefined,
    fired: NOTHING,
    refusals: NOTHING,
    copies: NOTHING,
    passed: NOTHING,
  };
}

/** What came of an event, and what happened on the way. `anew`: facts that are not followed start at their initial values, all of them or those that do not persist. */
export function watched(
  abstract: AbstractProject,
  run: () => Outcome,
  anew?: "all" | "passing",
): { value: Outcome; seen: Pick<Edge, "fired" | "refusals" | "copies" | "passed"> } {
  if (abstract.assigned.size > 0) abstract.assigned = new Map();
  if (anew && !abstract.closest)
    for (const { id, source, persists, initial } of abstract.original.facts)
      if (source === "app" && !abstract.closeness.facts.has(id) && (anew === "all" || !persists)) abstract.assigned.set(id, { known: initial, version: 0 });
  const value = run();
  const { fired, refused, copied } = value.log;
  const passed = value.log.passed.flatMap((state) => [currentScreen(state).at, ...state.layers.map((layer) => layer.at)]);
  return { value, seen: { fired: kept(fired), refusals: kept(refused), copies: kept(copied), passed: kept(passed) } };
}

/** The list, or one empty list for all. */
function kept<T>(list: readonly T[]): readonly T[] {
  return list.length === 0 ? NOTHING : list;
}

/** All results of one event, for every way in which the unknown may turn out; `state` where it moved. */
export function run(abstract: AbstractProject, from: State, event: NavEvent | undefined, way: Way): Array<{ edge: Edge; state: State | undefined }> {
  const anew = event?.do === "launch" || (event?.do === "enter" && event.cold) ? "passing" : undefined;
  const ways = abstract.chooser.each(() => watched(abstract, () => outcomeOf(abstract, from, event), anew));
  const idle = ways.length < 2 ? [] : ways.filter(({ result }) => result.value.outcome !== "moved").map(({ choices }) => choices);
  const out: Array<{ edge: Edge; state: State | undefined }> = [];
  for (const { result, choices } of ways) {
    const { value: stepped, seen } = result;
    if (stepped.outcome === "ignored" && seen.refusals.length === 0) continue;
    const why = stepped.outcome === "refused" ? stepped.why : undefined;
    const edge: Edge = { ...noEdge(), event, way, choices, outcome: stepped.outcome, why, ...seen };
    if (stepped.outcome === "moved" && idle.some((other) => mayTurnOutAs(choices, other)))
      edge.unsure = idle.some((other) => mayTurnOutAs(choices, other, false)) ? "hidden" : "facts";
    out.push({ edge, state: stepped.outcome === "moved" ? stepped.state : undefined });
  }
  return out;
}

/** One event, or a change of outside facts, which lets arrive legs fire. */
function outcomeOf({ app }: AbstractProject, state: State, event: NavEvent | undefined): Outcome {
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
const ITSELF: Step = { event: undefined, way: "itself" };

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
export function events({ app, original }: AbstractProject, state: State): Step[] {
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
  if (app.plan.from.get(currentScreen(state).at)?.arrive.length && original.facts.some((fact) => fact.source === "outside")) out.push(ITSELF);
  return out;
}

export function startEvents(project: Project, how: "launch" | "enter"): NavEvent[] {
  return how === "launch" ? [{ do: "launch" }] : project.entrances.map((entrance): NavEvent => ({ do: "enter", entrance: entrance.id, cold: true }));
}
