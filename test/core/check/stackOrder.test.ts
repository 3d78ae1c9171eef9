import { describe, expect, it } from "vitest";
import { check } from "../../../src/core/check/check.ts";
import { liesOnlyAbove } from "../../../src/core/check/system/stackOrder.ts";
import { appOf } from "../../../src/core/insight/app.ts";
import { planOf } from "../../../src/core/plan/planOf.ts";
import { launch, step } from "../../../src/core/semantics/step.ts";
import type { Node, State } from "../../../src/core/semantics/types.ts";
import { amount } from "../../random/amount.ts";
import { randomWalk, wholeDocument, wholeEvents } from "../../random/whole.ts";
import { app } from "../../vectors/app.ts";

const TALKS = ["in inbox push talk repeat=rewind", "about talk push info", "again info push inbox repeat=rewind"];

describe("the order of a stack, told from the moves", () => {
  const kept = (legs: string[], more: object = {}) =>
    liesOnlyAbove(planOf(app("s", { stacks: { s: "inbox talk info", t: "other" }, tabs: {}, legs: [...legs, "aside inbox push t"], ...more })), "info", "talk");

  it("a screen that the stack is cut back to never comes to lie on what was put on top of it", () => {
    expect(kept(TALKS)).toBe(true);
    expect(kept([...TALKS, "home info return talk"])).toBe(true);
    expect(kept([...TALKS, "back info back", "root info reset inbox"])).toBe(true);
  });

  it("nor does one that is put only from a screen which is never doubled, as the steps of a flow are", () => {
    expect(kept(["in inbox push talk", "about talk push info"])).toBe(true);
    expect(kept(["in inbox push talk repeat=stay", "about talk push info", "done info return inbox"])).toBe(true);
    const steps = app("s", { stacks: { s: "home a b c" }, legs: ["one home push a", "two a push b", "three b push c", "end c return home"] });
    expect(liesOnlyAbove(planOf(steps), "c", "b")).toBe(true);
    const round = app("s", { stacks: { s: "home a b c" }, legs: ["one home push a", "two a push b", "three b push c", "end c push home"] });
    expect(liesOnlyAbove(planOf(round), "c", "b")).toBe(false);
  });

  it.each([
    ["the screen is pushed without cutting back", ["in inbox push talk", "about talk push info", "again info push inbox"]],
    ["it only stays where it is on top", ["in inbox push talk repeat=stay", "about talk push info", "again info push inbox"]],
    ["the place is put there from elsewhere too", [...TALKS, "more inbox push info"]],
    ["the place goes onto another stack", [...TALKS, "far talk push info in=t"]],
    ["the screen takes the place of another", [...TALKS, "instead info replace talk"]],
    ["the place starts a stack", [...TALKS, "anew inbox reset info"]],
  ])("nothing is told where %s", (_, legs) => {
    expect(kept(legs)).toBe(false);
  });

  it("nothing is told of a container, which may be where a stack begins", () => {
    const tabsFirst = app("s", { stacks: { s: "t other" }, tabs: { t: "a" }, legs: ["on a push other", "again other push t"] });
    expect(liesOnlyAbove(planOf(tabsFirst), "t", "other")).toBe(false);
    expect(check(tabsFirst).findings.some(({ code, certainty }) => code === "piled-copies" && certainty === "shown")).toBe(true);
  });

  it("so no second copy is feared there, and one is found where the stack is not cut back", () => {
    const copies = (legs: string[]) =>
      check(app("s", { stacks: { s: "inbox talk info" }, legs })).findings.flatMap(({ code, certainty, subjects }) =>
        code === "piled-copies" ? [`${certainty} ${subjects.join(" ")}`] : [],
      );
    expect(copies(TALKS)).toEqual([]);
    expect(copies(["in inbox push talk", "about talk push info", "again info push talk"])).toContain("shown about info");
    // From a container around the stack, whatever is on top.
    const drawer = app("d", {
      drawers: { d: "s y" },
      stacks: { s: "inbox info" },
      legs: ["menu inbox menu", "again info menu", "about d push info repeat=copy"],
    });
    expect(check(drawer).findings.flatMap(({ code, certainty, subjects }) => (code === "piled-copies" ? [certainty, ...subjects] : []))).toEqual([
      "shown",
      "about",
      "info",
    ]);
  });
});

/** The stacks of a state, each with what its items are. */
function stacksIn(node: Node): string[][] {
  if (node.kind === "shown") return [];
  if (node.kind === "stack") return [node.items.map(({ at }) => at), ...node.items.flatMap(stacksIn)];
  return Object.values(node.lanes).flatMap((lane) => stacksIn(lane as Node));
}
const allStacks = (state: State) => [state.base, ...state.layers.map(({ content }) => content)].flatMap(stacksIn);

const DOCUMENTS = amount(1000, 120);

it(`on ${DOCUMENTS} random documents no walk puts a place beneath what it was said to lie above`, () => {
  const wrong: string[] = [];
  let told = 0;
  for (let seed = 0; seed < DOCUMENTS; seed++) {
    const project = wholeDocument(seed);
    const plan = planOf(project);
    const ids = project.screens.map(({ id }) => id);
    const pairs = ids.flatMap((place) => ids.filter((screen) => liesOnlyAbove(plan, place, screen)).map((screen) => [place, screen] as const));
    told += pairs.length;
    if (pairs.length === 0) continue;
    const events = wholeEvents(project).filter((event) => event.do !== "enter" || event.cold);
    for (let walk = 0; walk < 6; walk++) {
      let state = launch(appOf(project));
      for (const event of randomWalk(project, events, seed * 100 + walk, 40)) {
        state = step(appOf(project), state, event).state;
        for (const items of allStacks(state))
          for (const [place, screen] of pairs) {
            const at = items.indexOf(place);
            if (at >= 0 && items.lastIndexOf(screen) > at) wrong.push(`seed ${seed}: ${place} lies beneath ${screen} in ${items}`);
          }
      }
    }
  }
  expect(wrong).toEqual([]);
  expect(told).toBeGreaterThan(DOCUMENTS);
});
