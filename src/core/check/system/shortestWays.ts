import { sameValue } from "../../model/json.ts";
import { lookup } from "../../model/lookup.ts";
import { once } from "../../model/once.ts";
import { planOf } from "../../plan/planOf.ts";
import { visiblePath } from "../../semantics/state.ts";
import { factAsked, factAtFirst, valuesOf } from "./chooser.ts";
import type { Edge, Exploration, Explored } from "./exploration.ts";
import { visitsOf, WAITING } from "./precision.ts";

/** One state as it is reached by the cheapest way: the cost of the way, and its last step. */
export interface Reached {
  at: number;
  cost: number;
  by: { node: number; edge: Edge } | undefined;
}

/** What it costs to rely on a lane or rest holding something that the way itself need not have put there. */
const DETOUR = 100_000_000;

/** Whether a step shows a lane, or what lies beneath, as some other way has left it. */
export function showsWhatWasLeft({ way, asMade }: Edge): boolean {
  return way === "reveal" ? !asMade : asMade === false;
}

/** What it costs to rely on something that is not followed having the value that the way needs. */
export const ASSUMPTION = 1_000_000_000;

/** How often a step relies on what is not followed; that nothing waits is how it is anyway. */
export function assumptionsIn({ choices }: Edge): number {
  let count = 0;
  for (const choice of choices) {
    const fact = factAsked(choice);
    if (fact !== undefined && (fact !== WAITING || choice.answer !== null)) count += 1;
  }
  return count;
}

/**
 * The cheapest ways from the launches to all states, after Dijkstra (1959). `costOf` prices a step, undefined forbidding it. A lane that
 * shows as it is made costs nothing; one that shows what some other way left in it is a detour, taken only where there is no way without.
 *
 * What is shown again must have been left there first, and a value that is not followed must have been set: such a step costs at least what
 * the cheapest one does that brings it about. So nobody gets deep into an app by putting something on its first screen and taking it off
 * again (the cheapest derivation in a grammar whose costs never fall, Knuth 1977). The cost of such a way is a bound and not exact, since what
 * brings it about need not be on it.
 */
export function* shortestWays(exploration: Exploration, costOf: (edge: Edge) => number | undefined): Iterable<Reached> {
  const { nodes, launches, parts } = exploration;
  const { first, starts, edges, needs, brings, launched } = once(exploration, stepsOf);
  const known = new Uint8Array(nodes.length);
  // The least price for which a state is waiting: what comes later for as much is no better.
  const least = new Float64Array(nodes.length).fill(Number.POSITIVE_INFINITY);
  const queue = new Queue();
  // What has been brought about so far, and the steps that wait for something else to be.
  const brought = new Map<number, number>();
  const waiting = new Map<number, Waiting[]>();
  const enter = (from: number, by: number, step: number, costBefore: number, price: number) => {
    let cost = costBefore;
    for (const need of needs[by] as readonly number[]) {
      const since = brought.get(need);
      if (since === undefined) {
        const next = { from, by, step, cost, price };
        const others = waiting.get(need);
        if (others) others.push(next);
        else waiting.set(need, [next]);
        return;
      }
      if (since + step > cost) cost = since + step;
    }
    const edge = edges[by] as Edge;
    for (const what of brings[by] as readonly number[]) if (!brought.has(what)) queue.add(-1 - what, cost, -1, -1, price);
    const total = price + (showsWhatWasLeft(edge) ? DETOUR : 0);
    if (known[edge.to] || (least[edge.to] as number) <= total) return;
    least[edge.to] = total;
    queue.add(edge.to, cost, from, by, total);
  };
  const bring = (what: number, cost: number, price: number) => {
    if (brought.has(what)) return;
    brought.set(what, cost);
    const steps = waiting.get(what) ?? [];
    waiting.delete(what);
    for (const next of steps) enter(next.from, next.by, next.step, next.cost, Math.max(next.price, price + next.step));
    for (const part of parts.get(what) ?? []) bring(part, cost, price);
  };
  const leave = (vertex: number, from: number, cost: number, price: number) => {
    for (let by = first[vertex] as number; by < (first[vertex + 1] as number); by++) {
      const edge = edges[by] as Edge;
      const step = edge.way === "reveal" ? 0 : costOf(edge);
      if (step !== undefined) enter(from, by, step, cost + step, price + step);
    }
  };
  launches.forEach((_, i) => {
    for (const what of launched[i] as readonly number[]) bring(what, 0, 0);
  });
  nodes.forEach((node, at) => {
    if (node.launched) queue.add(at, 0, -1, -1, 0);
  });
  // New starts are the same from all states that share them, and nowhere cheaper than from the first.
  const begun = new Uint8Array(first.length);
  for (let next = queue.take(); next; next = queue.take()) {
    const { at, cost, from, by, price } = next;
    if (at < 0) bring(-1 - at, cost, price);
    else if (!known[at]) {
      known[at] = 1;
      yield { at, cost, by: from < 0 ? undefined : { node: from, edge: edges[by] as Edge } };
      leave(at, at, cost, price);
      const anew = starts[at] as number;
      if (begun[anew]) continue;
      begun[anew] = 1;
      leave(anew, at, cost, price);
    }
  }
}

/**
 * The steps of a search that may be on a way, with what they need and bring about. Those of a vertex v are from `first[v]` up to `first[v + 1]`; behind the states
 * comes a vertex for each list of new starts, and `starts` says by state which.
 */
interface Steps {
  first: Int32Array;
  starts: Int32Array;
  edges: Edge[];
  needs: Array<readonly number[]>;
  brings: Array<readonly number[]>;
  /** What each launch brings about. */
  launched: Array<readonly number[]>;
}

function stepsOf(exploration: Exploration): Steps {
  const { nodes, launches } = exploration;
  const conditions = conditionsOf(exploration);
  const edges: Edge[] = [];
  const needs: Array<readonly number[]> = [];
  const brings: Array<readonly number[]> = [];
  const first: number[] = [];
  const add = (steps: readonly Edge[]) => {
    first.push(edges.length);
    for (const edge of steps) {
      // Who stays where he is may have set a fact that is not followed.
      if (edge.outcome !== "moved" && edge.outcome !== "ignored") continue;
      edges.push(edge);
      needs.push(conditions.needs(edge));
      brings.push(conditions.brings(edge));
    }
  };
  for (const node of nodes) add(node.edges);
  const vertices = new Map<readonly Edge[], number>();
  const starts = Int32Array.from(nodes, ({ starts: anew }) => {
    const known = vertices.get(anew);
    if (known !== undefined) return known;
    vertices.set(anew, nodes.length + vertices.size);
    add(anew);
    return nodes.length + vertices.size - 1;
  });
  first.push(edges.length);
  return { first: Int32Array.from(first), starts, edges, needs, brings, launched: launches.map((edge) => conditions.brings(edge)) };
}

/**
 * What steps need to have been brought about before, and what they bring about: something left hidden, by its number, a value of a fact that is
 * not followed, a visit to a member of a tab set that Back returns to, or a way in that may wait.
 */
function conditionsOf({ nodes, abstraction: { original } }: Exploration) {
  const values = new Map<string, number>();
  const numberOf = (fact: string, value: unknown) => {
    const name = `${fact} ${JSON.stringify(value)}`;
    const number = values.get(name) ?? VALUES + values.size;
    values.set(name, number);
    return number;
  };
  const { facts } = lookup(original);
  const sets = new Map(
    [...planOf(original).legs].map(([id, { set }]) => [
      id,
      set.flatMap(({ fact, value: { tree } }) => (tree[0] === "value" ? [tree[1]] : valuesOf(facts.get(fact))).map((value) => numberOf(fact, value))),
    ]),
  );
  const visited = new Set(original.containers.flatMap((c) => (c.kind === "tabs" && c.onBack === "previous" ? [visitsOf(c.id)] : [])));
  const visitsAt: Array<readonly number[] | undefined> = [];
  const visitsIn = (at: number): readonly number[] => {
    const known = visitsAt[at];
    if (known) return known;
    const { state } = nodes[at] as Explored;
    const path = [state.base, ...state.layers.map(({ content }) => content)].flatMap(visiblePath);
    const made = path.flatMap((node) => (node.kind === "tabs" && visited.has(visitsOf(node.at)) ? [numberOf(visitsOf(node.at), node.active)] : []));
    visitsAt[at] = made;
    return made;
  };
  return {
    needs: ({ shows, choices }: Edge): readonly number[] => {
      const asked = choices.flatMap((choice) => {
        const { question, answer } = choice;
        const fact = facts.get(factAtFirst(question) ?? "");
        if (fact) return sameValue(fact.initial, answer) ? [] : [numberOf(fact.id, answer)];
        const name = factAsked(choice) ?? "";
        return (visited.has(name) || name === WAITING) && answer !== null ? [numberOf(name, answer)] : [];
      });
      return shows === undefined ? asked : [...asked, shows];
    },
    brings: ({ leaves, fired, to, event }: Edge): readonly number[] => {
      const set = fired.flatMap((id) => sets.get(id) ?? []);
      const others = [...(visited.size > 0 ? visitsIn(to) : NONE), ...(event?.do === "enter" ? [numberOf(WAITING, event.entrance)] : NONE)];
      return set.length + others.length > 0 ? [...leaves, ...set, ...others] : leaves;
    },
  };
}

const NONE: readonly number[] = [];

/** Numbers from here on are of values; what was left hidden has lower ones. */
const VALUES = 1_000_000_000;

/** Finds by which step each state of a search is reached first. */
export function setDistances(exploration: Exploration) {
  for (const { at, cost, by } of shortestWays(exploration, () => 1)) {
    const node = exploration.nodes[at] as Explored;
    node.distance = cost;
    if (by) node.from = by;
  }
}

/** A step that is taken as soon as what it needs has been brought about: its number, what it costs itself, and the way with it, with the detours before it in the price. */
interface Waiting {
  from: number;
  by: number;
  step: number;
  cost: number;
  price: number;
}

/** A state that is reached from another by a step, by their numbers, -1 for none; below 0 what is brought about. */
interface Entry {
  at: number;
  cost: number;
  from: number;
  by: number;
  price: number;
}

/** What is reached, the cheapest first, and of the same price what came first. */
class Queue {
  private readonly byPrice = new Map<number, Entry[]>();
  private now: Entry[] = [];
  private price = 0;
  private done = 0;

  add(at: number, cost: number, from: number, by: number, price: number) {
    const entry = { at, cost, from, by, price };
    if (price === this.price) this.now.push(entry);
    else {
      const list = this.byPrice.get(price);
      if (list) list.push(entry);
      else this.byPrice.set(price, [entry]);
    }
  }

  take(): Entry | undefined {
    if (this.done === this.now.length) {
      if (this.byPrice.size === 0) return undefined;
      this.price = Math.min(...this.byPrice.keys());
      this.now = this.byPrice.get(this.price) ?? [];
      this.byPrice.delete(this.price);
      this.done = 0;
    }
    return this.now[this.done++];
  }
}
