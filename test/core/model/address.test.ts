import fc from "fast-check";
import { expect, it } from "vitest";
import { buildAddress, comparePatterns, findByAddress, matchAddress } from "../../../src/core/model/address.ts";

it("an address that is built is matched back, whatever text is in it", () => {
  const text = fc.string({ unit: "binary", minLength: 1 }).filter((s) => s.isWellFormed());
  fc.assert(
    fc.property(text, text, (hiveId, noteId) => {
      const pattern = "/hives/{hiveId}/notes/n-{noteId}";
      const address = buildAddress(pattern, { hiveId, noteId }) ?? "";
      expect(address).toMatch(/^[\w\-.~%/]*$/);
      expect(matchAddress(pattern, address)).toEqual({ hiveId, noteId });
    }),
  );
});

it("the last variable may take the rest of the path", () => {
  expect(matchAddress("/files/{+rest}", "/files/a/b%20c")).toEqual({ rest: "a/b c" });
  expect(buildAddress("/files/{+rest}", { rest: "a/b c" })).toBe("/files/a/b%20c");
});

it("what does not match is not matched", () => {
  for (const address of ["/hives", "/hives/", "/hives/a/b", "/hive/a", "/hives/%zz"]) expect(matchAddress("/hives/{id}", address)).toBeUndefined();
  expect(matchAddress("/hives/{id}", "https://hollowcomb.example/hives/tansy/?from=mail#top")).toEqual({ id: "tansy" });
});

it("a variable without a value gives no address", () => {
  expect(buildAddress("/hives/{id}", {})).toBeUndefined();
});

it("where several patterns match, fixed text goes before a variable, and a variable before the rest", () => {
  const links = ["/{+rest}", "/x/{id}", "/{kind}/new", "/x/new"].map((pattern) => ({ pattern }));
  const found = (address: string) => findByAddress([...links], address)?.one.pattern;
  expect([found("/x/new"), found("/x/old"), found("/y/new"), found("/y/old"), found("/y")]).toEqual([
    "/x/new",
    "/x/{id}",
    "/{kind}/new",
    "/{+rest}",
    "/{+rest}",
  ]);
  expect(findByAddress([...links].reverse(), "/x/7")).toEqual({ one: { pattern: "/x/{id}" }, values: { id: "7" } });
  expect(comparePatterns("/x/{id}", "/x/{name}")).toBe(0);
  expect(findByAddress([{}], "/x")).toBeUndefined();
});
