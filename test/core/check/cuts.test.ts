import { expect, test } from "vitest";
import { Contents } from "../../../src/core/check/system/contents.ts";
import { Cuts } from "../../../src/core/check/system/cuts.ts";
import { restOn } from "../../../src/core/check/system/hiding.ts";
import type { Node, StackNode } from "../../../src/core/semantics/types.ts";
import { pick, seeded } from "../../random/documents.ts";

const SCREENS = ["a", "b", "c", "d", "e", "f"];
const shown = (at: string): Node => ({ kind: "shown", at, args: {} });
const stack = (...items: string[]): StackNode => ({ kind: "stack", at: "s", items: items.map(shown) });
const textOf = (node: Node) => JSON.stringify(node);
const stopAt = (place: string) => (item: Node) => item.at === place;

/** A set of contexts that are filled by hand, with the cuts that are made in them, at most so many by themselves. */
function cutting(most: number) {
  const told: string[] = [];
  const listener = { grew: () => undefined, apart: () => undefined, became: (what: string) => told.push(what) };
  const held = new Contents(listener, () => false, textOf);
  const cuts = new Cuts(held, listener, most);
  const settle = () => {
    do held.settle();
    while (held.settleLast());
  };
  return { told, held, cuts, settle };
}

/** A context, and a content noted for it: a screen on nothing, or on what another context holds. */
type Noting = [context: string, content: StackNode];

function randomNotings(seed: number): Noting[] {
  const random = seeded(seed);
  return Array.from({ length: 3 + Math.floor(random() * 12) }, () => {
    const [top, beneath] = [pick(random, SCREENS), pick(random, SCREENS)];
    const content = random() < 0.25 ? stack(beneath) : stack(restOn(`s.${beneath}`), beneath);
    return [`s.${top}`, content];
  });
}

test("a cut made in the whole stack finds and misses a place in just the contexts in which a cut of its own does", () => {
  let [found, missed, neither] = [0, 0, 0];
  for (let seed = 1; seed <= 300; seed++) {
    const [own, whole] = [cutting(1_000), cutting(0)];
    const notings = randomNotings(seed);
    const asked = SCREENS.flatMap((top) => SCREENS.map((place) => ({ context: `s.${top}`, place })));
    // Some cuts are asked for before anything is known, some in between, some at the end.
    const askAt = asked.map((_, i) => (i * 7) % (notings.length + 1));
    const ask = ({ context, place }: { context: string; place: string }) =>
      [own, whole].map(({ cuts, settle }) => {
        const cut = cuts.of(context, `is ${place}`, stopAt(place));
        settle();
        return cut;
      });
    const made = new Map<number, ReturnType<typeof ask>>();
    notings.forEach(([context, content], n) => {
      for (const [i, one] of asked.entries()) if (askAt[i] === n) made.set(i, ask(one));
      for (const { held, settle } of [own, whole]) {
        held.note(context, content);
        settle();
      }
    });
    asked.forEach((one, i) => {
      const [fine, coarse] = made.get(i) ?? ask(one);
      const name = `seed ${seed}: ${one.place} in ${one.context}`;
      expect([coarse?.found(), coarse?.missed], name).toEqual([fine?.found(), fine?.missed]);
      const contents = whole.held.contents(coarse?.context ?? "").map(textOf);
      for (const content of own.held.contents(fine?.context ?? "")) expect(contents, name).toContain(textOf(content));
      if (fine?.found()) found++;
      if (fine?.missed) missed++;
      if (!fine?.found() && !fine?.missed) neither++;
    });
  }
  expect(Math.min(found, missed, neither)).toBeGreaterThan(300);
});

test("it is told when a place may be found, or missed, for the first time", () => {
  const { told, held, cuts, settle } = cutting(0);
  cuts.of("s.c", "is a", stopAt("a"));
  held.note("s.c", stack(restOn("s.b"), "b"));
  settle();
  expect(told).not.toContain("found s.c/is a");
  held.note("s.b", stack("a"));
  settle();
  expect(told).toContain("found s.c/is a");
  expect(told).not.toContain("missed s.c/is a");
  held.note("s.b", stack("d"));
  settle();
  expect(told).toContain("missed s.c/is a");
});
