import { describe, expect, it } from "vitest";
import { builtApp } from "../../../bench/apps.ts";
import { appOf } from "../../../src/core/insight/app.ts";
import { candidateEvents } from "../../../src/core/insight/available.ts";
import { reachGraph, tapsFrom, tapsTo } from "../../../src/core/insight/reach.ts";
import { walkedBy } from "../../../src/core/insight/walked.ts";
import { lookup } from "../../../src/core/model/lookup.ts";
import type { Project } from "../../../src/core/model/schema.ts";
import { planOf } from "../../../src/core/plan/planOf.ts";
import { stateLine } from "../../../src/core/semantics/line.ts";
import { currentScreen } from "../../../src/core/semantics/state.ts";
import { launch, step } from "../../../src/core/semantics/step.ts";
import { amount } from "../../random/amount.ts";
import { randomDocument } from "../../random/documents.ts";
import { app } from "../../vectors/app.ts";

/** The fewest taps to each screen by trying everything, state by state, however much alike; undefined where there are too many. */
function plainTaps(project: Project, most: number): Map<string, number> | undefined {
  const out = new Map<string, number>();
  const key = (state: ReturnType<typeof launch>) =>
    `${stateLine(planOf(project), state)} ${JSON.stringify(state.facts)} ${JSON.stringify(currentScreen(state).args)}`;
  let wave = [launch(appOf(project))];
  const seen = new Set(wave.map(key));
  for (let taps = 0; wave.length > 0; taps++) {
    const later: typeof wave = [];
    for (const state of wave) {
      const at = currentScreen(state).at;
      if (!out.has(at)) out.set(at, taps);
      for (const event of candidateEvents(project, state)) {
        if (event.do === "enter" || event.do === "launch" || event.do === "fact" || event.do === "width") continue;
        const result = step(appOf(project), state, event);
        if (result.outcome !== "moved" || seen.has(key(result.state))) continue;
        if (seen.size >= most) return undefined;
        seen.add(key(result.state));
        const free = event.do === "leg" && lookup(project).legs.get(event.leg)?.on.kind === "after";
        (free ? wave : later).push(result.state);
      }
    }
    wave = later;
  }
  return out;
}

const project = app("t", {
  tabs: { t: "s u" },
  stacks: { s: "a b c", u: "x y" },
  modals: { m: "q" },
  screens: { z: {} },
  legs: ["ab a push b", "bc b push c", "xy x push y", "q c open m", "close q close m"],
});

describe("reach", () => {
  const graph = reachGraph(project);
  it("is the fewest taps from a launch, from a tab, and back to a screen", () => {
    expect(Object.fromEntries(tapsFrom(project, graph))).toEqual({ a: 0, b: 1, x: 1, c: 2, y: 2, q: 3 });
    expect(Object.fromEntries(tapsFrom(project, graph, "u"))).toEqual({ x: 0, y: 1, a: 1, b: 2, c: 3, q: 4 });
    // From y: the tab s. From c: the tab s again, which goes to its root; from q: close first.
    expect(Object.fromEntries(tapsTo(graph, "a"))).toEqual({ a: 0, b: 1, x: 1, c: 1, y: 1, q: 2 });
    expect(tapsFrom(project, graph).has("z")).toBe(false);
  });

  it("does not count time that passes", () => {
    const timed = app("s", { stacks: { s: "a b c" }, legs: ["later a:after(800) push b", "on b push c"] });
    expect(Object.fromEntries(tapsFrom(timed, reachGraph(timed)))).toEqual({ a: 0, b: 0, c: 1 });
  });

  it("agrees with trying everything on random documents, where that ends", () => {
    let [compared, screens, other, ended] = [0, 0, 0, 0];
    for (let seed = 0; seed < amount(250, 25); seed++) {
      const random = randomDocument(seed, { guarded: seed % 3 === 0, screens: 6, containers: 3, legs: 9 });
      const plain = plainTaps(random, 1_500);
      if (!plain) {
        ended += 1;
        continue;
      }
      compared += 1;
      const found = tapsFrom(random, reachGraph(random));
      for (const [screen, taps] of plain) {
        screens += 1;
        // What is found is never nearer than it is.
        expect(found.get(screen) ?? Infinity, `${screen} of seed ${seed}`).toBeGreaterThanOrEqual(taps);
        if (found.get(screen) !== taps) other += 1;
      }
    }
    expect(compared).toBeGreaterThan(1.5 * ended);
    expect(other / screens).toBeLessThan(0.01);
  });

  it("follows an app as people build it to the last screen", () => {
    const built = builtApp(120);
    expect(tapsFrom(built, reachGraph(built)).size).toBe(built.screens.length);
  });
});

describe("what walks come by", () => {
  it("counts each walk once for a place and a leg, containers too", () => {
    const { places, legs } = walkedBy(project, [
      { events: [{ do: "leg", leg: "ab" }, { do: "back" }, { do: "leg", leg: "ab" }] },
      { events: [{ do: "tab", to: "u" }] },
    ]);
    expect(Object.fromEntries(places)).toEqual({ t: 2, s: 2, a: 2, b: 1, u: 1, x: 1 });
    expect(Object.fromEntries(legs)).toEqual({ ab: 1 });
  });
});
