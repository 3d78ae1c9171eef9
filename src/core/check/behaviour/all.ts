import { currentScreen } from "../../semantics/state.ts";
import type { Severity } from "../finding.ts";
import { type Candidate, type Graph, oncePlaces } from "../graph.ts";
import type { LastStep } from "../witness.ts";
import { idleLead, silent } from "./controls.ts";
import { piledCopies, redirectLoop, refusedMove, returnsToFinished } from "./legs.ts";
import { leavesBySurprise, unreachable } from "./reached.ts";
import { backOnly, deadEnd, stuckModal, trap } from "./stuck.ts";

export interface BehaviourCode {
  code: string;
  severity: Severity;
  find: (graph: Graph) => Candidate[];
  /** Whether the last step of a walk shows it. */
  shows?: (candidate: Candidate, step: LastStep) => boolean;
}

/** The findings about behaviour, in the order in which they are listed. */
export const BEHAVIOUR: readonly BehaviourCode[] = [
  { code: "dead-end", severity: "blocker", find: deadEnd },
  { code: "stuck-modal", severity: "blocker", find: stuckModal },
  { code: "trap", severity: "blocker", find: trap },
  { code: "unreachable", severity: "blocker", find: unreachable },
  { code: "redirect-loop", severity: "blocker", find: redirectLoop, shows: (_, { result }) => result.outcome === "refused" && result.why === "redirect-loop" },
  {
    code: "refused-move",
    severity: "blocker",
    find: refusedMove,
    shows: ({ subjects }, { result }) => result.log.refused.some(({ leg }) => leg === subjects[0]),
  },
  { code: "back-only", severity: "warning", find: backOnly },
  {
    code: "piled-copies",
    severity: "warning",
    find: piledCopies,
    shows: ({ subjects }, { result }) => result.log.copied.some(({ leg, place }) => leg === subjects[0] && place === subjects[1]),
  },
  {
    code: "returns-to-finished",
    severity: "warning",
    find: returnsToFinished,
    shows: ({ subjects }, { result, project }) => result.outcome === "moved" && oncePlaces(project, currentScreen(result.state).at).includes(subjects[0] ?? ""),
  },
  {
    code: "leaves-by-surprise",
    severity: "warning",
    find: (graph) => leavesBySurprise(graph, (screen) => oncePlaces(graph.project, screen).length > 0),
    shows: (_, { result }) => result.outcome === "left",
  },
  { code: "silent", severity: "warning", find: silent },
  { code: "idle-lead", severity: "warning", find: idleLead },
];
