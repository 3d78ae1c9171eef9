import { once } from "../../model/once.ts";
import type { NavEvent } from "../../model/schema.ts";
import type { Candidate, Place } from "../reach/graph.ts";
import type { Edge, Exploration } from "../system/exploration.ts";
import { assumptionsIn, showsWhatWasLeft } from "../system/ways.ts";
import { placesByNode } from "./directed.ts";
import { alongEdge, type Reached, startingPoints } from "./walk.ts";

/** Judges whether something shows at a place in one of some states. */
type Shown = (at: readonly Reached[], place: Place) => NavEvent[] | undefined;

/** Places of a candidate that such a walk is tried to. */
const TRIES = 24;

/**
 * A walk to where something shows on which whatever Back uncovers is what the walk itself has put there. In a graph of the search Back leads to all that
 * ever lay beneath, whoever put it there, so that its shortest ways are often ways that nobody can go.
 */
export function matchedWalk(exploration: Exploration, { at: places = [] }: Candidate, shown: Shown): NavEvent[] | undefined {
  const by = placesByNode(places);
  const ways = once(exploration, matchedWays);
  for (const { node, edges, start } of ways?.to(by.keys()) ?? []) {
    let at = startingPoints(exploration.abstraction.original, exploration, exploration.nodes[start]);
    for (const edge of edges) if (at.length > 0) at = alongEdge(exploration, at, edge);
    for (const place of at.length > 0 ? (by.get(node) ?? []) : []) {
      const walk = shown(at, place);
      if (walk) return walk;
    }
  }
  return undefined;
}

/** States of a search from which on such ways are not worked out, and pairs of states that are looked at. */
const MOST_STATES = 1_500;
const MOST_PAIRS = 50_000;

const matchedWays = (exploration: Exploration) => (exploration.nodes.length <= MOST_STATES ? new MatchedWays(exploration) : undefined);

/** A part of a way: one step, or one that puts something on top, all until that is off again, and the step that says that what lay beneath shows. */
interface Part {
  to: number;
  cost: number;
  edge: Edge;
  within?: { from: number; until: number; uncovering: Edge };
}
type Into = Part & { from: number };

/**
 * The shortest ways from the launches to the states of a search on which each step that uncovers something matches the one that covered it: paths
 * of a context-free language over the graph (T. Reps, S. Horwitz, M. Sagiv, _Precise interprocedural dataflow analysis via graph reachability_, 1995; the
 * order is that of D. Knuth's _Generalization of Dijkstra's algorithm_, 1977). First the summaries: from where to where one gets by putting
 * something on top and taking it off again. Example: list > item, item > photo, and Back from the photo with a fact set there: it
 * sums up to a step from item to item with the fact set.
 */
class MatchedWays {
  /** By state the steps into it that leave what lies beneath as it is, those that put it on top of something, and the summaries. */
  private readonly level: Into[][];
  private readonly covering: Into[][];
  private readonly summaries: Into[][];
  /** By state in which something is uncovered and by state before, with as much beneath, how the way goes on to there. */
  private readonly until = new Map<number, Map<number, { cost: number; part: Part | undefined }>>();
  /** By state those in which something is uncovered that it leads to. */
  private readonly ends: Array<Array<{ until: number; cost: number }>>;
  private readonly known = new Set<string>();
  private readonly reached = new Map<number, { cost: number; from: number; part: Part | undefined }>();

  constructor(private readonly exploration: Exploration) {
    const empty = <T>() => exploration.nodes.map((): T[] => []);
    [this.level, this.covering, this.summaries, this.ends] = [empty<Into>(), empty<Into>(), empty<Into>(), empty()];
    exploration.nodes.forEach(({ edges, pending }, from) => {
      for (const edge of edges) {
        if (edge.outcome !== "moved" || edge.way === "restart" || (edge.way === "reveal" && pending?.beneath)) continue;
        const into = { from, to: edge.to, cost: costOf(edge), edge };
        (edge.hides.length > 0 ? this.covering : this.level)[edge.to]?.push(into);
      }
    });
    this.sumUp();
    this.reach();
  }

  /** The shortest ways to the nearest of some states, with the state that they start in. */
  to(nodes: Iterable<number>): Array<{ node: number; edges: Edge[]; start: number }> {
    const near = [...nodes].flatMap((node) => (this.reached.has(node) ? [node] : []));
    near.sort((a, b) => (this.reached.get(a)?.cost ?? 0) - (this.reached.get(b)?.cost ?? 0));
    return near.slice(0, TRIES).map((node) => {
      const parts: Part[] = [];
      let start = node;
      for (let at = this.reached.get(node); at?.part; at = this.reached.get(start)) {
        parts.push(at.part);
        start = at.from;
      }
      return { node, start, edges: parts.reverse().flatMap((part) => this.edgesOf(part)) };
    });
  }

  private edgesOf({ edge, within }: Part): Edge[] {
    if (!within) return [edge];
    const edges = [edge];
    for (let at = within.from; at !== within.until; ) {
      const part = this.until.get(within.until)?.get(at)?.part;
      if (!part) break;
      edges.push(...this.edgesOf(part));
      at = part.to;
    }
    return [...edges, within.uncovering];
  }

  private sumUp() {
    const { nodes, parts } = this.exploration;
    const queue = new Costs<{ from: number; until: number; part: Part | undefined }>();
    nodes.forEach(({ pending }, at) => {
      if (pending?.beneath) queue.add({ from: at, until: at, part: undefined }, 0);
    });
    const before = (part: Into, until: number, cost: number) => queue.add({ from: part.from, until, part }, cost + part.cost);
    for (let next = queue.take(); next && this.known.size < MOST_PAIRS; next = queue.take()) {
      const { from, until, part, cost } = next;
      const known = this.until.get(until) ?? new Map<number, { cost: number; part: Part | undefined }>();
      if (known.has(from)) continue;
      this.until.set(until, known.set(from, { cost, part }));
      this.known.add(`${from} ${until}`);
      this.ends[from]?.push({ until, cost });
      for (const into of [...(this.level[from] ?? []), ...(this.summaries[from] ?? [])]) before(into, until, cost);
      for (const call of this.covering[from] ?? [])
        for (const edge of nodes[until]?.edges ?? []) {
          const { uncovers } = edge;
          if (uncovers === undefined || !call.edge.hides.some((hidden) => hidden === uncovers || parts.get(hidden)?.includes(uncovers))) continue;
          const name = `${call.from} ${edge.to}`;
          if (nodes[edge.to]?.pending?.beneath || this.known.has(name + SUMMARY)) continue;
          this.known.add(name + SUMMARY);
          const summary = { from: call.from, to: edge.to, cost: call.cost + cost, edge: call.edge, within: { from, until, uncovering: edge } };
          this.summaries[edge.to]?.push(summary);
          for (const end of this.ends[edge.to] ?? []) before(summary, end.until, end.cost);
        }
    }
  }

  private reach() {
    const { nodes } = this.exploration;
    const onwards = nodes.map((): Into[] => []);
    for (const into of [this.level, this.covering, this.summaries]) for (const part of into.flat()) onwards[part.from]?.push(part);
    nodes.forEach(({ edges }, from) => {
      for (const edge of edges) if (edge.outcome === "moved" && edge.way === "restart") onwards[from]?.push({ from, to: edge.to, cost: costOf(edge), edge });
    });
    const queue = new Costs<{ at: number; from: number; part: Part | undefined }>();
    nodes.forEach(({ launched }, at) => {
      if (launched) queue.add({ at, from: at, part: undefined }, 0);
    });
    for (let next = queue.take(); next; next = queue.take()) {
      if (this.reached.has(next.at)) continue;
      this.reached.set(next.at, next);
      for (const part of onwards[next.at] ?? []) if (!this.reached.has(part.to)) queue.add({ at: part.to, from: next.at, part }, next.cost + part.cost);
    }
  }
}

const SUMMARY = " summary";

/** Steps that it counts for if a lane must have been left so before, or a value that is not followed must have been set. */
const LEFT_THERE = 8;
const PER_ASSUMPTION = 2;

function costOf(edge: Edge): number {
  const left = showsWhatWasLeft(edge) ? LEFT_THERE : 0;
  return left + (edge.way === "reveal" ? 0 : 1 + PER_ASSUMPTION * assumptionsIn(edge));
}

/** What waits, the cheapest first; costs are whole numbers. */
class Costs<T> {
  private readonly byCost: Array<T[] | undefined> = [];
  private now = 0;

  add(entry: T, cost: number) {
    this.byCost[cost] ??= [];
    this.byCost[cost]?.push(entry);
    this.now = Math.min(this.now, cost);
  }

  take(): (T & { cost: number }) | undefined {
    for (; this.now < this.byCost.length; this.now++) {
      const entry = this.byCost[this.now]?.pop();
      if (entry !== undefined) return { ...entry, cost: this.now };
    }
    return undefined;
  }
}
