import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { begins, nameRank, rankedByName } from "../../../src/core/model/names.ts";

const ranked = (names: string[], typed: string) => rankedByName(names, typed, (name) => [name]);

describe("finding by name", () => {
  it("puts the very name before a beginning, a beginning before a word, a word before a part", () => {
    expect(ranked(["Homely", "A home", "Chrome", "Home"], "home")).toEqual(["Home", "Homely", "A home"]);
    expect(ranked(["Chrome", "Some roms", "Rom", "Roman"], "rom")).toEqual(["Rom", "Roman", "Some roms", "Chrome"]);
    expect(ranked(["Soups", "Soup"], "Soup")).toEqual(["Soup", "Soups"]);
    expect(ranked(["Home", "Me"], "Me")).toEqual(["Me", "Home"]);
  });

  it("says whether a name or a word in it begins with what was typed", () => {
    expect(["Home", "My home", "Chrome", "Other"].map((name) => begins(name, "ho"))).toEqual([true, true, false, false]);
    expect(begins("Chrome", "rom")).toBe(false);
    expect(begins("Anything", "")).toBe(true);
  });

  it("keeps the order of what fits equally well, and everything where nothing is typed", () => {
    expect(ranked(["bb", "ba", "ab"], "b")).toEqual(["bb", "ba", "ab"]);
    expect(ranked(["b", "a"], "  ")).toEqual(["b", "a"]);
  });

  it("finds by a second name after all first ones", () => {
    const list = [
      { name: "Plot", within: "Garden" },
      { name: "Old garden", within: "More" },
    ];
    expect(rankedByName(list, "garden", (one) => [one.name, one.within]).map((one) => one.name)).toEqual(["Old garden", "Plot"]);
  });

  it("puts an exact name first, whatever else there is", () => {
    fc.assert(
      fc.property(
        fc.array(fc.string({ minLength: 1 })),
        fc.string({ minLength: 1 }).filter((s) => s.trim() !== ""),
        (others, name) => {
          const first = ranked([...others, name], name)[0] ?? "";
          return nameRank(first, name) === 0;
        },
      ),
    );
  });
});
