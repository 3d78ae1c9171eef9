import { describe, expect, it } from "vitest";
import { appOf } from "../../../src/core/insight/app.ts";
import type { NavEvent, Project } from "../../../src/core/model/schema.ts";
import { leadOf } from "../../../src/core/semantics/bar.ts";
import { stateLine } from "../../../src/core/semantics/line.ts";
import { topBranch } from "../../../src/core/semantics/state.ts";
import { launch, step } from "../../../src/core/semantics/step.ts";
import { argumentsFromText } from "../../../src/core/semantics/values.ts";
import { app } from "../../vectors/app.ts";
import { eventOf } from "../../vectors/vector.ts";

/** The state after some events. */
function after(project: Project, ...events: Array<string | NavEvent>) {
  return events.reduce((state, event) => step(appOf(project), state, typeof event === "string" ? eventOf(event) : event).state, launch(appOf(project)));
}
const lineAfter = (project: Project, ...events: string[]) => stateLine(appOf(project).plan, after(project, ...events));

describe("what the bar starts with", () => {
  const bar = (lead: string) => ({ bar: { show: true, lead } });
  const lead = (project: Project, ...events: string[]) => {
    const state = after(project, ...events);
    return leadOf(appOf(project).plan, state, topBranch(state));
  };

  it("in a modal, Up is Back while there is something to go back to, and does nothing at its start", () => {
    const sheet = app("s", { stacks: { s: "a", f: "x y" }, modals: { m: "f" }, screens: { x: bar("up"), y: bar("up") }, legs: ["up a open m", "on x push y"] });
    expect([lead(sheet, "up"), lead(sheet, "up", "on")]).toEqual(["idle", "back"]);
  });

  it("on the page, by what the bar is for", () => {
    const of = (kind: string) => app("s", { stacks: { s: "a b" }, screens: { a: bar(kind), b: bar(kind) }, legs: ["on a push b"] });
    const both = (kind: string) => [lead(of(kind)), lead(of(kind), "on")];
    expect(both("auto")).toEqual(["none", "back"]);
    expect(both("back")).toEqual(["none", "back"]);
    expect(both("up")).toEqual(["idle", "up"]);
    expect(both("none")).toEqual(["none", "none"]);
    expect(both("menu")).toEqual(["idle", "idle"]);
  });

  it("is the menu within a drawer, and nothing while that is pinned", () => {
    const house = app("d", { drawers: { d: ["s t", { pinnedFrom: "wide" }] }, stacks: { s: "a", t: "b" }, screens: { a: bar("menu") } });
    expect([lead(house), lead(house, "width wide"), lead(house, "width middle")]).toEqual(["menu", "none", "menu"]);
  });
});

describe("leaving a screen", () => {
  it("asks from the screen outwards, and goes past what cannot answer", () => {
    const project = app("s", {
      stacks: { s: "a b", f: "q r" },
      modals: { m: "f" },
      facts: [{ id: "f", type: "boolean", initial: false, source: "app" }],
      legs: ["on a push b", "inner b:depart open m if=fact.f", "outer s:depart replace r"],
    });
    expect(lineAfter(project, "on", "back")).toBe("s[a,r]");
  });
});

it("of an address only what fits its parameter's type is handed on", () => {
  const types = ["text", "integer", "number", "boolean", "date"];
  const params = types.map((type) => ({ name: type, type }));
  const given = (value: string) => argumentsFromText(params, Object.fromEntries(types.map((type) => [type, value])));
  expect(given("7")).toEqual({ text: "7", integer: 7, number: 7, date: "7" });
  expect(given("7.5")).toEqual({ text: "7.5", number: 7.5, date: "7.5" });
  expect(given("true")).toEqual({ text: "true", boolean: true, date: "true" });
  expect(given("false").boolean).toBe(false);
  expect(Object.keys(given(" "))).toEqual(["text", "date"]);
  expect(argumentsFromText(params, {})).toEqual({});
});
