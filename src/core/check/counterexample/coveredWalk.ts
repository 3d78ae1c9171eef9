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

/** The steps of the cheapest such ways, of each from where it begins. */
export function coveredSteps(exploration: Exploration, place: string, { at: places = [] }: Candidate, most: number): Edge[] {
  const { ways, ends } = coveredWays(exploration, place, placesByNode(places));
  return ends.slice(0, most).flatMap((end) => ways.steps(end));
}

/** The cheapest such ways to the nearest of some states, after Dijkstra (1959), from all states in which the place is on top. */
function coveredWays(exploration: Exploration, place: string, wanted: { has(at: number): boolean }): { ways: ConcreteWays; ends: number[] } {
  const { nodes } = exploration;
  const { first, edges, costs, covers, stacks, stackNumbers } = once(exploration, coveringSteps);
  // By state the number of the step that it is reached by, and of the state before; -1 where it is not reached.
  const by = new Int32Array(nodes.length).fill(-1);
  const before = new Int32Array(nodes.length);
  const waiting: Array<number[] | undefined> = [];
  const go = (from: number, number: number, stack: number, cost: number, mustCover: boolean) => {
    for (let step = first[from] as number; step < (first[from + 1] as number); step++) {
      if ((by[(edges[step] as Edge).to] as number) >= 0 || !stacks[step]?.[stack] || (mustCover && !covers[step])) continue;
      const after = cost + (costs[step] as number);
      const list = waiting[after];
      if (list) list.push(step, number, stack);
      else waiting[after] = [step, number, stack];
    }
  };
  // A state in which the place is on top may be one in which it lies beneath as well; as the beginning of a way it has a number of its own.
  const beginning = nodes.length;
  for (const { at, stack } of once(exploration, stacksByTop).get(place) ?? [])
    go(at, beginning + at, stackNumbers.get(stack) ?? -1, (nodes[at] as Explored).distance, true);
  const ends: number[] = [];
  for (let cost = 0; cost < waiting.length && ends.length < TRIES; cost++) {
    const list = waiting[cost] ?? [];
    for (let i = 0; i < list.length; i += 3) {
      const [step, from, stack] = [list[i] as number, list[i + 1] as number, list[i + 2] as number];
      const { to } = edges[step] as Edge;
      if ((by[to] as number) >= 0) continue;
      by[to] = step;
      before[to] = from;
      if (wanted.has(to)) ends.push(to);
      go(to, to, stack, cost, false);
    }
  }
  const starts = (at: number) => (at < beginning ? [] : concreteWays(exploration).at(at - beginning));
  const lastStep = (at: number) => {
    const step = by[at] ?? -1;
    return step < 0 ? undefined : { node: before[at] as number, edge: edges[step] as Edge };
  };
  return { ways: new ConcreteWays(exploration, lastStep, undefined, starts), ends: ends.slice(0, TRIES) };
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

/** Steps that it counts for if a value that is not followed must have been brought about first. */
const PER_ASSUMPTION = 2;

/** The steps to states in which some stack shows with something beneath its top, as far as it is said what shows; those from a state v are from `first[v]` up to `first[v + 1]`. */
interface CoveringSteps {
  first: Int32Array;
  edges: Edge[];
  /** About how many steps it counts for. */
  costs: number[];
  /** 1 where it puts something on top. */
  covers: number[];
  /** By step 1 for each stack that shows so, by its number. */
  stacks: Uint8Array[];
  stackNumbers: ReadonlyMap<string, number>;
}

function coveringSteps({ nodes, abstraction }: Exploration): CoveringSteps {
  const stackNumbers = new Map(abstraction.original.containers.filter(({ kind }) => kind === "stack").map(({ id }, i) => [id, i]));
  const known = new Map<string, Uint8Array>();
  const covered = nodes.map(({ state, pending }) => {
    const shown = pending ? [] : shownNodes(state).filter((node) => node.kind === "stack" && (node.items.length > 1 || node.items.some(isRest)));
    if (shown.length === 0) return undefined;
    const name = shown.map(({ at }) => at).join();
    const marks = known.get(name) ?? new Uint8Array(stackNumbers.size);
    for (const { at } of shown) marks[stackNumbers.get(at) ?? -1] = 1;
    known.set(name, marks);
    return marks;
  });
  const out: CoveringSteps = { first: new Int32Array(nodes.length + 1), edges: [], costs: [], covers: [], stacks: [], stackNumbers };
  nodes.forEach((node, at) => {
    for (const edge of node.edges) {
      const stacks = edge.outcome === "moved" && edge.way !== "reveal" ? covered[edge.to] : undefined;
      if (!stacks) continue;
      out.edges.push(edge);
      out.costs.push(1 + PER_ASSUMPTION * assumptionsIn(edge));
      out.covers.push(edge.hides.length > 0 ? 1 : 0);
      out.stacks.push(stacks);
    }
    out.first[at + 1] = out.edges.length;
  });
  return out;
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
