import { factAsked } from "./choices.ts";
import type { Edge, Explored } from "./exploration.ts";
import { WAITING } from "./precision.ts";

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
 * The cheapest ways from some states to all others, after Dijkstra (1959). `costOf` prices a step, undefined
 * forbidding it. A lane that shows as it is made costs nothing; one that shows what some other
 * way left in it is a detour, taken only where there is no way without.
 */
export function* shortestWays(nodes: readonly Explored[], roots: readonly number[], costOf: (edge: Edge) => number | undefined): Iterable<Reached> {
  const known = new Set<number>();
  const waiting = new Map<number, Reached[]>([[0, roots.map((at) => ({ at, cost: 0, by: undefined }))]]);
  while (waiting.size > 0) {
    const price = Math.min(...waiting.keys());
    const now = waiting.get(price) ?? [];
    waiting.delete(price);
    for (let i = 0; i < now.length; i++) {
      const reached = now[i] as Reached;
      if (known.has(reached.at)) continue;
      known.add(reached.at);
      yield reached;
      for (const edge of nodes[reached.at]?.edges ?? []) {
        const step = edge.outcome === "moved" && !known.has(edge.to) ? (edge.way === "reveal" ? 0 : costOf(edge)) : undefined;
        if (step === undefined) continue;
        const next: Reached = { at: edge.to, cost: reached.cost + step, by: { node: reached.at, edge } };
        const total = price + step + (showsWhatWasLeft(edge) ? DETOUR : 0);
        if (total === price) now.push(next);
        else if (waiting.has(total)) waiting.get(total)?.push(next);
        else waiting.set(total, [next]);
      }
    }
  }
}
