import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { check } from "../../../src/core/check/check.ts";
import { readProject } from "../../../src/core/model/read.ts";
import type { Project } from "../../../src/core/model/schema.ts";
import { app } from "../../vectors/app.ts";

const repeats = { mayRepeat: true };
const noUp = { up: "none" };
const hub = { hub: true };
const PAGES = Array.from({ length: 14 }, (_, i) => `page${i}`);

/** What is wrong that people could get stuck in: code, subjects, and how sure it is. */
const stuck = (project: Project) =>
  check(project)
    .findings.filter((f) => ["dead-end", "stuck-modal", "trap", "back-only"].includes(f.code))
    .map((f) => `${f.code} ${f.subjects.join(" ")} ${f.certainty}`);

const tidewatch = (): Project => {
  const read = readProject(readFileSync("demo/tidewatch.etape.json", "utf8"));
  if (!read.ok) throw new Error("the demo reads");
  const { project } = read;
  const screens = project.screens.map((s) =>
    s.id === "berth" ? { ...s, mayRepeat: true, elements: [...s.elements, { id: "similar", kind: "button" as const, label: "Similar berth" }] } : s,
  );
  const leg = {
    id: "similarBerth",
    from: "berth",
    on: { kind: "tap" as const, element: "similar" },
    move: { kind: "push" as const, to: "berth", pass: { berthId: "param.berthId" } },
  };
  return { ...project, screens, legs: [...project.legs, leg] };
};

describe("stacks without end are no traps", () => {
  const FINE: Record<string, Project> = {
    "list > item > similar item": app("main", {
      stacks: { main: "list item" },
      screens: { item: repeats },
      legs: ["open list push item", "similar item push item"],
    }),
    "item > author > item": app("main", {
      stacks: { main: "list item author" },
      screens: { item: repeats, author: repeats },
      legs: ["open list push item", "by item push author", "wrote author push item"],
    }),
    "profile > post > profile, in tabs": app("tabs", {
      tabs: { tabs: "home me" },
      stacks: { home: "feed post profile", me: "own" },
      screens: { post: repeats, profile: repeats },
      legs: ["open feed push post", "by post push profile", "on profile push post"],
    }),
    "folder > folder > file": app("main", {
      stacks: { main: "root folder file" },
      screens: { folder: repeats },
      legs: ["a root push folder", "b folder push folder", "c folder push file"],
    }),
    "sign-in, then home as a hub, item > item": app("main", {
      stacks: { main: "signIn home item" },
      screens: { home: hub, item: repeats },
      facts: [{ id: "in", type: "boolean", initial: false, source: "app" }],
      legs: ["enter signIn reset home set.in=true", "open home push item", "similar item push item"],
    }),
    "folders with many pages, and a panel over them that only a swipe closes": app("tour", {
      stacks: { tour: "start main", main: `home folder ${PAGES.join(" ")} hall`, small: "playing" },
      modals: { panel: ["small", { shape: "panel", blocks: false, dims: false, closeOn: ["swipe"] }] },
      screens: { hall: hub, folder: repeats, ...Object.fromEntries(PAGES.map((id) => [id, repeats])) },
      legs: [
        "begin start reset main",
        "play home open panel",
        "in home push folder",
        "deeper folder push folder",
        "up home push hall",
        ...PAGES.flatMap((id) => [`${id}a folder push ${id}`, `${id}b ${id} push folder`]),
      ],
    }),
    "a modal with a looping stack that Back closes": app("main", {
      stacks: { main: "list", steps: "step" },
      modals: { sheet: ["steps", { closeOn: ["back"] }] },
      screens: { step: repeats },
      legs: ["open list open sheet", "on step push step"],
    }),
    "a modal with a looping stack that its first screen closes": app("main", {
      stacks: { main: "list", steps: "first step" },
      modals: { sheet: ["steps", { closeOn: [] }] },
      screens: { step: repeats },
      legs: ["open list open sheet", "on first push step", "more step push step", "done first close"],
    }),
    "a drawer whose members loop": app("d", {
      drawers: { d: ["s t", { bar: { show: true, lead: "menu" } }] },
      stacks: { s: "list item", t: "news" },
      screens: { item: repeats },
      legs: ["open list push item", "more item push item"],
    }),
    "Tidewatch with one more button": tidewatch(),
  };
  for (const [name, project] of Object.entries(FINE))
    it(name, () => {
      const { findings, proof } = check(project);
      expect(stuck(project)).toEqual([]);
      expect(findings.filter((f) => f.certainty === "possible")).toEqual([]);
      expect(proof).toMatchObject({ depth: "any", complete: true });
    });
});

describe("and their true neighbours are, with a walk", () => {
  const WRONG: Record<string, [Project, string[]]> = {
    "the hub is gone before the loop begins, and only Back helps": [
      app("main", {
        stacks: { main: "home item" },
        screens: { home: hub, item: { ...repeats, ...noUp } },
        legs: ["open home reset item", "similar item push item"],
      }),
      ["trap item shown"],
    ],
    "the hub is gone on one of two ways": [
      app("main", {
        stacks: { main: "home list item" },
        screens: { home: hub, list: noUp, item: { ...repeats, ...noUp } },
        legs: ["open home push item", "away home reset list", "go list push item", "similar item push item"],
      }),
      ["trap list item shown"],
    ],
    "a loop in a modal that nothing closes": [
      app("main", {
        stacks: { main: "list", steps: "first step" },
        modals: { sheet: ["steps", { closeOn: [] }] },
        screens: { step: repeats },
        legs: ["open list open sheet", "on first push step", "more step push step"],
      }),
      ["stuck-modal sheet shown"],
    ],
  };
  for (const [name, [project, expected]] of Object.entries(WRONG)) it(name, () => expect(stuck(project)).toEqual(expected));
});
