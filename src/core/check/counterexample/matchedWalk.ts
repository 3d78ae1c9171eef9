import type { NavEvent } from "../../model/schema.ts";
import type { Candidate, Place } from "../reach/graph.ts";
import { matchedWays } from "../reach/matched.ts";
import type { Exploration } from "../system/exploration.ts";
import { placesByNode } from "./directed.ts";
import { alongEdge, type Reached, startingPoints } from "./walk.ts";

/** Places of a candidate that such a walk is tried to. */
const TRIES = 24;

/**
 * A walk to where something shows on which whatever is uncovered is what the walk itself has put there. `shown` judges whether it shows at a place in
 * one of some states.
 */
export function matchedWalk(
  exploration: Exploration,
  { at: places = [] }: Candidate,
  shown: (at: readonly Reached[], place: Place) => NavEvent[] | undefined,
): NavEvent[] | undefined {
  const ways = matchedWays(exploration);
  const by = placesByNode(places);
  const near = [...by.keys()].filter((node) => ways?.has(node)).sort((a, b) => (ways?.costOf(a) ?? 0) - (ways?.costOf(b) ?? 0));
  for (const node of near.slice(0, TRIES)) {
    const { start, edges } = ways?.to(node) ?? { start: node, edges: [] };
    let at = startingPoints(exploration.abstraction.original, exploration, exploration.nodes[start]);
    for (const edge of edges) if (at.length > 0) at = alongEdge(exploration, at, edge);
    for (const place of at.length > 0 ? (by.get(node) ?? []) : []) {
      const walk = shown(at, place);
      if (walk) return walk;
    }
  }
  return undefined;
}
