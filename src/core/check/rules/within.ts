/** The rule "within": by how many taps something can be reached at most, however turns out what nobody chooses; and at least. */

import { tapsOf } from "../../insight/rules/taps.ts";
import type { Project, Rule } from "../../model/schema.ts";
import { backwards, type Judge } from "../reach/backwards.ts";
import type { Edge } from "../system/exploration.ts";
import { EVENT, REVEAL, type RuleGraph } from "./graph.ts";

type WithinRule = Extract<Rule, { kind: "within" }>;

/** Where a rule is not proved to hold, and what is known of the taps that it takes. */
export interface Within {
  /** States from which it is not sure that so few taps are enough, in the order of the search. */
  unsure: number[];
  /** By state the taps that it takes at least; infinite where there is no way. */
  least: Float64Array;
  /** Whether some state shows a place that the rule begins from, and one that it leads to. */
  met: { from: boolean; to: boolean };
}

/**
 * Grows the set of states from which so many taps are enough, tap by tap (bounded saturation): in each round by one tap that the person
 * chooses and all that happens by itself, whatever is hidden. What is left is unsure.
 */
export function withinOf(graph: RuleGraph, { taps, to, from }: WithinRule): Within {
  const { exploration, shown, states, labels, label, kind, edges } = graph;
  const { nodes } = exploration;
  const project = exploration.abstraction.original;
  const wanted = new Set(to);
  const sees = shown.map((places) => places.some((id) => wanted.has(id)));
  const labelSees = labels.map(({ places }) => places.some((id) => wanted.has(id)));
  // The same by the edges of the search, which the growing of sets goes by.
  const passes = new Set<Edge>();
  edges.forEach((edge, step) => {
    if (edge && kind[step] === EVENT && labelSees[label[step] as number]) passes.add(edge);
  });
  let found = new Set<number>(nodes.flatMap((_, i) => (sees[i] ? [i] : [])));
  const free = (edge: Edge) => costOf(project, edge) === 0;
  const grow = (tapped: ReadonlySet<number>) => {
    const judge: Judge = (_, edge) => {
      if (passes.has(edge)) return "done";
      if (free(edge)) return "follow";
      return tapped.has(edge.to) ? "done" : "never";
    };
    return backwards(nodes, { back: false, facts: true }, new Set(tapped), judge);
  };
  // Before the first tap: what happens by itself alone.
  const itself: Judge = (_, edge) => (free(edge) ? (passes.has(edge) ? "done" : "follow") : "never");
  found = backwards(nodes, { back: false, facts: true }, found, itself);
  for (let round = 0; round < taps; round++) {
    const more = grow(found);
    const ended = more.size === found.size;
    found = more;
    if (ended) break;
  }
  const begins = from && new Set(from);
  const unsure: number[] = [];
  let metFrom = false;
  for (let i = 0; i < states; i++) {
    if (nodes[i]?.pending || (begins && !shown[i]?.some((id) => begins.has(id)))) continue;
    metFrom = true;
    if (!found.has(i)) unsure.push(i);
  }
  const least = unsure.length === 0 ? new Float64Array(states) : leastTaps(graph, sees, passes);
  return { unsure, least, met: { from: metFrom, to: sees.some(Boolean) || passes.size > 0 } };
}

/** What a step costs in taps: a way out one, what happens by itself and what only shows what was hidden none; undefined for what is no way out. */
function costOf(project: Project, { way, event }: Edge): 0 | 1 | undefined {
  if (way === "reveal" || way === "automatic") return 0;
  return way === "out" && event ? tapsOf(project, event) : undefined;
}

/** The fewest taps to what is wanted from each state, if all that nobody chooses turns out well. */
function leastTaps({ exploration, states, first, to, kind, edges }: RuleGraph, sees: readonly boolean[], passes: ReadonlySet<Edge>): Float64Array {
  const project = exploration.abstraction.original;
  const into: Array<Array<{ from: number; cost: 0 | 1 }> | undefined> = new Array(states);
  const least = new Float64Array(states).fill(Number.POSITIVE_INFINITY);
  const waiting: number[][] = [sees.flatMap((yes, i) => (yes ? [i] : [])), []];
  for (let at = 0; at < states; at++)
    for (let step = first[at] as number; step < (first[at + 1] as number); step++) {
      const edge = edges[step];
      if (!edge || (kind[step] !== EVENT && kind[step] !== REVEAL)) continue;
      const cost = costOf(project, edge);
      if (cost === undefined) continue;
      if (passes.has(edge)) waiting[cost]?.push(at);
      else {
        const target = to[step] as number;
        const list = into[target];
        if (list) list.push({ from: at, cost });
        else into[target] = [{ from: at, cost }];
      }
    }
  for (let taps = 0; taps < waiting.length; taps++) {
    const now = waiting[taps] as number[];
    for (let i = 0; i < now.length; i++) {
      const at = now[i] as number;
      if ((least[at] as number) <= taps) continue;
      least[at] = taps;
      for (const { from, cost } of into[at] ?? []) {
        if ((least[from] as number) <= taps + cost) continue;
        waiting[taps + cost] ??= [];
        waiting[taps + cost]?.push(from);
      }
    }
  }
  return least;
}
