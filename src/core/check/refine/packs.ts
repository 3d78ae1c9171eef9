import { valuesOf } from "../system/chooser.ts";
import type { Exploration } from "../system/exploration.ts";

/** States that searches with facts followed may have: one of them, so many and so many times those that it has without; one for what needs more; and all of them together. */
const FEW_STATES = 2_000;
const TIMES = 4;
const MANY_STATES = 25_000;
const MOST_STATES = 60_000;

/**
 * Facts in packs that can each be followed at once, where all together can not: an app with twenty switches has a million combinations of them, but
 * hardly anything rests on more than three. Each set is part of a pack, as far as there is room. The smallest are packed first, each into the
 * first pack that it goes into.
 */
export function packed(explorations: readonly Exploration[], sets: Iterable<ReadonlySet<string>>): ReadonlySet<string>[] {
  const states = explorations.reduce((sum, { nodes }) => sum + nodes.length, 0);
  const packs: Array<ReadonlySet<string>> = [];
  let left = MOST_STATES;
  for (const set of [...sets].sort((a, b) => a.size - b.size)) {
    if (set.size === 0 || packs.some((pack) => isWithin(set, pack))) continue;
    const few = FEW_STATES + TIMES * states;
    const most = states * combinations(explorations, set) <= few ? few : MANY_STATES;
    const fits = (facts: ReadonlySet<string>) => states * combinations(explorations, facts) <= most;
    const into = packs.findIndex((pack) => fits(new Set([...pack, ...set])));
    const facts = new Set([...(packs[into] ?? []), ...set]);
    const more = states * (combinations(explorations, facts) - (into < 0 ? 0 : combinations(explorations, packs[into] as ReadonlySet<string>)));
    if (!fits(facts) || more > left) continue;
    left -= more;
    if (into < 0) packs.push(facts);
    else packs[into] = facts;
  }
  return packs;
}

export const isWithin = (set: ReadonlySet<string>, other: ReadonlySet<string>): boolean => [...set].every((one) => other.has(one));

/** In how many ways some facts may stand together, at most. */
function combinations([exploration]: readonly Exploration[], names: ReadonlySet<string>): number {
  const facts = exploration?.abstraction.original.facts.filter(({ id }) => names.has(id)) ?? [];
  return facts.reduce((count, fact) => count * valuesOf(fact).length, 1);
}
