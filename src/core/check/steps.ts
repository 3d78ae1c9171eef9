/** The steps that are possible in a state of the search, and all that they may come to. */

import { isPinned } from "../engine/bar.ts";
import { compiled } from "../engine/compiled.ts";
import { branchesInReach, isSource, openDrawers } from "../engine/reach.ts";
import { branchNode, currentScreen, type State, type StepResult, visiblePath } from "../engine/state.ts";
import { arrive, step } from "../engine/step.ts";
import { drawerOf, lookup } from "../model/lookup.ts";
import type { NavEvent, Project } from "../model/schema.ts";
import type { AbstractProject } from "./abstract.ts";
import { mayTurnOutAs } from "./chooser.ts";
import type { Edge, Way } from "./exploration.ts";

/** A step that does nothing yet: what it comes to is filled in. */
export function noEdge(): Edge {
  return { event: undefined, way: "anew", choices: [], to: 0, outcome: "moved", fired: [], refusals: [], copies: [], passed: [] };
}

/** `anew`: facts that are not followed start at their initial values, all of them or those that do not persist. */
export function watched<T>(
  abstract: AbstractProject,
  run: () => T,
  anew?: "all" | "passing",
): { value: T; seen: Pick<Edge, "fired" | "refusals" | "copies" | "passed"> } {
  abstract.fired = [];
  abstract.refusals = [];
  abstract.copies = [];
  abstract.passed = [];
  if (abstract.assigned.size > 0) abstract.assigned = new Map();
  if (anew && !abstract.closest)
    for (const { id, source, persists, initial } of abstract.original.facts)
      if (source === "app" && !abstract.closeness.facts.has(id) && (anew === "all" || !persists)) abstract.assigned.set(id, { known: initial, version: 0 });
  const value = run();
  const passed = abstract.passed.flatMap((state) => [currentScreen(state).at, ...state.layers.map((layer) => layer.at)]);
  return { value, seen: { fired: abstract.fired, refusals: abstract.refusals, copies: abstract.copies, passed } };
}

/** All results of one event, for every way in which the unknown may turn out; `state` where it moved. */
export function run(abstract: AbstractProject, from: State, event: NavEvent | undefined, way: Way): Array<{ edge: Edge; state: State | undefined }> {
  const anew = event?.do === "launch" || (event?.do === "enter" && event.cold) ? "passing" : undefined;
  const ways = abstract.chooser.each(() => watched(abstract, () => outcomeOf(abstract, from, event), anew));
  const idle = ways.length < 2 ? [] : ways.filter(({ result }) => result.value.outcome !== "moved").map(({ choices }) => choices);
  return ways.flatMap(({ result, choices }) => {
    const stepped = result.value;
    if (stepped.outcome === "ignored" && result.seen.refusals.length === 0) return [];
    const why = stepped.outcome === "refused" ? { why: stepped.why } : {};
    const edge: Edge = { event, way, choices, to: -1, outcome: stepped.outcome, ...why, ...result.seen };
    if (stepped.outcome === "moved" && idle.some((other) => mayTurnOutAs(choices, other)))
      edge.unsure = idle.some((other) => mayTurnOutAs(choices, other, false)) ? "hidden" : "facts";
    return [{ edge, state: stepped.outcome === "moved" ? stepped.state : undefined }];
  });
}

/** One event, or a change of outside facts, which lets arrive legs fire. */
function outcomeOf({ project }: AbstractProject, state: State, event: NavEvent | undefined): StepResult {
  if (event) return step(project, state, event);
  const settled = arrive(project, state, state);
  if (settled === "loop") return { state, outcome: "refused", why: "redirect-loop" };
  return settled === state ? { state, outcome: "ignored", why: "nothing-to-do" } : { state: settled, outcome: "moved" };
}

/** The events that a person or the clock could cause, with what each is to the person. */
export function events({ project, original }: AbstractProject, state: State): Array<{ event: NavEvent | undefined; way: Way }> {
  const out: Array<{ event: NavEvent | undefined; way: Way }> = [];
  const { containers } = lookup(project);
  for (const branch of branchesInReach(project, state)) {
    const path = visiblePath(branchNode(state, branch));
    const modal = state.layers[branch - 1]?.at;
    for (const place of new Set([...path.map((n) => n.at).reverse(), ...(modal === undefined ? [] : [modal])])) {
      const legs = compiled(project).from.get(place)?.events;
      if (!legs || !isSource(project, state, branch, place)) continue;
      for (const { leg } of legs) out.push({ event: { do: "leg", leg: leg.id }, way: "out" });
    }
    for (const node of path) {
      if (node.kind !== "tabs" && node.kind !== "drawer") continue;
      if (node.kind === "drawer" && !node.open && !isPinned(drawerOf(project, node.at), state.width)) continue;
      for (const to of containers.get(node.at)?.members ?? []) out.push({ event: { do: node.kind === "tabs" ? "tab" : "pick", to }, way: "out" });
    }
  }
  out.push({ event: { do: "lead" }, way: "out" });
  if (state.layers.length > 0 || openDrawers(visiblePath(state.base)).length > 0)
    for (const via of ["outside", "swipe", "button"] as const) out.push({ event: { do: "close", via }, way: "out" });
  out.push({ event: { do: "back" }, way: "back" });
  if (original.facts.some((fact) => fact.source === "outside") && compiled(project).from.get(currentScreen(state).at)?.arrive.length)
    out.push({ event: undefined, way: "itself" });
  return out;
}

export function startEvents(project: Project, how: "launch" | "enter"): NavEvent[] {
  return how === "launch" ? [{ do: "launch" }] : project.entrances.map((entrance): NavEvent => ({ do: "enter", entrance: entrance.id, cold: true }));
}
