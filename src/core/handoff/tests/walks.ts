import { appOf } from "../../insight/app.ts";
import { once } from "../../model/once.ts";
import type { NavEvent, Project } from "../../model/schema.ts";
import { planOf } from "../../plan/planOf.ts";
import { stateLine } from "../../semantics/line.ts";
import { launch, step } from "../../semantics/step.ts";
import { coveringWalks } from "./cover.ts";

/** A walk with what each step shows, as the engine has it. */
export interface TestWalk {
  name: string;
  /** State line after the launch. */
  starts: string;
  steps: Array<{ event: NavEvent; shows: string }>;
}

interface TestWalks {
  walks: TestWalk[];
  unused: string[];
}
/** The walks that use every leg, then the document's own, each replayed for what it shows. */
export function testWalks(project: Project): TestWalks {
  return once(project, makeWalks);
}

function makeWalks(project: Project): TestWalks {
  const cover = coveringWalks(project);
  const covering = cover.walks.map((events, i) => replayed(project, `Every leg, part ${i + 1} of ${cover.walks.length}`, events));
  return { walks: [...covering, ...project.walks.map((walk) => replayed(project, walk.name || walk.id, walk.events))], unused: cover.unused };
}

function replayed(project: Project, name: string, events: readonly NavEvent[]): TestWalk {
  let state = launch(appOf(project));
  const starts = stateLine(planOf(project), state);
  const steps = events.map((event) => {
    state = step(appOf(project), state, event).state;
    return { event, shows: stateLine(planOf(project), state) };
  });
  return { name, starts, steps };
}

/** The walks as JSON: `{made, launches, fewest, unused, walks}`; events are those that `etape step` takes. */
export function walksJson(project: Project): string {
  const { walks, unused } = testWalks(project);
  const launches = walks.length - project.walks.length;
  return `${JSON.stringify({ project: project.name, launches, fewest: launches === 0 ? 0 : 1, unused, walks }, null, 2)}\n`;
}
