import { describe, expect, it } from "vitest";
import { appOf } from "../../../src/core/insight/app.ts";
import { metStates } from "../../../src/core/insight/met.ts";
import { doingsFrom } from "../../../src/core/insight/nowhere.ts";
import { pileOf } from "../../../src/core/insight/preview.ts";
import { proposal } from "../../../src/core/insight/proposal.ts";
import { suitedMove } from "../../../src/core/model/propose.ts";
import type { Project } from "../../../src/core/model/schema.ts";
import { launch, step } from "../../../src/core/semantics/step.ts";
import { app } from "../../vectors/app.ts";

describe("where a leg should lead", () => {
  const shop = app("main", {
    stacks: { main: "home list item form", steps: "one two" },
    modals: { sheet: "steps", bare: "note" },
    legs: ["a home push list", "b list push item", "up item open sheet", "on one push two", "over item open bare"],
  });
  const move = (from: string, to: string) => proposal(shop, { place: from }, to).move;

  it("back to what lies beneath, on top where it does not", () => {
    expect(move("item", "list")).toEqual({ kind: "return", to: "list" });
    expect(move("list", "form")).toEqual({ kind: "push", to: "form" });
  });

  it("closing what covers it, going on inside, out to the page", () => {
    expect(move("one", "item")).toEqual({ kind: "close", modal: "sheet" });
    expect(move("two", "one")).toMatchObject({ kind: "return", to: "one" });
    expect(move("one", "form")).toEqual({ kind: "push", to: "form", in: "beneath" });
    expect(move("note", "bare")).toEqual({ kind: "close", modal: "bare" });
  });

  it("closing a modal to the screen that opens it, though nobody gets there yet", () => {
    const draft = app("main", { stacks: { main: "home item", steps: "edit" }, modals: { sheet: "steps" }, legs: ["up item open sheet"] });
    expect(proposal(draft, { place: "edit" }, "item").move).toEqual({ kind: "close", modal: "sheet" });
  });

  it("closes what covers a tab that is no stack, for nothing can be put on that", () => {
    const house = app("t", { tabs: { t: "s q" }, stacks: { s: "a b" }, modals: { m: "y" }, legs: ["up a open m", "ab a push b"] });
    expect(suitedMove(house, "y", "q")).toEqual({ kind: "close", modal: "m" });
    expect(suitedMove(house, "y", "b")).toEqual({ kind: "push", to: "b", in: "beneath" });
  });

  it("opens the drawer that is around, and goes over to a lane", () => {
    const house = app("d", { drawers: { d: "s t" }, stacks: { s: "a", t: "b" } });
    expect(proposal(house, { place: "a" }, "d").move).toEqual({ kind: "menu", drawer: "d" });
    expect(proposal(house, { place: "a" }, "t").move).toEqual({ kind: "select", to: "t" });
    expect(proposal(house, { place: "a" }, "b").move).toEqual({ kind: "select", to: "t" });
  });
});

describe("what leads on by itself", () => {
  it("is replaced, so that Back does not end up there again; a question still comes up over it", () => {
    const splash = app("main", { stacks: { main: "splash home", steps: "ask" }, modals: { sheet: "steps" } });
    expect(proposal(splash, { place: "splash", on: { kind: "after", ms: 800 } }, "home").move).toEqual({ kind: "replace", to: "home" });
    expect(proposal(splash, { place: "splash", on: { kind: "arrive" } }, "home").move).toEqual({ kind: "replace", to: "home" });
    expect(proposal(splash, { place: "splash", on: { kind: "depart" } }, "sheet").move).toEqual({ kind: "open", to: "sheet" });
    expect(proposal(splash, { place: "splash", on: { kind: "swipe", to: "left" } }, "home").move).toEqual({ kind: "push", to: "home" });
  });
});

describe("what a leg can do that is no place", () => {
  const keys = (project: Project, from: string) => doingsFrom(project, from).map((one) => one.key);
  const house = app("d", {
    drawers: { d: "s t" },
    stacks: { s: "a item", t: "b" },
    modals: { m: "x", ask: "sure" },
    facts: [{ id: "seen", type: "boolean", initial: false, source: "app" }],
    legs: ["go a push item", "up item open m", "guard item:depart open ask"],
  });

  it("is offered where it works, and only there", () => {
    expect(keys(house, "item")).toEqual(["back", "menu", "up", "leave", "set"]);
    expect(keys(house, "x")).toEqual(["close", "back", "leave", "set"]);
    expect(keys(house, "sure")).toContain("proceed");
    expect(keys(app("a", { screens: { a: {} } }), "a")).toEqual(["back", "leave"]);
  });
});

describe("states in which a place is met", () => {
  const deep = app("main", { stacks: { main: "home list item lonely" }, legs: ["a home push list", "b list push item", "short home push item"] });

  it("are nearest to launch first, with the one that somebody stands on before", () => {
    expect(metStates(deep, "item").map(({ state, real }) => [pileOf(state), real])).toEqual([
      [["home", "item"], true],
      [["home", "list", "item"], true],
    ]);
    const there = ["a", "b"].reduce((state, leg) => step(appOf(deep), state, { do: "leg", leg }).state, launch(appOf(deep)));
    expect(pileOf(metStates(deep, "item", there)[0]?.state ?? launch(appOf(deep)))).toEqual(["home", "list", "item"]);
  });

  it("are what a way in would lay down, where nothing leads there", () => {
    const [met] = metStates(deep, "lonely");
    expect(met).toMatchObject({ real: false });
    expect(met && pileOf(met.state)).toEqual(["home", "lonely"]);
  });
});
