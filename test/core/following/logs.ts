/** Logs as an app that follows its design writes them. */

import type { Entry } from "../../../src/core/following/entry.ts";
import type { NavEvent, Project } from "../../../src/core/model/schema.ts";
import { planFrom } from "../../../src/core/plan/plan.ts";
import { planData } from "../../../src/core/plan/planOf.ts";
import { plainApp } from "../../../src/core/semantics/app.ts";
import { stateLine } from "../../../src/core/semantics/line.ts";
import { currentScreen } from "../../../src/core/semantics/state.ts";
import { launch, step } from "../../../src/core/semantics/step.ts";
import type { State } from "../../../src/core/semantics/types.ts";

/** How much a log tells. */
export type Telling = "everything" | "events" | "events and screens" | "screens and arguments" | "screens";

/** The log of a walk, and the states that it went through. */
export function logOf(project: Project, events: readonly NavEvent[], telling: Telling, run = "r"): { log: Entry[]; states: State[] } {
  const app = plainApp(planFrom(planData(project)));
  let state = launch(app);
  const states = [state];
  const log = [entryOf(project, { do: "launch" }, state, telling, run, true)];
  for (const event of events) {
    const before = state;
    const result = step(app, state, event);
    state = result.state;
    // An app without that control has nothing to tell of it.
    if (telling === "events" && result.outcome === "ignored") continue;
    if (telling.startsWith("screens") && state === before) continue;
    states.push(state);
    log.push(entryOf(project, event, state, telling, run, event.do === "launch"));
  }
  return { log, states };
}

function entryOf(project: Project, event: NavEvent, state: State, telling: Telling, run: string, launched: boolean): Entry {
  const app = plainApp(planFrom(planData(project)));
  const { at: shows, args } = currentScreen(state);
  switch (telling) {
    case "everything":
      return { run, event, shows, args, line: stateLine(app.plan, state), ...(launched ? { facts: state.facts } : {}) };
    case "events":
      return { run, event };
    case "events and screens":
      return { run, event, shows };
    case "screens and arguments":
      return { run, shows, args };
    case "screens":
      return { run, shows };
  }
}
