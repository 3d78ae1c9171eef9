import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { check } from "../../../src/core/check/check.ts";
import { appOf } from "../../../src/core/insight/app.ts";
import { candidateEvents } from "../../../src/core/insight/available.ts";
import { unwrap, unwrapped, wrap, wrapProblem, wrapped } from "../../../src/core/model/edits/arrange.ts";
import { applyEdit } from "../../../src/core/model/edits/kinds.ts";
import { copiesOf, shareElement, spreadElement } from "../../../src/core/model/edits/share.ts";
import { lookup } from "../../../src/core/model/lookup.ts";
import { readProject, readProjectData } from "../../../src/core/model/read.ts";
import type { Project } from "../../../src/core/model/schema.ts";
import { launch, step } from "../../../src/core/semantics/step.ts";
import { amount } from "../../random/amount.ts";
import { pick, randomDocument, seeded } from "../../random/documents.ts";
import { app } from "../../vectors/app.ts";

const valid = (project: Project) => expect(readProjectData(JSON.parse(JSON.stringify(project)))).toMatchObject({ ok: true });
const members = (project: Project) => Object.fromEntries(project.containers.map((c) => [c.id, c.members]));
const moves = (project: Project) => Object.fromEntries(project.legs.map((leg) => [leg.id, leg.move]));
const blockers = (project: Project) =>
  check(project)
    .findings.filter((f) => f.severity === "blocker")
    .map((f) => f.code);

describe("putting places into a container keeps legs right", () => {
  const project = app("main", {
    stacks: { main: "home list detail done" },
    legs: ["a home push list", "b list push detail", "c detail push done", "d done replace home", "e done return list"],
  });

  it("into a modal: what was put on top comes up over the page, and what is inside goes on inside", () => {
    const { project: made, id, changed } = wrapped(project, ["detail", "done"], "modal", "Order");
    valid(made);
    expect(moves(made)).toMatchObject({
      a: { kind: "push", to: "list" },
      b: { kind: "open", to: id },
      c: { kind: "push", to: "done" },
      d: { kind: "replace", to: "home" },
    });
    expect(changed).toEqual(["b"]);
    expect(blockers(made)).toEqual([]);
  });

  it("into tabs: each screen keeps a history of its own, and one leads over to the other", () => {
    const made = applyEdit(project, wrap(project, ["home", "list"], "tabs", "Sections"));
    valid(made);
    expect(members(made)).toMatchObject({ main: ["sections", "detail", "done"], sections: ["homeTab", "listTab"], homeTab: ["home"], listTab: ["list"] });
    expect(moves(made).a).toEqual({ kind: "select", to: "listTab" });
  });

  it("a move that someone chose otherwise stays", () => {
    const made = applyEdit(project, wrap(project, ["home", "list"], "tabs", "Sections"));
    expect(moves(made)).toMatchObject({ d: { kind: "replace", to: "home" }, e: { kind: "return", to: "list" } });
  });

  it("says why it can not be done, and then does nothing", () => {
    expect(wrapProblem(project, ["main"], "modal")).toContain("starts here");
    const nested = app("t", { tabs: { t: "s u" }, stacks: { s: "a", u: "b" } });
    expect(wrapProblem(nested, ["a", "b"], "stack")).toContain("same container");
    expect(wrapped(nested, ["a", "b"], "stack", "New").project).toBe(nested);
  });
});

describe("taking a container away keeps legs right", () => {
  it("a modal: its screens join the stack that opened it, opening becomes putting on top, closing becomes going back", () => {
    const project = app("main", {
      stacks: { main: "home list" },
      modals: { order: "detail" },
      legs: ["a home push list", "b list open order", "c detail close", "d detail close modal=order"],
    });
    const { project: made, lost } = unwrapped(project, "order");
    valid(made);
    expect(members(made)).toEqual({ main: ["home", "list", "detail"] });
    expect(moves(made)).toMatchObject({ b: { kind: "push", to: "detail" }, c: { kind: "back" }, d: { kind: "back" } });
    expect(lost).toEqual([]);
    expect(blockers(made)).toEqual([]);
  });

  it("a stack: what named it as the place to put something goes to the stack around", () => {
    const project = app("outer", { stacks: { outer: "home inner", inner: "x y" }, legs: ["a home push y in=inner", "b x push y"] });
    const made = applyEdit(project, unwrap(project, "inner"));
    valid(made);
    expect(members(made)).toEqual({ outer: ["home", "x", "y"] });
    expect(moves(made)).toMatchObject({ a: { kind: "push", to: "y" }, b: { kind: "push", to: "y" } });
  });

  it("a drawer: its menu legs have nothing left to do and are named as lost", () => {
    const project = app("d", { drawers: { d: "s" }, stacks: { s: "a b" }, legs: ["m a menu drawer=d", "p a push b"] });
    const { project: made, lost } = unwrapped(project, "d");
    valid(made);
    expect(made.root).toBe("s");
    expect(lost).toEqual(["m"]);
    expect(made.legs.map((leg) => leg.id)).toEqual(["p"]);
  });

  it("what it shared goes onto each screen inside", () => {
    const project = app("outer", { stacks: { outer: "s z", s: "a b" }, legs: ["help s push z"] });
    const made = applyEdit(project, unwrap(project, "s"));
    expect(
      lookup(made)
        .screens.get("a")
        ?.elements.map((e) => e.label),
    ).toEqual(
      lookup(made)
        .screens.get("b")
        ?.elements.map((e) => e.label),
    );
    expect(made.legs.map((leg) => leg.from).sort()).toEqual(["a", "b"]);
    valid(made);
  });

  it("always gives a readable document without legs into nothing, on random documents", () => {
    for (let seed = 0; seed < amount(150, 25); seed++) {
      const project = randomDocument(seed);
      for (const container of project.containers) {
        const made = unwrapped(project, container.id).project;
        valid(made);
        expect(lookup(made).places.has(container.id)).toBe(false);
        const named = JSON.stringify(made.legs.map((leg) => leg.move));
        expect(named).not.toContain(`"${container.id}"`);
      }
      const screen = project.screens[0]?.id ?? "";
      for (const kind of ["stack", "tabs", "drawer", "modal"] as const) valid(applyEdit(project, wrap(project, [screen], kind, "New one")));
    }
  });
});

describe("the same control on many screens", () => {
  const project = app("t", {
    tabs: { t: "s u" },
    stacks: { s: "a b", u: "c" },
    screens: { a: { elements: [{ id: "help", kind: "icon", label: "Help" }] }, b: { elements: [{ id: "help2", kind: "icon", label: "Help" }] }, helpPage: {} },
    legs: ["h1 a:on(help) push helpPage", "h2 b:on(help2) push helpPage", "other a push b"],
  });

  it("is found, with the innermost container around its copies and the screens without it", () => {
    const copies = copiesOf(project);
    expect(copies).toHaveLength(1);
    expect(copies[0]).toMatchObject({ label: "Help", within: "s", without: [], on: [{ place: "a" }, { place: "b" }] });
  });

  it("a control that leads elsewhere is another control", () => {
    const other = { ...project, legs: project.legs.map((leg) => (leg.id === "h2" ? { ...leg, move: { kind: "back" as const } } : leg)) };
    expect(copiesOf(other)).toEqual([]);
  });

  it("becomes the container's in one edit, and one leg is left of two", () => {
    const made = applyEdit(project, shareElement(project, "a", "help", "s"));
    valid(made);
    expect(lookup(made).containers.get("s")?.elements).toMatchObject([{ label: "Help" }]);
    expect(made.screens.flatMap((s) => s.elements.map((e) => e.label))).not.toContain("Help");
    expect(made.legs.map((leg) => [leg.id, leg.from])).toEqual([
      ["h1", "s"],
      ["other", "a"],
    ]);
  });

  it("and goes back onto each screen, except where it was left out", () => {
    const shared = applyEdit(project, shareElement(project, "a", "help", "t", ["c"]));
    const made = applyEdit(shared, spreadElement(shared, "t", "help"));
    valid(made);
    expect(made.screens.map((s) => [s.id, s.elements.filter((e) => e.label === "Help").length])).toEqual(
      made.screens.map((s) => [s.id, s.id === "a" || s.id === "b" ? 1 : 0]),
    );
    expect(lookup(made).containers.get("t")?.elements).toBeUndefined();
    expect(made.legs.filter((leg) => leg.move?.kind === "push" && leg.move.to === "helpPage").map((leg) => leg.from)).toEqual(["a", "b"]);
  });
});

describe("wrapping screens of the demos, wherever they stand in a stack", () => {
  for (const name of ["hollowcomb", "tidewatch"])
    it(`${name}: no leg is refused afterwards that was not before`, () => {
      const read = readProject(readFileSync(`demo/${name}.etape.json`, "utf8"));
      if (!read.ok) throw new Error("the demo does not read");
      const before = refusedIn(read.project);
      const random = seeded(20);
      let tried = 0;
      for (const stack of read.project.containers.filter((c) => c.kind === "stack" && c.members.length > 1))
        for (const kind of ["tabs", "stack", "drawer"] as const) {
          const chosen = stack.members.filter(() => random() < 0.5);
          if (wrapProblem(read.project, chosen, kind) !== undefined) continue;
          const { project, changed } = wrapped(read.project, chosen, kind, "New");
          expect(refusedIn(project), `${chosen} into ${kind}; changed ${changed}`).toEqual(before);
          tried += 1;
        }
      expect(tried).toBeGreaterThan(8);
    });

  it("Extraction, Granted and Turned down into tabs: all their legs still work", () => {
    const read = readProject(readFileSync("demo/hollowcomb.etape.json", "utf8"));
    if (!read.ok) throw new Error("the demo does not read");
    const made = wrapped(read.project, ["extraction", "granted", "turnedDown"], "tabs", "Extraction tabs");
    expect(refusedIn(made.project)).toEqual(refusedIn(read.project));
  });
});

/** The legs that are refused on long random walks, each with the reason. */
function refusedIn(project: Project): string[] {
  const random = seeded(7);
  const found = new Set<string>();
  let state = launch(appOf(project));
  for (let i = 0; i < amount(4000, 600); i++) {
    const event = i % 60 === 59 ? ({ do: "launch" } as const) : pick(random, candidateEvents(project, state));
    const result = step(appOf(project), state, event);
    if (result.outcome === "refused" && event.do === "leg" && result.why !== "no-value") found.add(`${event.leg} ${result.why}`);
    state = result.state;
  }
  return [...found].sort();
}
