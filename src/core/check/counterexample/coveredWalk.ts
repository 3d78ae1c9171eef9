import { once } from "../../model/once.ts";
import type { NavEvent } from "../../model/schema.ts";
import { visiblePath } from "../../semantics/state.ts";
import type { Node, State } from "../../semantics/types.ts";
import type { Candidate, Place } from "../reach/graph.ts";
import type { Edge, Exploration, Explored } from "../system/exploration.ts";
import { isRest } from "../system/hiding.ts";
import { assumptionsIn } from "../system/shortestWays.ts";
import { ConcreteWays, concreteWays } from "./concreteWays.ts";
import { distancesTo, isWorthLonger, LONGER, placesByNode, searchOnwards, WITHOUT_RESTART } from "./directedSearch.ts";
import type { Reached } from "./replay.ts";

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
  const by = placesByNode(places);
  const { ways, ends } = coveredWays(exploration, place, by);
  for (const end of ends)
    for (const one of by.get(end) ?? []) {
      const walk = shown(ways.at(end), one);
      if (walk) return walk;
    }
  return undefined;
}

/** The cheapest such ways to the nearest of some states, after Dijkstra (1959), from all states in which the place is on top. */
function coveredWays(exploration: Exploration, place: string, wanted: { has(at: number): boolean }): { ways: ConcreteWays; ends: number[] } {
  const { nodes } = exploration;
  const steps = once(exploration, coveringSteps);
  const by = new Map<number, By>();
  const waiting: Array<Array<{ at: number; by: By; stack: string }> | undefined> = [];
  const go = (from: number, number: number, stack: string, cost: number, covers: boolean) => {
    for (const { edge, steps: more, stacks } of steps[from] ?? []) {
      if (by.has(edge.to) || !stacks.includes(stack) || (covers && edge.hides.length === 0)) continue;
      const after = cost + more;
      waiting[after] ??= [];
      waiting[after]?.push({ at: edge.to, by: { node: number, edge }, stack });
    }
  };
  // A state in which the place is on top may be one in which it lies beneath as well; as the beginning of a way it has a number of its own.
  const beginning = nodes.length;
  for (const { at, stack } of once(exploration, stacksByTop).get(place) ?? []) go(at, beginning + at, stack, (nodes[at] as Explored).distance, true);
  const ends: number[] = [];
  for (let cost = 0; cost < waiting.length && ends.length < TRIES; cost++)
    for (const next of waiting[cost] ?? []) {
      if (by.has(next.at)) continue;
      by.set(next.at, next.by);
      if (wanted.has(next.at)) ends.push(next.at);
      go(next.at, next.at, next.stack, cost, false);
    }
  const starts = (at: number) => (at < beginning ? [] : concreteWays(exploration).at(at - beginning));
  return { ways: new ConcreteWays(exploration, (at) => by.get(at), undefined, starts), ends: ends.slice(0, TRIES) };
}

/** States that a search for such a walk is begun from, those that it goes on through, and those for all such searches in one exploration together. */
const BEGINNINGS = 60;
const MOST = 400;
const MOST_TOGETHER = 15_000;

/** The same by a search on the document itself, through `step`, where the ways of the exploration do not replay. */
export function coveredWalkSearched(exploration: Exploration, place: string, { at: places = [] }: Candidate, shown: Shown): NavEvent[] | undefined {
  const budget = once(exploration, budgetOf);
  if (budget.left <= 0) return undefined;
  const by = placesByNode(places);
  const { nodes } = exploration;
  const distances = distancesTo(exploration, [...by.keys()], WITHOUT_RESTART);
  const begun = (once(exploration, stacksByTop).get(place) ?? []).flatMap(({ at }) => (distances[at] === undefined ? [] : [at]));
  begun.sort((a, b) => (nodes[a]?.distance ?? 0) + (distances[a] ?? 0) - (nodes[b]?.distance ?? 0) - (distances[b] ?? 0));
  const goal = {
    starts: begun.slice(0, BEGINNINGS).flatMap((i) => concreteWays(exploration).at(i).slice(0, 2)),
    distances,
    ways: WITHOUT_RESTART,
    still: (state: State) => [state.base, ...state.layers.map(({ content }) => content)].some((node) => isIn(node, place)),
    most: Math.min(MOST, budget.left),
    found: (at: Reached, found: readonly number[]) => {
      budget.left -= 1;
      for (const one of found.flatMap((node) => by.get(node) ?? []).slice(0, 2)) {
        const walk = shown([at], one);
        if (walk) return walk;
      }
      return undefined;
    },
  };
  return searchOnwards(exploration, goal) ?? (isWorthLonger(exploration) ? searchOnwards(exploration, { ...goal, ...LONGER }) : undefined);
}

/** Whether a place lies in a stack anywhere in a node, shown or not. */
function isIn(node: Node, place: string): boolean {
  if (node.kind === "shown") return false;
  const inside = node.kind === "stack" ? node.items : Object.values(node.lanes);
  return (node.kind === "stack" && node.items.some(({ at }) => at === place)) || inside.some((one) => isIn(one, place));
}

const budgetOf = (_: Exploration) => ({ left: MOST_TOGETHER });

type By = { node: number; edge: Edge };

/** Steps that it counts for if a value that is not followed must have been brought about first. */
const PER_ASSUMPTION = 2;

/** A step to a state in which some stacks show with something beneath their top, and about how many steps it counts for. */
interface Covering {
  edge: Edge;
  steps: number;
  stacks: readonly string[];
}

/** By state the steps to others in which some stack shows with something beneath its top, as far as it is said what shows. */
function coveringSteps({ nodes }: Exploration): ReadonlyArray<readonly Covering[]> {
  const covered = nodes.map(({ state, pending }) => {
    const stacks = pending ? [] : shownNodes(state).filter((node) => node.kind === "stack" && (node.items.length > 1 || node.items.some(isRest)));
    return stacks.length === 0 ? undefined : stacks.map(({ at }) => at);
  });
  return nodes.map(({ edges }) =>
    edges.flatMap((edge) => {
      const stacks = edge.outcome === "moved" && edge.way !== "reveal" ? covered[edge.to] : undefined;
      return stacks ? [{ edge, steps: 1 + PER_ASSUMPTION * assumptionsIn(edge), stacks }] : [];
    }),
  );
}

/** By place the states in which a stack shows with that on top, and the stack. */
function stacksByTop({ nodes }: Exploration): ReadonlyMap<string, ReadonlyArray<{ at: number; stack: string }>> {
  const out = new Map<string, Array<{ at: number; stack: string }>>();
  nodes.forEach(({ state, pending }, at) => {
    for (const node of pending ? [] : shownNodes(state)) {
      if (node.kind !== "stack") continue;
      const top = node.items[node.items.length - 1]?.at ?? "";
      const known = out.get(top);
      if (known) known.push({ at, stack: node.at });
      else out.set(top, [{ at, stack: node.at }]);
    }
  });
  return out;
}

/** The states in which a stack shows with a place on top. */
export function statesWithTop(exploration: Exploration, place: string): number[] {
  return (once(exploration, stacksByTop).get(place) ?? []).map(({ at }) => at);
}

function shownNodes({ base, layers }: State): Node[] {
  return [base, ...layers.map(({ content }) => content)].flatMap(visiblePath);
}
