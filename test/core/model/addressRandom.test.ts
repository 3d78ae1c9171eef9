import { expect, it } from "vitest";
import { buildAddress, matchAddress } from "../../../src/core/model/address.ts";
import { pick, seeded } from "../../random/documents.ts";

const SEGMENTS = ["hives", "{id}", "a b", "v{major}", "{+rest}", "item-{id}.html", "ü", "%41", "{x}", ""];
const TEXTS = ["tansy", "a/b", "a b&c", "ü", "", "100%", "%zz", "..", "item-7.html", "v3", "😀", "(x)"];

/** Patterns and addresses of one to four segments. */
function cases(seed: number): { pattern: string; address: string; values: Record<string, string | number | boolean> } {
  const random = seeded(seed);
  const some = (list: readonly string[]) => Array.from({ length: 1 + Math.floor(random() * 4) }, () => pick(random, list)).join("/");
  const decorated = pick(random, ["", "", "?q=1", "#top", "/"]);
  const origin = pick(random, ["", "", "https://etape.test"]);
  return {
    pattern: `/${some(SEGMENTS)}`,
    address: `${origin}/${some([...TEXTS, ...SEGMENTS.filter((s) => !s.includes("{"))])}${decorated}`,
    values: { id: pick(random, TEXTS), x: pick(random, [1, 0, true]), rest: pick(random, TEXTS), major: 3 },
  };
}

it("random addresses are built and matched back, and those that match are told from those that do not", () => {
  let matched = 0;
  let back = 0;
  for (let seed = 0; seed < 6000; seed++) {
    const { pattern, address, values } = cases(seed);
    if (matchAddress(pattern, address)) matched += 1;
    const built = buildAddress(pattern, values);
    if (built === undefined || !/^(\/[^/{]+)*\/\{id\}$/.test(pattern)) continue;
    expect(matchAddress(pattern, built)).toEqual({ id: values.id });
    back += 1;
  }
  expect(matched).toBeGreaterThan(100);
  expect(back).toBeGreaterThan(30);
});
