import { once } from "../../model/once.ts";
import type { NavEvent } from "../../model/schema.ts";
import { visiblePath } from "../../semantics/state.ts";
import type { Node, State } from "../../semantics/types.ts";
import type { Candidate, Place } from "../reach/graph.ts";
import type { Edge, Exploration, Explored } from "../system/exploration.ts";
import { isRest } from "../system/hiding.ts";
import { assumptionsIn } from "../system/ways.ts";
import { ConcreteWays, concreteWays } from "./concrete.ts";
import { distancesTo, placesByNode, searchOnwards, WITHOUT_RESTART } from "./directed.ts";
import type { Reached } from "./walk.ts";

/** Judges whether something shows at a place in one of some states. */
type Shown = (at: readonly Reached[], place: Place) => NavEvent[] | undefined;

/** Places of a candidate that such a walk is tried to. */
const TRIES = 12;

/**
 * A walk to where something shows that has put a place on a stack before and has it beneath: along the shortest ways of the search to where the place
 * is on top, and from there by steps that put more on that stack or exchange what is on top. None of them takes anything off, so that what
 * lies hidden is what the walk itself has put there.
 */
export function coveredWalk(exploration: Exploration, place: string, { at: places = [] }: Candidate, shown: Shown): NavEvent[] | undefined {
  const { ways, costs } = coveredWays(exploration, place);
  const nearest = places.filter(({ node }) => costs.has(node)).sort((a, b) => (costs.get(a.node) ?? 0) - (costs.get(b.node) ?? 0));
  for (const one of nearest.slice(0, TRIES)) {
    const walk = shown(ways.at(one.node), one);
    if (walk) return walk;
  }
  return undefined;
}

/** The ways on which a place lies beneath, and by state what the cheapest of them costs. */
interface Covered {
  ways: ConcreteWays;
  costs: ReadonlyMap<number, number>;
}

function coveredWays(exploration: Exploration, place: string): Covered {
  const known = once(exploration, noWays);
  const made = known.get(place) ?? makeCoveredWays(exploration, place);
  known.set(place, made);
  return made;
}

const noWays = (_: Exploration) => new Map<string, Covered>();

/** The cheapest such ways, after Dijkstra (1959), from all states in which the place is on top. */
function makeCoveredWays(exploration: Exploration, place: string): Covered {
  const { nodes } = exploration;
  const covered = once(exploration, coveredStacks);
  const costs = new Map<number, number>();
  const by = new Map<number, By>();
  const waiting: Array<Array<{ at: number; by: By; stack: string }> | undefined> = [];
  const go = (from: number, number: number, stack: string, cost: number, covers: boolean) => {
    for (const edge of (nodes[from] as Explored).edges) {
      if (edge.outcome !== "moved" || edge.way === "restart" || edge.way === "reveal" || (covers && !edge.covers)) continue;
      if (costs.has(edge.to) || !covered[edge.to]?.includes(stack)) continue;
      const after = cost + 1 + PER_ASSUMPTION * assumptionsIn(edge);
      waiting[after] ??= [];
      waiting[after]?.push({ at: edge.to, by: { node: number, edge }, stack });
    }
  };
  // A state in which the place is on top may be one in which it lies beneath as well; as the beginning of a way it has a number of its own.
  const beginning = nodes.length;
  nodes.forEach((node, at) => {
    for (const stack of node.pending ? [] : stacksWithOnTop(node.state, place)) go(at, beginning + at, stack, node.distance, true);
  });
  for (let cost = 0; cost < waiting.length; cost++)
    for (const next of waiting[cost] ?? []) {
      if (costs.has(next.at)) continue;
      costs.set(next.at, cost);
      by.set(next.at, next.by);
      go(next.at, next.at, next.stack, cost, false);
    }
  const starts = (at: number) => (at < beginning ? [] : concreteWays(exploration).at(at - beginning));
  return { ways: new ConcreteWays(exploration, (at) => by.get(at), undefined, starts), costs };
}

/** States that a search for such a walk is begun from, those that it goes on through, and those for all such searches in one exploration together. */
const BEGINNINGS = 60;
const MOST = 400;
const MOST_TOGETHER = 15_000;

/** The same by a search on the document itself, through `step`, where the ways of the exploration do not replay. */
export function coveredWalkSearched(exploration: Exploration, place: string, { at: places = [] }: Candidate, shown: Shown): NavEvent[] | undefined {
  const budget = once(exploration, budgetOf);
  const by = placesByNode(places);
  const { nodes } = exploration;
  const distances = distancesTo(exploration, [...by.keys()], WITHOUT_RESTART);
  const begun = nodes.flatMap((node, i) => (distances[i] !== undefined && !node.pending && stacksWithOnTop(node.state, place).length > 0 ? [i] : []));
  begun.sort((a, b) => (nodes[a]?.distance ?? 0) + (distances[a] ?? 0) - (nodes[b]?.distance ?? 0) - (distances[b] ?? 0));
  return searchOnwards(exploration, {
    starts: begun.slice(0, BEGINNINGS).flatMap((i) => concreteWays(exploration).at(i).slice(0, 2)),
    distances,
    ways: WITHOUT_RESTART,
    still: (state) => shownNodes(state).some((node) => node.kind === "stack" && node.items.some(({ at }) => at === place)),
    most: Math.min(MOST, budget.left),
    found: (at, found) => {
      budget.left -= 1;
      for (const one of found.flatMap((node) => by.get(node) ?? []).slice(0, 2)) {
        const walk = shown([at], one);
        if (walk) return walk;
      }
      return undefined;
    },
  });
}

const budgetOf = (_: Exploration) => ({ left: MOST_TOGETHER });

type By = { node: number; edge: Edge };

/** Steps that it counts for if a value that is not followed must have been brought about first. */
const PER_ASSUMPTION = 2;

/** By state the stacks that show in it with something beneath their top; none where it is not said what shows. */
function coveredStacks({ nodes }: Exploration): ReadonlyArray<readonly string[]> {
  return nodes.map(({ state, pending }) => {
    const covered = pending ? [] : shownNodes(state).filter((node) => node.kind === "stack" && (node.items.length > 1 || node.items.some(isRest)));
    return covered.length === 0 ? NONE : covered.map(({ at }) => at);
  });
}

const NONE: readonly string[] = [];

/** The stacks that show with a place on top. */
function stacksWithOnTop(state: State, place: string): string[] {
  return shownNodes(state).flatMap((node) => (node.kind === "stack" && node.items[node.items.length - 1]?.at === place ? [node.at] : []));
}

function shownNodes({ base, layers }: State): Node[] {
  return [base, ...layers.map(({ content }) => content)].flatMap(visiblePath);
}
