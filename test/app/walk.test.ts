import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { createWalk, stateOfWalk } from "../../src/app/session/walk.ts";
import { appOf } from "../../src/core/insight/app.ts";
import type { NavEvent } from "../../src/core/model/schema.ts";
import { stateLine } from "../../src/core/semantics/line.ts";
import { app } from "../vectors/app.ts";

const project = app("s", { stacks: { s: "home tea order" }, legs: ["tea home push tea", "order tea push order"] });
const tap = (leg: string): NavEvent => ({ do: "leg", leg });

/** A walk of a project, and what it shows: the line of its state, the steps, and how many of them are done. */
function walking(of = project) {
  const walk = createWalk();
  walk.getState().follow(of);
  const shows = () => {
    const state = stateOfWalk(walk.getState());
    return state && stateLine(appOf(walk.getState().project ?? of).plan, state);
  };
  const places = () => [walk.getState().at, walk.getState().steps.length];
  return { walk, shows, places, say: walk.getState() };
}

describe("the walk beside the map", () => {
  it("takes steps, and says why one does nothing without keeping it", () => {
    const { say, shows, places } = walking();
    expect(shows()).toBe("s[home]");
    expect(say.send(tap("tea"))).toMatchObject({ outcome: "moved", sentence: "" });
    const ignored = say.send(tap("tea"));
    expect(ignored?.outcome).toBe("ignored");
    expect(ignored?.sentence).not.toBe("");
    expect([shows(), ...places()]).toEqual(["s[home,tea]", 1, 1]);
    expect(createWalk().getState().send(tap("tea"))).toBeUndefined();
  });

  it("begins nowhere as long as there is no project", () => {
    const { getState } = createWalk();
    getState().beginAt("tea", {});
    expect([getState().begun, getState().start]).toEqual([undefined, undefined]);
  });

  it("goes to any of its steps and no further, and a new step there replaces those that came after", () => {
    const { say, shows, places } = walking();
    say.send(tap("tea"));
    say.send(tap("order"));
    say.goTo(1);
    expect([shows(), ...places()]).toEqual(["s[home,tea]", 1, 2]);
    say.goTo(-3);
    expect([shows(), ...places()]).toEqual(["s[home]", 0, 2]);
    say.goTo(9);
    expect([shows(), ...places()]).toEqual(["s[home,tea,order]", 2, 2]);
    say.goTo(1);
    say.send({ do: "back" });
    expect([shows(), ...places()]).toEqual(["s[home]", 2, 2]);
  });

  it("is replayed when the project changes, and is left alone when it does not", () => {
    const { walk, say, shows, places } = walking();
    say.load([tap("tea"), tap("order")], { reason: "Nobody gets out" });
    expect(walk.getState().reason).toBe("Nobody gets out");
    const { steps } = walk.getState();
    say.follow(project);
    expect(walk.getState().steps).toBe(steps);
    expect(walk.getState().reason).toBe("Nobody gets out");
    say.follow({ ...project, legs: project.legs.filter(({ id }) => id !== "order") });
    expect([shows(), ...places(), walk.getState().reason]).toEqual(["s[home,tea]", 2, 2, undefined]);
    expect(walk.getState().steps[1]?.outcome).toBe("ignored");
  });

  it("starts over at launch, or on a screen as a way in shows it", () => {
    const { walk, say, shows, places } = walking();
    say.beginAt("order", {});
    expect([shows(), ...places()]).toEqual(["s[home,order]", 0, 0]);
    say.send({ do: "back" });
    say.follow({ ...project });
    expect([shows(), ...places()]).toEqual(["s[home]", 1, 1]);
    expect(walk.getState().begun?.screen).toBe("order");
    say.restart();
    expect([shows(), ...places(), walk.getState().begun]).toEqual(["s[home]", 0, 0, undefined]);
  });

  it("loads a recorded walk at one of its steps, or at its end, and shows steps that were made elsewhere", () => {
    const { walk, say, shows, places } = walking();
    say.load([tap("tea"), tap("order")], { at: 1, kept: "Buying tea" });
    expect([shows(), ...places(), walk.getState().kept]).toEqual(["s[home,tea]", 1, 2, "Buying tea"]);
    const { start, steps } = walk.getState();
    say.restart();
    if (start) say.show(start, steps, "As the log says");
    expect([shows(), ...places(), walk.getState().reason, walk.getState().kept]).toEqual(["s[home,tea,order]", 2, 2, "As the log says", undefined]);
    say.send({ do: "back" });
    expect(walk.getState().reason).toBeUndefined();
  });

  it("lets time pass while a person walks, not while a recorded walk is looked at, and never while it is held", () => {
    const { walk, say } = walking();
    const time = () => walk.getState().time;
    expect(time()).toBe("passes");
    say.load([tap("tea")]);
    expect(time()).toBe("paused");
    say.send(tap("order"));
    expect(time()).toBe("passes");
    say.goTo(0);
    expect(time()).toBe("paused");
    say.hold(true);
    for (const act of [() => say.send(tap("tea")), () => say.goTo(0), () => say.restart(), () => say.load([])]) {
      act();
      expect(time()).toBe("held");
    }
    say.hold(false);
    expect(time()).toBe("passes");
  });
});

describe("playing", () => {
  beforeEach(() => void vi.useFakeTimers());
  afterEach(() => void vi.useRealTimers());

  it("does the last thing that was asked for, unless it is stopped", () => {
    const { say } = walking();
    const done: string[] = [];
    say.later(100, () => done.push("first"));
    say.later(200, () => done.push("second"));
    vi.advanceTimersByTime(150);
    expect(done).toEqual([]);
    vi.advanceTimersByTime(50);
    expect(done).toEqual(["second"]);
    say.later(100, () => done.push("third"));
    say.stopPlaying();
    vi.advanceTimersByTime(500);
    expect(done).toEqual(["second"]);
  });

  it("keeps how fast it goes, and whether motions are slow", () => {
    const { walk, say } = walking();
    say.setSpeed("quickly");
    say.setSlow(true);
    expect([walk.getState().speed, walk.getState().slow]).toEqual(["quickly", true]);
  });
});
