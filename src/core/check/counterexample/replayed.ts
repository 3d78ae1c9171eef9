import type { NavEvent } from "../../model/schema.ts";
import type { Place } from "../reach/graph.ts";
import { factAsked } from "../system/choices.ts";
import type { Edge, Exploration } from "../system/exploration.ts";
import type { ConcreteWays } from "./concrete.ts";
import { anyWalk, distancesTo, searchOnwards, WITHOUT_RESTART } from "./directed.ts";
import { alongEdge, passes } from "./walk.ts";

/** States of a place that a walk is looked for to, nearest first. */
const TRIES = 3;

/** Whether a walk to a state of the search will do. */
export type Serves = (walk: readonly NavEvent[], node: number) => boolean;

function finds(exploration: Exploration, places: readonly number[], serves: Serves): boolean {
  const at = places.map((node) => ({ node }));
  return anyWalk(exploration, at, ({ walk }, { node }) => (serves(walk, node) ? walk : undefined)) !== undefined;
}

/** Legs that set what a way rests on which a walk is begun with, and states of the document that it goes through. */
const SETTERS = 4;
const MOST_AFTER = 80;

/** A walk to a state of the search that comes by a leg first which sets something that the ways to it rest on and that is not followed. */
export function walkAfterSetting(exploration: Exploration, places: readonly number[], ways: ConcreteWays, serves: Serves): NavEvent[] | undefined {
  const wanted = new Set(places);
  const facts = factsOn(places.flatMap((at) => ways.steps(at)));
  const starts = settersOf(exploration, facts)
    .slice(0, SETTERS)
    .flatMap(({ node, edge }) => alongEdge(exploration, ways.at(node), edge).slice(0, 1));
  return searchOnwards(exploration, {
    starts,
    distances: distancesTo(exploration, places, WITHOUT_RESTART),
    ways: WITHOUT_RESTART,
    most: MOST_AFTER,
    found: ({ walk }, nodes) => (nodes.some((node) => wanted.has(node) && serves(walk, node)) ? walk : undefined),
  });
}

/** The facts that some steps rest on and that are not followed. */
function factsOn(edges: readonly Edge[]): ReadonlySet<string> {
  return new Set(edges.flatMap(({ choices }) => choices.flatMap((choice) => factAsked(choice) ?? [])));
}

/** Of each leg that sets one of some facts the nearest step by which it fires, the nearest first. */
function settersOf(exploration: Exploration, facts: ReadonlySet<string>): Array<{ node: number; edge: Edge }> {
  const { legs } = exploration.abstraction.original;
  const setting = new Set(legs.filter(({ set }) => Object.keys(set ?? {}).some((fact) => facts.has(fact))).map(({ id }) => id));
  const nearest = new Map<string, { node: number; edge: Edge }>();
  if (setting.size === 0) return [];
  for (const node of nearestFirst(exploration))
    for (const edge of exploration.nodes[node]?.edges ?? [])
      for (const leg of edge.outcome === "moved" ? edge.fired : []) if (setting.has(leg) && !nearest.has(leg)) nearest.set(leg, { node, edge });
  return [...nearest.values()];
}

/** The states of a search, the nearest first. */
export function nearestFirst({ nodes }: Exploration): number[] {
  return [...nodes.keys()].sort((a, b) => (nodes[a]?.distance ?? 0) - (nodes[b]?.distance ?? 0));
}

/** A place that was met, and the steps of ways to it that do not replay. */
export interface Unconfirmed {
  place: string;
  edges: Edge[];
}

/**
 * The screens that a search met and the modals that it saw open to which no walk is found along the ways given, whose ends come
 * nearest first. Where the search follows a project coarsely, this tells whether what it met is really there. A
 * place that `known` holds is not looked for, one found is added to it. Where its ways do
 * not rest on what is not followed, others that serve are looked for.
 */
export function unconfirmedPlaces(
  exploration: Exploration,
  known: Set<string>,
  ends: Iterable<number>,
  ways: ConcreteWays,
  serves: Serves = () => true,
): Unconfirmed[] {
  const lost: Unconfirmed[] = [];
  const { nodes } = exploration;
  const project = exploration.abstraction.original;
  const wanted = new Map<string, number[]>();
  const want = (place: string, at: number) => {
    if (known.has(place)) return;
    const places = wanted.get(place);
    if (!places) wanted.set(place, [at]);
    else if (places.length < TRIES) places.push(at);
  };
  const passing = new Map<string, Place[]>();
  for (const at of ends) {
    const node = nodes[at];
    if (!node || node.pending) continue;
    want(node.screen, at);
    for (const layer of node.state.layers) want(layer.at, at);
    for (const edge of node.edges) for (const place of edge.passed) passing.set(place, [...(passing.get(place) ?? []).slice(0, TRIES - 1), { node: at, edge }]);
  }
  for (const [place, places] of wanted) {
    if (places.some((at) => ways.at(at).length > 0)) known.add(place);
    else {
      const edges = places.flatMap((at) => ways.steps(at));
      const walks = factsOn(edges).size > 0 ? walkAfterSetting(exploration, places, ways, serves) !== undefined : finds(exploration, places, serves);
      // What its ways rest on is followed next, unless a leg that sets it comes first; a search for another way would find none.
      if (walks) known.add(place);
      else lost.push({ place, edges });
    }
  }
  for (const edge of exploration.launches) for (const place of edge.passed) known.add(place);
  for (const [place, places] of passing) {
    if (known.has(place)) continue;
    if (places.some(({ node, edge }) => edge && passes(project, ways.at(node), edge, place))) known.add(place);
    else lost.push({ place, edges: places.flatMap(({ node, edge }) => [...ways.steps(node), ...(edge ? [edge] : [])]) });
  }
  return lost.filter(({ place }) => !known.has(place));
}
