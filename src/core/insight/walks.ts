import type { Project, Walk } from "../model/schema.ts";
import { planOf } from "../plan/planOf.ts";
import { stateLine } from "../semantics/line.ts";
import { launch, step } from "../semantics/step.ts";
import { appOf } from "./app.ts";
import { explain } from "./explain.ts";

/** What a walk comes to when it is replayed. */
export interface WalkResult {
  id: string;
  name: string;
  passed: boolean;
  /** The state line after each event; the first is that of the launch. */
  lines: string[];
  /** The first event that no longer does anything, counted from 1, and why. */
  broken?: { step: number; why: string };
  /** Expectations that do not hold: after so many events, what was expected and what is shown. */
  failed: Array<{ after: number; expected: string; shows: string }>;
}

/** Replays a walk from launch. It breaks at the first event that is ignored or refused; what comes after is still tried. */
export function runWalk(project: Project, walk: Walk): WalkResult {
  let state = launch(appOf(project));
  const lines = [stateLine(planOf(project), state)];
  let broken: WalkResult["broken"];
  walk.events.forEach((event, i) => {
    const result = step(appOf(project), state, event);
    if (!broken && (result.outcome === "ignored" || result.outcome === "refused")) broken = { step: i + 1, why: explain(project, state, event, result) };
    state = result.state;
    lines.push(stateLine(planOf(project), state));
  });
  const failed = (walk.expect ?? []).flatMap(({ after, shows }) =>
    lines[after] === shows ? [] : [{ after, expected: shows, shows: lines[after] ?? "the walk is not as long" }],
  );
  return { id: walk.id, name: walk.name, passed: !broken && failed.length === 0, lines, ...(broken ? { broken } : {}), failed };
}

/** Why a walk does not pass, as a sentence; empty where it does. */
export function walkTrouble(result: WalkResult): string {
  if (result.broken) return `It breaks at step ${result.broken.step}: ${result.broken.why}`;
  const first = result.failed[0];
  return first ? `After ${first.after} ${first.after === 1 ? "event" : "events"} it shows ${first.shows}, not ${first.expected}.` : "";
}
