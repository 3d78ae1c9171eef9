import { readFileSync } from "node:fs";
import { expect, it } from "vitest";
import { check } from "../../../src/core/check/check.ts";
import { FINDINGS } from "../../../src/core/check/findings/all.ts";
import { findingsTable } from "../../../src/core/check/report/table.ts";
import type { Project } from "../../../src/core/model/schema.ts";
import { app } from "../../vectors/app.ts";

const open = (project: Project) =>
  check(project)
    .findings.filter((f) => f.open)
    .map((f) => [f.code, ...f.subjects].join(" "));
const wrong = (project: Project) => check(project).findings.filter((f) => !f.open && f.severity !== "note");

it("what is only not built yet is an open end, and a fault in what is built is not", () => {
  const begun = app("s", { stacks: { s: "a b c" }, screens: { a: { elements: [{ id: "x", kind: "button", label: "X" }] } } });
  expect(open(begun).sort()).toEqual(["idle-element a x", "unreachable b", "unreachable c"]);
  // A screen with a control on it is built, and nobody gets out of it.
  expect(wrong(begun).map((f) => [f.code, ...f.subjects])).toEqual([["dead-end", "a"]]);
  // Somebody leads to c from where nobody gets to: that is a fault of c, and b is not built in yet.
  const behind = app("s", { stacks: { s: "a b c" }, legs: ["on b push c"] });
  expect(open(behind)).toEqual(["dead-end a", "unreachable b"]);
});

it("a bare screen without a way out is an open end until something is built on it", () => {
  const bare = app("s", { stacks: { s: "a b" }, screens: { a: { hub: true }, b: { up: "none" } }, legs: ["go a reset b"] });
  expect(open(bare)).toEqual(["dead-end b"]);
  const built = {
    ...bare,
    screens: bare.screens.map((screen) => (screen.id === "b" ? { ...screen, elements: [{ id: "t", kind: "text" as const, label: "T" }] } : screen)),
  };
  expect(open(built)).toEqual([]);
  expect(wrong(built).map((f) => f.code)).toContain("dead-end");
});

it("containers without members and drawers in which nothing is built yet are open ends", () => {
  const drawer = app("d", { drawers: { d: "a b" } });
  expect(open(drawer)).toContain("no-menu-control d");
  const used = app("d", { drawers: { d: "a b" }, legs: ["go a select b"] });
  expect(open(used)).not.toContain("no-menu-control d");
  expect(open(app("s", { stacks: { s: "a", u: "" } }))).toContain("no-start u");
});

it("docs/findings.md has the table that the list of findings makes (npm run docs)", () => {
  expect(readFileSync("docs/findings.md", "utf8")).toContain(findingsTable());
  expect(new Set(FINDINGS.map(({ code }) => code)).size).toBe(FINDINGS.length);
  for (const { code, says, help } of FINDINGS) expect(help.length, code).toBeGreaterThan(says.length / 2);
});

it("a screen that is only where a way in goes otherwise is named, and no open end; one that nothing names is", () => {
  const project = app("s", {
    stacks: { s: "home a x y" },
    facts: [{ id: "known", type: "boolean", initial: true, source: "app" }],
    legs: ["on home push a"],
    entrances: [{ id: "e", name: "E", kind: "notification", to: "a", when: "fact.known", otherwise: "x", warm: "onTop" }],
  });
  const found = check(project).findings.filter(({ code }) => code === "unreachable");
  expect(found.map(({ subjects, open }) => [subjects[0], open ?? false])).toEqual([
    ["x", false],
    ["y", true],
  ]);
});
