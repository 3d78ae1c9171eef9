import { describe, expect, it } from "vitest";
import { type Swipe, swipeEvent } from "../../src/app/features/walk/gestures.ts";
import { appOf } from "../../src/core/insight/app.ts";
import type { NavEvent, Project } from "../../src/core/model/schema.ts";
import { topBranch } from "../../src/core/semantics/state.ts";
import { launch, step } from "../../src/core/semantics/step.ts";
import { app } from "../vectors/app.ts";

/** What a swipe does after some events from launch. */
function swiped(project: Project, events: NavEvent[], to: Swipe["to"], fromEdge = false): NavEvent | undefined {
  const state = events.reduce((now, event) => step(appOf(project), now, event).state, launch(appOf(project)));
  return swipeEvent(project, state, topBranch(state), { to, touched: undefined, fromEdge });
}

const close = { do: "close", via: "swipe" };
const house = app("d", {
  drawers: { d: ["t", { closeOn: ["swipe", "outside"] }] },
  tabs: { t: ["s u", { swipes: true }] },
  stacks: { s: "home item", u: "news", steps: "one" },
  modals: { sheet: ["steps", { closeOn: ["swipe"] }], firm: ["ask", { closeOn: ["button"] }] },
  legs: ["go home push item", "menu home menu", "up home open sheet", "ask home open firm"],
});
const leg = (id: string): NavEvent => ({ do: "leg", leg: id });

describe("what a swipe does on the device", () => {
  it("from the edge it is the system's Back, wherever it is", () => {
    expect(swiped(house, [leg("go")], "right", true)).toEqual({ do: "back" });
    expect(swiped(house, [leg("up")], "right", true)).toEqual({ do: "back" });
    expect(swiped(house, [leg("go")], "right")).toBeUndefined();
  });

  it("pushes an open drawer off at its side, and a sheet down, where they close so", () => {
    expect(swiped(house, [leg("menu")], "left")).toEqual(close);
    expect(swiped(house, [leg("menu")], "right")).toBeUndefined();
    expect(swiped(house, [leg("up")], "down")).toEqual(close);
    expect(swiped(house, [leg("up")], "up")).toBeUndefined();
    expect(swiped(house, [leg("ask")], "down")).toBeUndefined();
  });

  it("goes to the neighboring tab, unless a drawer is open over the tabs", () => {
    expect(swiped(house, [], "left")).toEqual({ do: "tab", to: "u" });
    expect(swiped(house, [], "right")).toBeUndefined();
    expect(swiped(house, [leg("menu")], "left")).toEqual(close);
  });
});
