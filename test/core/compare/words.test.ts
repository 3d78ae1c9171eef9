import { describe, expect, it } from "vitest";
import { check } from "../../../src/core/check/check.ts";
import { changesInWords } from "../../../src/core/compare/words.ts";
import { applyEdit } from "../../../src/core/model/edits/kinds.ts";
import { app } from "../../vectors/app.ts";
import { CASES } from "../check/cases.ts";

const shop = app("main", {
  stacks: { main: "list itemDetail" },
  screens: { list: { name: "List" }, itemDetail: { name: "Item" } },
  legs: ["open list push itemDetail"],
});
const changed = (part: Partial<typeof shop>) => changesInWords(shop, { ...shop, ...part });

describe("changes in words", () => {
  it("names what changes by its name and says what it does", () => {
    const [open] = shop.legs;
    if (!open) throw new Error("there is a leg");
    expect(changed({ legs: [{ ...open, move: { kind: "replace", to: "itemDetail" } }] })).toEqual([
      'Leg “"List" to "Item"”: replaces “List” with “Item”; Back skips “List”.',
    ]);
    expect(changed({ legs: [] })).toEqual(['Takes away the leg “"List" to "Item"”.']);
    expect(changed({ screens: shop.screens.map((s) => (s.id === "list" ? { ...s, hub: true, elements: [] } : s)) })).toEqual([
      "Screen “List”: loses “open”.",
      "Screen “List”: a hub: yes.",
    ]);
    expect(changed({ containers: shop.containers.map((c) => ({ ...c, members: ["list"] })) })).toEqual(["Container “main”: loses “Item”."]);
  });

  it("has no notation of the file in it, whatever is fixed", () => {
    const all = CASES.flatMap(({ bad }) => check(bad).findings.flatMap(({ fixes }) => fixes.flatMap((fix) => changesInWords(bad, applyEdit(bad, fix)))));
    expect(all.length).toBeGreaterThan(60);
    for (const sentence of all) expect(sentence).not.toMatch(/[[\]]|\{"|undefined|closeOn|"kind"/);
  });
});
