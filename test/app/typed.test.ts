import { describe, expect, it } from "vitest";
import { keepTyped, type Typed, typedOn, typeInto } from "../../src/app/features/walk/typed.ts";
import { appOf } from "../../src/core/insight/app.ts";
import type { NavEvent, Project } from "../../src/core/model/schema.ts";
import { launch, step } from "../../src/core/semantics/step.ts";
import type { State } from "../../src/core/semantics/types.ts";
import { app } from "../vectors/app.ts";

/** A stack of two forms whose fields share an id, and a header field on the stack itself. */
const name = { id: "name", kind: "field", label: "Name" };
const project: Project = app("main", {
  stacks: { main: ["one two", { elements: [{ id: "search", kind: "field", label: "Search" }] }] },
  screens: { one: { elements: [name] }, two: { elements: [name] } },
  facts: [{ id: "marked", type: "boolean", initial: false, source: "app" }],
  legs: ["mark one set set.marked=true", "on one push two", "again one replace one"],
});

function next(state: State, typed: Typed, event: NavEvent): { state: State; typed: Typed } {
  const moved = step(appOf(project), state, event).state;
  return { state: moved, typed: keepTyped(typed, state, moved) };
}
const start = launch(appOf(project));
const written = typeInto({}, start, { branch: 0, place: "one" }, "name", "Ada");

describe("what is typed on the device", () => {
  it("belongs to the screen on which it was typed, though another has a field of the same id", () => {
    const there = next(start, written, { do: "leg", leg: "on" });
    expect(typedOn(written, start, 0)).toEqual({ name: "Ada" });
    expect(typedOn(there.typed, there.state, 0)).toEqual({});
  });

  it("is still there when one comes back, and after a leg that only sets", () => {
    const there = next(start, written, { do: "leg", leg: "on" });
    const back = next(there.state, there.typed, { do: "back" });
    expect(typedOn(back.typed, back.state, 0)).toEqual({ name: "Ada" });
    const marked = next(start, written, { do: "leg", leg: "mark" });
    expect(typedOn(marked.typed, marked.state, 0)).toEqual({ name: "Ada" });
  });

  it("goes with its screen, also where the same screen is made again in its place", () => {
    const again = next(start, written, { do: "leg", leg: "again" });
    expect(again.state.base).not.toBe(start.base);
    expect(typedOn(again.typed, again.state, 0)).toEqual({});
    const there = next(start, {}, { do: "leg", leg: "on" });
    const typed = typeInto(there.typed, there.state, { branch: 0, place: "two" }, "name", "Bea");
    const back = next(there.state, typed, { do: "back" });
    expect(back.typed).toEqual({});
  });

  it("into a container's field is there on every screen in it", () => {
    const typed = typeInto(written, start, { branch: 0, place: "main" }, "search", "moss");
    const there = next(start, typed, { do: "leg", leg: "on" });
    expect(typedOn(typed, start, 0)).toEqual({ name: "Ada", search: "moss" });
    expect(typedOn(there.typed, there.state, 0)).toEqual({ search: "moss" });
  });
});
