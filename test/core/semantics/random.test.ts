import fc from "fast-check";
import { expect, it } from "vitest";
import { appOf } from "../../../src/core/insight/app.ts";
import { available } from "../../../src/core/insight/available.ts";
import { drawerOf, isPinned } from "../../../src/core/model/lookup.ts";
import { readProject } from "../../../src/core/model/read.ts";
import type { Project } from "../../../src/core/model/schema.ts";
import { writeProject } from "../../../src/core/model/write.ts";
import { planOf } from "../../../src/core/plan/planOf.ts";
import { stateLine } from "../../../src/core/semantics/line.ts";
import { launch, step } from "../../../src/core/semantics/step.ts";
import type { Node, State } from "../../../src/core/semantics/types.ts";
import { amount } from "../../random/amount.ts";
import { allEvents, pick, randomDocument, seeded } from "../../random/documents.ts";

const RUNS = amount(1500, 120);
const seeds = fc.integer({ min: 0, max: 2 ** 31 });

/** A random walk of some events from launch; `each` sees every state with the events it came by. */
function wander(project: Project, seed: number, steps: number, each: (state: State) => void) {
  const random = seeded(seed);
  const events = allEvents(project);
  let state = launch(appOf(project));
  each(state);
  for (let i = 0; i < steps; i++) {
    state = step(appOf(project), state, pick(random, events)).state;
    each(state);
  }
}

function checkNode(project: Project, state: State, node: Node, around: string[]) {
  expect(around).not.toContain(node.at);
  if (node.kind === "shown") return;
  const within = [...around, node.at];
  if (node.kind === "stack") {
    expect(node.items.length).toBeGreaterThan(0);
    for (const item of node.items) checkNode(project, state, item, within);
    return;
  }
  expect(Object.keys(node.lanes)).toContain(node.active);
  expect(node.visited.at(-1)).toBe(node.active);
  expect(new Set(node.visited).size).toBe(node.visited.length);
  if (node.kind === "drawer" && isPinned(drawerOf(project, node.at), state.width)) expect(node.open).toBe(false);
  for (const lane of Object.values(node.lanes)) checkNode(project, state, lane, within);
}

it("no event on any document throws, and every state keeps its invariants", () => {
  fc.assert(
    fc.property(seeds, (seed) => {
      const project = randomDocument(seed, { broken: true, guarded: true, unknown: true });
      wander(project, seed + 1, 30, (state) => {
        checkNode(project, state, state.base, []);
        for (const layer of state.layers) checkNode(project, state, layer.content, []);
        expect(new Set(state.layers.map((layer) => layer.at)).size).toBe(state.layers.length);
        if (state.held) expect(state.layers.length).toBeGreaterThan(state.held.depth);
        expect(Object.keys(state.facts)).toEqual(project.facts.map((fact) => fact.id));
      });
    }),
    { numRuns: RUNS },
  );
});

it("the same event on the same state gives the same, and changes nothing that was there", () => {
  fc.assert(
    fc.property(seeds, (seed) => {
      const project = randomDocument(seed, { broken: true, guarded: true });
      wander(project, seed + 2, 8, (state) => {
        const before = JSON.stringify(state);
        for (const event of allEvents(project)) {
          const [first, second] = [step(appOf(project), state, event), step(appOf(project), state, event)];
          expect(first).toEqual(second);
          if (first.outcome !== "moved") expect(first.state).toBe(state);
        }
        expect(JSON.stringify(state)).toBe(before);
      });
    }),
    { numRuns: RUNS / 5 },
  );
});

it("available lists exactly the events that step does not ignore", () => {
  fc.assert(
    fc.property(seeds, (seed) => {
      const project = randomDocument(seed, { broken: true, guarded: true, unknown: true });
      wander(project, seed + 3, 6, (state) => {
        const listed = new Set(available(project, state).map((event) => JSON.stringify(event)));
        const possible = allEvents(project).filter((event) => step(appOf(project), state, event).outcome !== "ignored");
        expect(listed).toEqual(new Set(possible.map((event) => JSON.stringify(event))));
      });
    }),
    { numRuns: RUNS / 5 },
  );
});

/** Items, lanes and layers of a state, and two more for a drawer that closes first and the step out. */
function sizeOf(state: State): number {
  const size = (node: Node): number => {
    switch (node.kind) {
      case "shown":
        return 0;
      case "stack":
        return node.items.reduce((sum, item) => sum + 1 + size(item), 0);
      case "tabs":
      case "drawer":
        return node.visited.length + 1 + Object.values(node.lanes).reduce((sum, lane) => sum + 1 + size(lane), 0);
    }
  };
  return 2 + size(state.base) + state.layers.reduce((sum, layer) => sum + 1 + size(layer.content), 0);
}

it("where nothing asks first, Back ends in leaving within the number of items and lanes", () => {
  fc.assert(
    fc.property(seeds, (seed) => {
      const project = randomDocument(seed);
      wander(project, seed + 4, 12, (start) => {
        let state = start;
        let left = false;
        // A lane dropped on leaving is made again when Back comes to it, with its tree's own starts.
        const most = sizeOf(state) + 3 * project.containers.length + project.screens.length;
        for (let i = 0; i < most && !left; i++) {
          const result = step(appOf(project), state, { do: "back" });
          left = result.outcome === "left";
          state = result.state;
        }
        expect(left, stateLine(planOf(project), start)).toBe(true);
      });
    }),
    { numRuns: RUNS / 3 },
  );
});

it("a document that was written and read again is the same, and so are its bytes", () => {
  fc.assert(
    fc.property(seeds, (seed) => {
      const project = randomDocument(seed, { broken: true, guarded: true, unknown: true });
      const text = writeProject(project);
      const read = readProject(text);
      expect(read).toEqual({ ok: true, project });
      if (read.ok) expect(writeProject(read.project)).toBe(text);
    }),
    { numRuns: RUNS / 3 },
  );
});
