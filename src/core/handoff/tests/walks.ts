import { appOf } from "../../insight/app.ts";
import { legStart } from "../../model/describe.ts";
import { lookup } from "../../model/lookup.ts";
import { once } from "../../model/once.ts";
import { moveSentence } from "../../model/propose.ts";
import type { Leg, NavEvent, Project } from "../../model/schema.ts";
import { planOf } from "../../plan/planOf.ts";
import { stateLine } from "../../semantics/line.ts";
import { launch, step } from "../../semantics/step.ts";
import { coveringWalks } from "./cover.ts";

/** A walk with what each step shows, as the engine has it. */
export interface TestWalk {
  name: string;
  /** The leg that it is there to show; a walk of the document shows none in particular. */
  leg?: string;
  /** State line after the launch. */
  starts: string;
  steps: Array<{ event: NavEvent; shows: string }>;
  /** Lines that the document itself expects, after so many events. */
  expect?: Array<{ after: number; shows: string }>;
}

interface TestWalks {
  walks: TestWalk[];
  unused: string[];
}
/** A walk for each leg, then the document's own, each replayed for what it shows. */
export function testWalks(project: Project): TestWalks {
  return once(project, makeWalks);
}

function makeWalks(project: Project): TestWalks {
  const cover = coveringWalks(project);
  const covering = cover.walks.map(({ leg, events }) => ({ ...replayed(project, nameOfLeg(project, lookup(project).legs.get(leg)), events), leg }));
  const kept = project.walks.map(({ id, name, events, expect }) => ({ ...replayed(project, name || id, events), ...(expect ? { expect } : {}) }));
  return { walks: [...covering, ...kept], unused: cover.unused };
}

/** What a leg does, as the name of its scenario: `"Inspect" on "Hive": Opens …`. */
function nameOfLeg(project: Project, leg: Leg | undefined): string {
  if (!leg) return "";
  const does = leg.move ? moveSentence(project, leg.from, leg.move) : "Sets facts.";
  return `${legStart(project, leg)}${leg.when === undefined ? "" : ` if ${leg.when}`}: ${does}`;
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

/** The walks as JSON: `{project, unused, walks}`; events are those that `etape step` takes. */
export function walksJson(project: Project): string {
  const { walks, unused } = testWalks(project);
  return `${JSON.stringify({ project: project.name, unused, walks }, null, 2)}\n`;
}
