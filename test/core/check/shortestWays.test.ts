import { describe, expect, it } from "vitest";
import { abstractionOf } from "../../../src/core/check/system/abstraction.ts";
import { explore } from "../../../src/core/check/system/explore.ts";
import { closest, coarse, followable } from "../../../src/core/check/system/precision.ts";
import { shortestWays } from "../../../src/core/check/system/shortestWays.ts";
import { amount } from "../../random/amount.ts";
import { assembledApp } from "../../random/assembled.ts";
import { randomDocument } from "../../random/documents.ts";
import { wholeDocument } from "../../random/whole.ts";

describe("the shortest ways of a search", () => {
  it("lead to each of its states, however much has to be brought about before", () => {
    let states = 0;
    for (let seed = 1; seed <= amount(600, 15); seed++) {
      const project = seed % 15 === 0 ? assembledApp(seed, 30) : seed % 2 === 0 ? wholeDocument(seed) : randomDocument(seed);
      for (const precision of [coarse(followable(project)), closest(project)]) {
        const search = explore(abstractionOf(project, precision), "narrow", { states: 3_000 });
        const reached = new Set([...shortestWays(search, () => 1)].map(({ at }) => at));
        const lost = search.nodes.flatMap(({ key }, i) => (reached.has(i) ? [] : [key]));
        expect([seed, precision.contexts, precision.follows.size, lost]).toEqual([seed, precision.contexts, precision.follows.size, []]);
        states += search.nodes.length;
      }
    }
    expect(states).toBeGreaterThan(800);
  });
});
