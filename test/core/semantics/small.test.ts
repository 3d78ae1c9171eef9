import { describe, expect, it } from "vitest";
import { appOf } from "../../../src/core/insight/app.ts";
import type { Json, NavEvent, Project } from "../../../src/core/model/schema.ts";
import { leadOf } from "../../../src/core/semantics/bar.ts";
import { stateLine } from "../../../src/core/semantics/line.ts";
import { type Motions, seenMotion } from "../../../src/core/semantics/motion.ts";
import { isDrawer, isStack, nearest, topBranch, visiblePath } from "../../../src/core/semantics/state.ts";
import { launch, step } from "../../../src/core/semantics/step.ts";
import type { Shown } from "../../../src/core/semantics/types.ts";
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

describe("arrive legs", () => {
  const chain = (count: number) => {
    const ids = Array.from({ length: count + 1 }, (_, i) => `s${i}`);
    return app("s", { stacks: { s: `home ${ids.join(" ")}` }, legs: ["go home push s0", ...ids.slice(1).map((to, i) => `on${i} s${i}:arrive push ${to}`)] });
  };

  it("follow one another up to 32 times; one more, and nothing has happened", () => {
    expect(lineAfter(chain(32), "go")).toContain("s32]");
    const project = chain(33);
    const before = launch(appOf(project));
    expect(step(appOf(project), before, eventOf("go"))).toMatchObject({ outcome: "refused", why: "redirect-loop" });
    expect(lineAfter(project, "go")).toBe("s[home]");
  });

  it("fire on a modal that is shown again, where the event opened it itself", () => {
    const project = app("s", {
      stacks: { s: "home", f: "x", g: "y", h: "done" },
      modals: { m: "f", n: "g", o: "h" },
      facts: [{ id: "asked", type: "boolean", initial: false, source: "app" }],
      legs: ["go home open m", "ask x:arrive open n if=!fact.asked", "end x:arrive open o if=fact.asked", "answer y:arrive close n set.asked=true"],
    });
    expect(lineAfter(project, "go")).toBe("s[home] + m(f[x]) + o(h[done])");
  });
});

it("a change of width closes every drawer, also one on a stack and one that does not show", () => {
  const project = app("t", {
    tabs: { t: "s u" },
    stacks: { s: "a d", u: "z" },
    drawers: { d: "x y" },
    legs: ["in a push d", "menu x menu", "away x select u"],
  });
  // The same with nothing but the drawer on the stack.
  const alone = after(app("s", { stacks: { s: "d" }, drawers: { d: "x y" }, legs: ["menu x menu"] }), "menu");
  expect([alone, step(appOf(project), alone, { do: "width", to: "wide" }).state].map((state) => JSON.stringify(state).includes('"open":true'))).toEqual([
    true,
    false,
  ]);
  const opened = after(project, "in", "menu");
  expect(stateLine(appOf(project).plan, opened)).toContain("!");
  for (const state of [opened, step(appOf(project), opened, eventOf("away")).state]) {
    const wide = step(appOf(project), state, { do: "width", to: "wide" }).state;
    expect(JSON.stringify(wide)).not.toContain('"open":true');
    expect(JSON.stringify(state).replaceAll('"open":true', '"open":false').replace('"width":"narrow"', '"width":"wide"')).toBe(JSON.stringify(wide));
  }
});

it("the nearest on a path is the last that passes, be it the very last or none", () => {
  const path = visiblePath(after(app("s", { stacks: { s: "a b" }, legs: ["on a push b"] }), "on").base);
  expect(path.map(({ at }) => at)).toEqual(["s", "b"]);
  expect([nearest(path, (node): node is Shown => node.kind === "shown"), nearest(path, isStack), nearest(path, isDrawer)]).toEqual([1, 0, -1]);
});

it("the row that is carried is known by its key, however it was given", () => {
  const project = app("s", { stacks: { s: "a b" }, legs: ["on a push b"] });
  const motions: Motions = { legs: { on: { goes: "on", motion: { kind: "slide", carries: [{ from: "rows", to: "head" }] } } }, modals: {}, screens: {} };
  const seen = (item: Json) => {
    const event = { do: "leg", leg: "on", item } as const;
    const before = launch(appOf(project));
    return seenMotion(motions, { before, after: step(appOf(project), before, { do: "leg", leg: "on" }).state, event }, [])?.row;
  };
  expect([seen("hive-2"), seen(3), seen({ id: "hive-2", apiary: "north" })]).toEqual(["hive-2", "3", "hive-2"]);
});
