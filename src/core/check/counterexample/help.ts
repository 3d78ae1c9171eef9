import { appOf } from "../../insight/app.ts";
import { candidateEvents } from "../../insight/available.ts";
import type { NavEvent, Project } from "../../model/schema.ts";
import { planOf } from "../../plan/planOf.ts";
import { stateLine } from "../../semantics/line.ts";
import { launch, step } from "../../semantics/step.ts";
import type { State } from "../../semantics/types.ts";

/** Where somebody is said to be stuck. */
export interface Stuck {
  start: State;
  line: string;
  project: Project;
  subjects: readonly string[];
  hubs: ReadonlySet<string>;
}

/** What would prove a finding wrong that says that nothing helps: a way by which something is reached. */
export interface Help {
  /** The system's Back counts as a way. */
  back: boolean;
  /** Whether a state is out of where the person was stuck. */
  out: (state: State, from: Stuck) => boolean;
}

/** Anything else than what is shown there. */
export const elsewhere: Help["out"] = (state, { line, project }) => stateLine(planOf(project), state) !== line;

/** States that a way out is looked for in. */
const MOST = 300;

/**
 * Whether, at the end of a walk of a finding that says that nothing helps, something helps after all: a plain search
 * through `step` on the document itself. So a walk that ends where only some of the states are stuck
 * which the analysis took for one is not given as evidence.
 */
export function helpsAfterAll(
  project: Project,
  help: Help,
  stuck: { subjects: readonly string[]; hubs: ReadonlySet<string> },
  walk: readonly NavEvent[],
): boolean {
  const start = walk.reduce((state, event) => step(appOf(project), state, event).state, launch(appOf(project)));
  const from = { start, line: stateLine(planOf(project), start), project, ...stuck };
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
