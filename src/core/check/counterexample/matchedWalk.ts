import type { NavEvent } from "../../model/schema.ts";
import type { Candidate, Place } from "../reach/graph.ts";
import { matchedWays } from "../reach/matchedWays.ts";
import type { Exploration } from "../system/exploration.ts";
import { statesWithTop } from "./coveredWalk.ts";
import { placesByNode } from "./directedSearch.ts";
import { alongEdge, type Reached, startingPoints } from "./replay.ts";

/** Places of a candidate that such a walk is tried to. */
const TRIES = 24;

/**
 * A walk to where something shows on which whatever is uncovered is what the walk itself has put there; where a place has to be `beneath`, one that
 * has had it on top before. `shown` judges whether it shows at a place in one of some states.
 */
export function matchedWalk(
  exploration: Exploration,
  { at: places = [] }: Candidate,
  beneath: string | undefined,
  shown: (at: readonly Reached[], place: Place) => NavEvent[] | undefined,
): NavEvent[] | undefined {
  const ways = matchedWays(exploration);
  const by = placesByNode(places);
  if (!ways) return undefined;
  const near = () => [...by.keys()].filter((node) => ways.has(node)).sort((a, b) => (ways.costOf(a) ?? 0) - (ways.costOf(b) ?? 0));
  const found =
    beneath === undefined
      ? near()
          .slice(0, TRIES)
          .map((node) => ways.to(node))
      : ways.over(statesWithTop(exploration, beneath), by).slice(0, TRIES);
  for (const { start, edges, end: node } of found) {
    let at = startingPoints(exploration.abstraction.original, exploration, exploration.nodes[start]);
    for (const edge of edges) if (at.length > 0) at = alongEdge(exploration, at, edge);
    for (const place of at.length > 0 ? (by.get(node) ?? []) : []) {
      const walk = shown(at, place);
      if (walk) return walk;
    }
  }
  return undefined;
}
