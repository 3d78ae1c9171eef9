import { lookup } from "../../model/lookup.ts";
import { once } from "../../model/once.ts";
import { ByCost } from "../system/byCost.ts";
import { type Edge, type Exploration, stepsFrom } from "../system/exploration.ts";
import { placeOf } from "../system/hiding.ts";
import { assumptionsIn, showsWhatWasLeft } from "../system/shortestWays.ts";

/** States of a search from which on such ways are not worked out, and pairs of states that are looked at. */
const MOST_STATES = 1_500;
const MOST_PAIRS = 50_000;

/** The matched ways of a search; undefined where it has too many states for that. */
export function matchedWays(exploration: Exploration): MatchedWays | undefined {
  return once(exploration, makeMatchedWays);
}

const makeMatchedWays = (exploration: Exploration) => (exploration.nodes.length <= MOST_STATES ? new MatchedWays(exploration) : undefined);

/** A way to a state of a search, from one that a launch shows. */
export interface MatchedWay {
  start: number;
  edges: Edge[];
  end: number;
}

/** A part of a way: one step, or one that puts something on top, all until that is off again, and the step that says that what lay beneath shows. */
interface Part {
  from: number;
  to: number;
  cost: number;
  edge: Edge;
  /** What it puts something on. */
  hides: Edge["hides"];
  within?: { before: Part; until: number; uncovering: Edge };
}

/** How a way goes on from a state to where something is uncovered. */
interface Onwards {
  cost: number;
  part: Part | undefined;
}

/**
 * The shortest ways from the launches to the states of a search on which each step that uncovers something matches the one that covered it. In the
 * graph of a search Back leads to all that ever lay beneath, whoever put it there; so its shortest ways are often ways that nobody can go, and
 * some states seem within reach that are not. These are the paths of a context-free language over the graph (T. Reps, S. Horwitz, M. Sagiv,
 * _Precise interprocedural dataflow analysis via graph reachability_, 1995), the shortest first (D. Knuth, _A generalization of Dijkstra's
 * algorithm_, 1977). First the summaries: from where to where one gets by putting something on top and taking it off again. Example: list > item >
 * photo, and Back from the photo, where a fact was set, sums up to a step from item to item with the fact set.
 *
 * It is not exact with tabs and drawers, for there are several stacks then that go up and down in turn, nor where a step looks into what it uncovers.
 */
class MatchedWays {
  /** By state the steps and summaries into it that leave what lies beneath as it is or take it off, and those that put something on top. */
  private readonly level: Part[][];
  private readonly covering: Part[][];
  /** By state in which something is uncovered, and by state from which that comes about, how the way goes on to there. */
  private readonly until = new Map<number, Map<number, Onwards>>();
  /** By state those in which something is uncovered that it leads to. */
  private readonly ends: Array<Array<{ until: number; cost: number }>>;
  private readonly reached: ReadonlyMap<number, Step>;
  private readonly known = new Set<string>();
  /** By state the parts that start from it. */
  private readonly onwards: Part[][];
  private readonly levelOf: (context: string) => string;
  /** The number of where all ways begin, before a launch or a way in. */
  private readonly nowhere: number;
  private pairs = 0;

  constructor(private readonly exploration: Exploration) {
    const { containers } = lookup(exploration.abstraction.original);
    this.levelOf = (context) => {
      const place = placeOf(context);
      const [stack = ""] = place.split(".");
      return containers.get(stack)?.kind === "stack" ? stack : place;
    };
    const { nodes, launches } = exploration;
    this.nowhere = nodes.length;
    const empty = <T>() => Array.from({ length: nodes.length + 1 }, (): T[] => []);
    [this.level, this.covering, this.ends] = [empty<Part>(), empty<Part>(), empty()];
    for (const edge of launches) this.add(partOf(this.nowhere, edge));
    nodes.forEach((node, from) => {
      for (const edge of stepsFrom(node)) if (edge.outcome === "moved" && !(edge.way === "reveal" && node.pending?.beneath)) this.add(partOf(from, edge));
    });
    this.sumUp();
    this.onwards = empty<Part>();
    for (const part of [...this.level, ...this.covering].flat()) this.onwards[part.from]?.push(part);
    this.reached = this.shortest([{ at: this.nowhere, cost: 0, part: undefined }], () => true);
  }

  /** False where there were too many to look at. */
  get complete(): boolean {
    return this.pairs < MOST_PAIRS;
  }

  /** Whether there is such a way to a state. */
  has(node: number): boolean {
    return this.reached.has(node);
  }

  /** The number of steps of the shortest way to a state, about; undefined where there is none. */
  costOf(node: number): number | undefined {
    return this.reached.get(node)?.cost;
  }

  /** The shortest such way to a state that has one. */
  to(node: number): MatchedWay {
    return this.wayOf(this.partsTo(this.reached, node));
  }

  /** The shortest ways, the shortest first, to some states that have such a way from one of some others by which that is covered, and stays so. */
  over(starts: Iterable<number>, wanted: { has(node: number): boolean }): MatchedWay[] {
    const begun = [...starts].flatMap((at) => {
      const cost = this.costOf(at);
      return cost === undefined
        ? []
        : (this.onwards[at] ?? []).flatMap((part) =>
            part.hides.length > 0 && part.edge.way !== "restart" ? [{ at: part.to, cost: cost + part.cost, part }] : [],
          );
    });
    const ways = this.shortest(begun, ({ way }) => way !== "restart");
    const first = new Set(begun.map(({ part }) => part));
    return [...ways.keys()]
      .filter((node) => wanted.has(node))
      .map((node) => {
        const parts = this.partsTo(ways, node, first);
        return this.wayOf([...this.partsTo(this.reached, parts[0]?.from ?? node), ...parts]);
      });
  }

  private partsTo(ways: ReadonlyMap<number, Step>, node: number, first?: ReadonlySet<Part>): Part[] {
    const parts: Part[] = [];
    for (let part = ways.get(node)?.part; part; part = first?.has(part) ? undefined : ways.get(part.from)?.part) parts.push(part);
    return parts.reverse();
  }

  private wayOf(parts: readonly Part[]): MatchedWay {
    const [launch, ...edges] = parts.flatMap((part) => this.edgesOf(part));
    const end = parts[parts.length - 1]?.to ?? this.nowhere;
    return { start: launch?.to ?? end, edges, end };
  }

  private add(part: Part) {
    (part.hides.length > 0 ? this.covering : this.level)[part.to]?.push(part);
  }

  private edgesOf({ edge, within }: Part): Edge[] {
    if (!within) return [edge];
    const edges = this.edgesOf(within.before);
    for (let at = within.before.to; at !== within.until; ) {
      const part = this.until.get(within.until)?.get(at)?.part;
      if (!part) break;
      edges.push(...this.edgesOf(part));
      at = part.to;
    }
    return [...edges, within.uncovering];
  }

  /** Goes backwards from each state in which something is uncovered, the shortest ways first. */
  private sumUp() {
    const waiting = new ByCost<{ from: number; until: number; part: Part | undefined }>();
    const before = (part: Part, until: number, cost: number) => waiting.add({ from: part.from, until, part }, cost + part.cost);
    this.exploration.nodes.forEach(({ pending }, at) => {
      if (pending?.beneath) waiting.add({ from: at, until: at, part: undefined }, 0);
    });
    for (let next = waiting.take(); next && this.complete; next = waiting.take()) {
      const { from, until, part } = next.entry;
      const { cost } = next;
      const known = this.until.get(until) ?? new Map<number, Onwards>();
      if (known.has(from)) continue;
      this.until.set(until, known.set(from, { cost, part }));
      this.pairs += 1;
      this.ends[from]?.push({ until, cost });
      for (const into of this.level[from] ?? []) if (into.edge.way !== "restart") before(into, until, cost);
      for (const into of [...(this.covering[from] ?? [])]) this.enter(into, until, cost, before);
    }
  }

  /** What a step comes to that puts something on top, where all that comes then leads to where something is uncovered. */
  private enter(into: Part, until: number, cost: number, before: (part: Part, until: number, cost: number) => void) {
    for (const summary of this.matching(into, until, cost))
      for (const end of [...(this.ends[summary.to] ?? [])])
        if (summary.hides.length > 0) this.enter(summary, end.until, end.cost, before);
        else if (summary.edge.way !== "restart") before(summary, end.until, end.cost);
    if (into.edge.way !== "restart" && this.goesDeeper(into, until)) before(into, until, cost);
  }

  /** The summaries that a covering step gives with all that comes of it until something is uncovered, as far as they are new. */
  private matching(into: Part, until: number, cost: number): Part[] {
    const { nodes, parts } = this.exploration;
    return (nodes[until]?.edges ?? []).flatMap((uncovering) => {
      const { uncovers, to } = uncovering;
      const found = into.hides.findIndex(({ content }) => content === uncovers || (uncovers !== undefined && parts.get(content)?.includes(uncovers)));
      if (uncovers === undefined || found < 0 || nodes[to]?.pending?.beneath) return [];
      // Of what else it put there, it is not told here what lies on what.
      const rest = into.hides.filter((_, i) => i !== found);
      return [uncovering.hides, ...(rest.length > 0 ? [[...rest, ...uncovering.hides]] : [])].flatMap((hides) => {
        const name = `${into.from} ${to} ${into.edge.way === "restart"} ${hides.map(({ content }) => content)}`;
        if (this.known.has(name)) return [];
        this.known.add(name);
        const summary = { from: into.from, to, cost: into.cost + cost, edge: into.edge, hides, within: { before: into, until, uncovering } };
        this.add(summary);
        return [summary];
      });
    });
  }

  /** Whether what is uncovered lies, or may lie, beneath what a step covers: in another stack or beneath a layer, or cut off further down in the same stack. */
  private goesDeeper({ hides }: Part, until: number): boolean {
    const context = this.exploration.nodes[until]?.pending?.context ?? "";
    return isCut(context) || hides.length > 1 || hides.every((hidden) => this.levelOf(hidden.context) !== this.levelOf(context));
  }

  /** The shortest ways on from some states, with steps of some kinds (Dijkstra 1959). */
  private shortest(starts: Iterable<Step & { at: number }>, mayUse: (edge: Edge) => boolean): ReadonlyMap<number, Step> {
    const out = new Map<number, Step>();
    const waiting = new ByCost<{ at: number; part: Part | undefined }>();
    for (const { at, cost, part } of starts) waiting.add({ at, part }, cost);
    for (let next = waiting.take(); next; next = waiting.take()) {
      const { at, part } = next.entry;
      if (out.has(at)) continue;
      out.set(at, { cost: next.cost, part });
      for (const on of this.onwards[at] ?? []) if (!out.has(on.to) && mayUse(on.edge)) waiting.add({ at: on.to, part: on }, next.cost + on.cost);
    }
    return out;
  }
}

/** How a state is reached: what it costs, and the last part of the way. */
interface Step {
  cost: number;
  part: Part | undefined;
}

/** Whether a context is what was cut from another. */
const isCut = (context: string): boolean => /\/(?!no )/.test(context);

/** Steps that it counts for if a lane must have been left so before, or a value that is not followed must have been set. */
const LEFT_THERE = 8;
const PER_ASSUMPTION = 2;

function partOf(from: number, edge: Edge): Part {
  const left = showsWhatWasLeft(edge) ? LEFT_THERE : 0;
  return { from, to: edge.to, edge, hides: edge.hides, cost: left + (edge.way === "reveal" ? 0 : 1 + PER_ASSUMPTION * assumptionsIn(edge)) };
}
