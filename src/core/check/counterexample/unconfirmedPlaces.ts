import type { NavEvent } from "../../model/schema.ts";
import type { Place } from "../reach/graph.ts";
import { factAsked } from "../system/chooser.ts";
import type { Edge, Exploration } from "../system/exploration.ts";
import type { ConcreteWays } from "./concreteWays.ts";
import { anyWalk } from "./directedSearch.ts";
import { passes } from "./replay.ts";

/** States of a place that a walk is looked for to, nearest first. */
const TRIES = 3;

/** Whether a walk to a state of the search will do. */
export type Serves = (walk: readonly NavEvent[], node: number) => boolean;

function finds(exploration: Exploration, places: readonly number[], serves: Serves): boolean {
  const at = places.map((node) => ({ node }));
  return anyWalk(exploration, at, ({ walk }, { node }) => (serves(walk, node) ? walk : undefined)) !== undefined;
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
  const pass = (edges: readonly Edge[], node: number) => {
    for (const edge of edges) for (const place of edge.passed) passing.set(place, [...(passing.get(place) ?? []).slice(0, TRIES - 1), { node, edge }]);
  };
  const begun = new Set<readonly Edge[]>();
  for (const at of ends) {
    const node = nodes[at];
    if (!node || node.pending) continue;
    want(node.screen, at);
    for (const layer of node.state.layers) want(layer.at, at);
    pass(node.edges, at);
    if (!begun.has(node.starts)) pass(node.starts, at);
    begun.add(node.starts);
  }
  for (const [place, places] of wanted) {
    if (places.some((at) => ways.at(at).length > 0)) known.add(place);
    else {
      const edges = places.flatMap((at) => ways.steps(at));
      // What its ways rest on is followed next; a search before that would find no other.
      const rests = edges.some(({ choices }) => choices.some((choice) => factAsked(choice) !== undefined));
      if (!rests && finds(exploration, places, serves)) known.add(place);
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
