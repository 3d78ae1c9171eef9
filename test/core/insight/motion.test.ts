import { describe, expect, it } from "vitest";
import { appOf } from "../../../src/core/insight/app.ts";
import { motionOf, type Step } from "../../../src/core/insight/motion.ts";
import { runWalk, walkTrouble } from "../../../src/core/insight/walks.ts";
import type { Project } from "../../../src/core/model/schema.ts";
import { launch, step } from "../../../src/core/semantics/step.ts";
import type { State } from "../../../src/core/semantics/types.ts";
import { app } from "../../vectors/app.ts";
import { eventOf } from "../../vectors/vector.ts";

/** What is seen of the last of some events. */
function seenAfter(project: Project, events: string[]) {
  let state: State = launch(appOf(project));
  const steps: Step[] = events.map((short) => {
    const before = state;
    const event = eventOf(short);
    state = step(appOf(project), state, event).state;
    return { event, before, after: state };
  });
  const last = steps.pop() as Step;
  const seen = motionOf(project, last, steps);
  return seen && `${seen.subject} ${seen.branch} ${seen.kind} ${seen.from} ${seen.reverse ? "back" : "on"}`;
}

describe("what a user sees moving", () => {
  const plain = app("t", {
    tabs: { t: "s u" },
    stacks: { s: "a b", u: "x" },
    modals: { m: "y", d: ["z", { edge: "center" }] },
    screens: { b: { params: [{ name: "id", type: "text", required: false }] } },
    legs: ["go a push b", "swap a replace b", "up a open m", "ask a open d", "next b push b pass.id='2'"],
  });

  it.each([
    [["go"], "page 0 slide end on"],
    [["go", "next"], "page 0 slide end on"],
    [["go", "go"], undefined],
    [["go", "back"], "page 0 slide end back"],
    [["go", "lead"], "page 0 slide end back"],
    [["swap"], "page 0 fade end on"],
    [["tab u"], "page 0 fade end on"],
    [["up"], "layer 1 rise bottom on"],
    [["up", "back"], "layer 1 rise bottom back"],
    [["ask"], "layer 1 grow end on"],
  ])("%s: %s", (events, seen) => {
    expect(seenAfter(plain, events)).toBe(seen);
  });

  it("a leg's own motion is shown, and played backwards on the way back with what it carries", () => {
    const project = {
      ...plain,
      legs: plain.legs.map((leg) => (leg.id === "go" ? { ...leg, motion: { kind: "grow" as const, carries: [{ from: "go", to: "photo" }] } } : leg)),
    };
    expect(seenAfter(project, ["go"])).toBe("page 0 grow end on");
    expect(seenAfter(project, ["go", "back"])).toBe("page 0 grow end back");
  });

  it("motion none shows nothing, as does what changes no place", () => {
    const project = { ...plain, legs: plain.legs.map((leg) => ({ ...leg, motion: { kind: "none" as const } })) };
    expect(seenAfter(project, ["go"])).toBeUndefined();
    expect(seenAfter(plain, ["width wide"])).toBeUndefined();
  });
});

describe("walks that are kept", () => {
  const project = app("s", { stacks: { s: "a b" }, legs: ["go a push b"] });
  const walk = { id: "w", name: "w", events: [eventOf("go"), eventOf("back")] };

  it("pass where each event moves and what is expected shows", () => {
    const result = runWalk(project, {
      ...walk,
      expect: [
        { after: 0, shows: "s[a]" },
        { after: 1, shows: "s[a,b]" },
        { after: 2, shows: "s[a]" },
      ],
    });
    expect(result).toMatchObject({ passed: true, lines: ["s[a]", "s[a,b]", "s[a]"], failed: [] });
    expect(walkTrouble(result)).toBe("");
  });

  it("name the step at which they break", () => {
    const result = runWalk({ ...project, legs: [] }, walk);
    expect(result.broken).toEqual({ step: 1, why: 'There is no leg "go".' });
    expect(walkTrouble(result)).toMatch(/step 1/);
  });

  it("name what is shown instead of what was expected", () => {
    const result = runWalk(project, { ...walk, expect: [{ after: 1, shows: "s[b]" }] });
    expect(result.failed).toEqual([{ after: 1, expected: "s[b]", shows: "s[a,b]" }]);
    expect(walkTrouble(result)).toBe("After 1 event it shows s[a,b], not s[b].");
  });
});
