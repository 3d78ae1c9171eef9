/** Makes walks concrete: what the search found abstractly is replayed through `step` on the document itself. */

import { addressValues } from "../../insight/addresses.ts";
import { appOf } from "../../insight/app.ts";
import { legEvents } from "../../insight/available.ts";
import { typedFields } from "../../insight/typed.ts";
import { lookup } from "../../model/lookup.ts";
import type { Json, NavEvent, Project } from "../../model/schema.ts";
import { currentScreen } from "../../semantics/state.ts";
import { launch, step } from "../../semantics/step.ts";
import type { Outcome, State } from "../../semantics/types.ts";
import { type Choice, valuesOf } from "../system/chooser.ts";
import type { Edge, Exploration, Explored } from "../system/exploration.ts";
import { isInstance } from "../system/isInstance.ts";

/** Concrete states that are followed side by side. */
const SIDE_BY_SIDE = 24;

/** A concrete state with the events that lead to it from launch. */
export interface Reached {
  state: State;
  walk: NavEvent[];
}
/** The last step of a walk. */
export interface LastStep {
  project: Project;
  result: Outcome;
}

/** The walk by one more edge from one of some concrete states whose last step is as asked; undefined where none is. */
export function lastStep(exploration: Exploration, from: readonly Reached[], last: Edge, shows: (step: LastStep) => boolean): NavEvent[] | undefined {
  const project = exploration.abstraction.original;
  for (const reached of from)
    for (const events of concreteEvents(project, reached.state, last)) {
      const found = replay(project, reached, events);
      if (found && shows({ project, result: found.result })) return found.reached.walk;
    }
  return undefined;
}

/** The walk to the first of some concrete states in which something holds, outside facts set so that it does; undefined where it holds in none. */
export function endsWhere(project: Project, from: readonly Reached[], holds: (state: State) => boolean): NavEvent[] | undefined {
  const outside = project.facts.filter(({ source }) => source === "outside");
  let settings: NavEvent[][] = [[]];
  for (const fact of outside)
    for (const value of valuesOf(fact))
      settings = [
        ...settings,
        ...settings
          .filter((set) => set.every((event) => event.do !== "fact" || event.fact !== fact.id))
          .map((set): NavEvent[] => [...set, { do: "fact", fact: fact.id, value }]),
      ].slice(0, MOST_SETTINGS);
  for (const set of settings)
    for (const reached of from) {
      const found =
        set.length === 0
          ? { reached }
          : replay(
              project,
              reached,
              set.filter((event) => event.do === "fact" && reached.state.facts[event.fact] !== event.value),
            );
      if (found && holds(found.reached.state)) return found.reached.walk;
    }
  return undefined;
}

/** Ways of setting outside facts that are tried. */
const MOST_SETTINGS = 64;

/** The concrete states that one step of the search leads to from some others. */
export function alongEdge(exploration: Exploration, from: Reached[], edge: Edge): Reached[] {
  const to = exploration.nodes[edge.to];
  const matches = (state: State) => to !== undefined && (to.pending !== undefined || isInstance(exploration.abstraction, to.state, state));
  return edge.way === "reveal" ? from.filter(({ state }) => matches(state)) : follow(exploration.abstraction.original, from, edge, matches);
}

/** Whether, by a step of the search from some states, an arrive leg leads on from a place. */
export function passes(project: Project, from: Reached[], edge: Edge, place: string): boolean {
  return from.some((reached) =>
    concreteEvents(project, reached.state, edge).some((events) => {
      const passed = replay(project, reached, events)?.result.log.passed ?? [];
      return passed.some((state) => currentScreen(state).at === place || state.layers.some((layer) => layer.at === place));
    }),
  );
}

/** Launches, in the width, that show the state from which a path starts: as it is, or again with outside facts set first. */
export function startingPoints(project: Project, exploration: Exploration, root: Explored | undefined): Reached[] {
  let at: Reached = { state: launch(appOf(project)), walk: [] };
  const points = [at];
  const go = (event: NavEvent) => {
    at = { state: step(appOf(project), at.state, event).state, walk: [...at.walk, event] };
  };
  if (exploration.width !== "narrow") {
    go({ do: "width", to: exploration.width });
    points[0] = at;
  }
  for (const event of factEvents(at.state, root?.launched ?? [])) go(event);
  go({ do: "launch" });
  points.push(at);
  return points.filter(({ state }) => root && isInstance(exploration.abstraction, root.state, state)).slice(0, 1);
}

function follow(project: Project, from: Reached[], edge: Edge, matches: (state: State) => boolean): Reached[] {
  const next: Reached[] = [];
  const seen = new Set<string>();
  for (const reached of from)
    for (const events of concreteEvents(project, reached.state, edge)) {
      const found = replay(project, reached, events);
      if (found?.result.outcome !== "moved" || !matches(found.reached.state)) continue;
      const key = JSON.stringify(found.reached.state);
      if (seen.has(key)) continue;
      seen.add(key);
      next.push(found.reached);
      if (next.length >= SIDE_BY_SIDE) return next;
    }
  return next.sort((a, b) => a.walk.length - b.walk.length);
}

export function replay(project: Project, { state, walk }: Reached, events: NavEvent[]): { reached: Reached; result: Outcome } | undefined {
  let at = state;
  let result: Outcome | undefined;
  for (const event of events) {
    result = step(appOf(project), at, event);
    at = result.state;
  }
  return result && { reached: { state: at, walk: [...walk, ...events] }, result };
}

/** The events that could be an edge of the search, outside facts first set as the edge needs them. */
export function concreteEvents(project: Project, state: State, edge: Edge): NavEvent[][] {
  const facts = factEvents(state, edge.choices);
  if (!edge.event) return facts.length > 0 ? [facts] : [];
  return variants(project, state, edge.event).map((event) => [...facts, event]);
}

function factEvents(state: State, choices: readonly Choice[]): NavEvent[] {
  return choices.flatMap(({ question, answer }): NavEvent[] => {
    const id = /^fact\.(\w+)$/.exec(question)?.[1];
    return id !== undefined && state.facts[id] !== answer ? [{ do: "fact", fact: id, value: answer as Json }] : [];
  });
}

function variants(project: Project, state: State, event: NavEvent): NavEvent[] {
  if (event.do === "enter") {
    const entrance = lookup(project).entrances.get(event.entrance);
    return (entrance ? addressValues(project, entrance) : [{}]).map((args) => (Object.keys(args).length > 0 ? { ...event, args } : event));
  }
  const leg = event.do === "leg" ? lookup(project).legs.get(event.leg) : undefined;
  if (!leg) return [event];
  const rows = legEvents(project, leg.id).slice(0, 50);
  return rows.flatMap((row) => typedFields(project, state, leg).map((fields) => (row.do === "leg" && fields ? { ...row, fields } : row)));
}
