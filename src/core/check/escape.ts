import { appOf } from "../insight/app.ts";
import { candidateEvents } from "../insight/available.ts";
import type { NavEvent, Project } from "../model/schema.ts";
import { planOf } from "../plan/planOf.ts";
import { stateLine } from "../semantics/line.ts";
import { currentScreen } from "../semantics/state.ts";
import { launch, step } from "../semantics/step.ts";
import type { State } from "../semantics/types.ts";
import type { Exploration } from "./system/exploration.ts";
import { hubsOf } from "./graph.ts";

/** What would prove a finding wrong that says that nothing helps: a way by which something is reached. */
export interface Help {
  /** The system's Back counts as a way. */
  back: boolean;
  /** Whether a state is out of where the person was stuck. */
  out: (state: State, from: { start: State; line: string; project: Project; subjects: readonly string[]; hubs: ReadonlySet<string> }) => boolean;
}

const elsewhere: Help["out"] = (state, { line, project }) => stateLine(planOf(project), state) !== line;

/** By code what would help. */
export const HELPS: Record<string, Help> = {
  "dead-end": { back: true, out: elsewhere },
  "back-only": { back: false, out: elsewhere },
  trap: { back: true, out: (state, { hubs }) => hubs.has(currentScreen(state).at) },
  "stuck-modal": { back: true, out: (state, { subjects }) => !state.layers.some((layer) => layer.at === subjects[0]) },
};

/** States that a way out is looked for in. */
const MOST = 300;

/**
 * Whether, at the end of a walk of a finding that says that nothing helps, something helps after all: a plain search
 * through `step` on the document itself. So a walk that ends where only some of the states are stuck
 * which the analysis took for one is not given as evidence.
 */
export function helpsAfterAll(exploration: Exploration, code: string, subjects: readonly string[], walk: readonly NavEvent[]): boolean {
  const help = HELPS[code];
  if (!help) return false;
  const project = exploration.abstraction.original;
  const start = walk.reduce((state, event) => step(appOf(project), state, event).state, launch(appOf(project)));
  const from = { start, line: stateLine(planOf(project), start), project, subjects, hubs: hubsOf(project, exploration) };
  const seen = new Set([JSON.stringify(start)]);
  const queue = [start];
  for (let state = queue.shift(); state && seen.size < MOST; state = queue.shift())
    for (const event of candidateEvents(project, state)) {
      if (event.do === "launch" || event.do === "enter" || event.do === "width" || (event.do === "back" && !help.back)) continue;
      const next = step(appOf(project), state, event);
      if (next.outcome !== "moved") continue;
      if (help.out(next.state, from)) return true;
      const key = JSON.stringify(next.state);
      if (seen.has(key)) continue;
      seen.add(key);
      queue.push(next.state);
    }
  return false;
}
