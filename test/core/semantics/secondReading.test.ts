import { describe, expect, it } from "vitest";
import { appOf } from "../../../src/core/insight/app.ts";
import type { NavEvent, Project } from "../../../src/core/model/schema.ts";
import { launch, step } from "../../../src/core/semantics/step.ts";
import type { Node, State } from "../../../src/core/semantics/types.ts";
import { SecondReading, type Tree, type World } from "../../oracle/engine.ts";
import { amount } from "../../random/amount.ts";
import { allEvents, randomDocument } from "../../random/documents.ts";
import { randomWalk, wholeDocument, wholeEvents } from "../../random/whole.ts";
import { VECTORS } from "../../vectors/all.ts";
import { eventOf } from "../../vectors/vector.ts";

const FROM = Number(process.env.SECOND_FROM ?? 0);
const DOCUMENTS = Number(process.env.SECOND_DOCUMENTS ?? amount(4000, 300));
/** Events of each walk. */
const LENGTH = 60;

/** All of a node but which object it is. */
function told(node: Node | Tree): unknown {
  if (node.kind === "shown") return { at: node.at, args: sorted(node.args), spent: [...(node.spent ?? [])].sort() };
  if (node.kind === "stack") return { at: node.at, items: node.items.map(told) };
  const lanes = sorted(Object.fromEntries(Object.entries(node.lanes).map(([id, lane]) => [id, told(lane)])));
  return { at: node.at, active: node.active, lanes, visited: node.visited, open: node.kind === "drawer" && node.open };
}
const sorted = (of: object) => Object.fromEntries(Object.entries(of).sort(([a], [b]) => (a < b ? -1 : 1)));
const whole = ({ base, layers, facts, width, waiting, held }: State | World) =>
  JSON.stringify({
    base: told(base),
    layers: layers.map(({ at, content }) => [at, told(content)]),
    facts: sorted(facts),
    width,
    ...(waiting ? { waiting: [waiting.entrance, sorted(waiting.args)] } : {}),
    ...(held ? { held: [held.event, held.depth] } : {}),
  });

/** The first event to which the two come differently, and how many were compared. */
function difference(project: Project, events: readonly NavEvent[]): { steps: number; differ?: string } {
  const app = appOf(project);
  const second = new SecondReading(project);
  let state = launch(app);
  let world: World = second.launch();
  if (whole(state) !== whole(world)) return { steps: 0, differ: `launch: ${whole(state)} and ${whole(world)}` };
  for (const [i, event] of events.entries()) {
    const one = step(app, state, event);
    const other = second.step(world, event);
    // The rules do not say why a lead is ignored that an open drawer is in the way of.
    const why = (of: string | undefined) => (event.do === "lead" && one.outcome === "ignored" ? "" : (of ?? ""));
    const [a, b] = [`${one.outcome} ${why("why" in one ? one.why : undefined)} ${whole(one.state)}`, `${other.is} ${why(other.why)} ${whole(other.world)}`];
    if (a !== b) return { steps: i, differ: `event ${i}, ${JSON.stringify(event)}, in ${whole(state)}:\nengine ${a}\nsecond ${b}` };
    state = one.state;
    world = other.world;
  }
  return { steps: events.length };
}

describe("the engine and a second reading of its rules", () => {
  it(`come to the same at each event of random walks through ${DOCUMENTS} documents`, () => {
    let steps = 0;
    const differ: string[] = [];
    for (let seed = FROM; seed < FROM + DOCUMENTS; seed++) {
      const project = seed % 2 === 0 ? wholeDocument(seed) : randomDocument(seed, { guarded: true, unknown: seed % 3 === 0, screens: 6, legs: 12 });
      const events = randomWalk(project, seed % 2 === 0 ? wholeEvents(project) : allEvents(project), seed, LENGTH);
      const compared = difference(project, events);
      steps += compared.steps;
      if (compared.differ !== undefined) differ.push(`seed ${seed}: ${compared.differ}`);
    }
    expect(differ).toEqual([]);
    expect(steps).toBe(DOCUMENTS * LENGTH);
  });

  it("come to the same in every vector", () => {
    for (const { says, app, steps } of Object.values(VECTORS).flat())
      expect(
        difference(
          app,
          steps.map(([event]) => eventOf(event)),
        ).differ,
        says,
      ).toBeUndefined();
  });
});
