import { appOf } from "../insight/app.ts";
import { freshId } from "../model/edits/edit.ts";
import type { NavEvent, Project, Walk } from "../model/schema.ts";
import { planOf } from "../plan/planOf.ts";
import { stateLine } from "../semantics/line.ts";
import { launch, step } from "../semantics/step.ts";
import type { Logged } from "./entry.ts";
import { Follower } from "./follower.ts";
import type { Trail } from "./held.ts";

/** A walk from a log, or why there is none. */
export type KeptWalk = { ok: true; walk: Walk } | { ok: false; why: string };

/**
 * The walk that a run of a log took, up to an entry: from the launch before it to where the run departs from the design, is ended, or
 * the line `to` of the log. Its end is expected to show what it shows.
 */
export function walkFromLog(project: Project, log: Iterable<Logged>, run: string, to = Number.POSITIVE_INFINITY): KeptWalk {
  const follower = new Follower(project, { trails: true });
  let trail: Trail | undefined;
  let met = false;
  for (const { entry, row } of log) {
    if (entry.run !== run) continue;
    if (row > to) break;
    met = true;
    if (follower.take(entry).is === "departs") break;
    trail = follower.trailOf(run);
  }
  if (!met) return { ok: false, why: `the log has no run ${JSON.stringify(run)}${to === Number.POSITIVE_INFINITY ? "" : ` up to line ${to}`}` };
  if (!trail) return { ok: false, why: `run ${JSON.stringify(run)} departs from the design with its first entry` };
  return walkOf(project, trail, run === "" ? "From a log" : `From a log: ${run}`);
}

/** The walk of a trail, if it begins as a walk begins: with a first launch. */
export function walkOf(project: Project, trail: Trail, name: string): KeptWalk {
  const events = sinceLaunch(trail);
  const app = appOf(project);
  let state = launch(app);
  for (const event of events) state = step(app, state, event).state;
  const line = stateLine(planOf(project), state);
  if (line !== stateLine(planOf(project), trail.state))
    return {
      ok: false,
      why: "the run did not begin as a first launch does: facts were stored, it was opened by an address of a screen, or its beginning is not in the log",
    };
  return { ok: true, walk: { id: freshId("log", new Set(project.walks.map(({ id }) => id))), name, events, expect: [{ after: events.length, shows: line }] } };
}

/** What was done since the last launch, without what did nothing. Facts from outside stay what they were. */
function sinceLaunch(trail: Trail): NavEvent[] {
  const events: NavEvent[] = [];
  for (let at: Trail | undefined = trail; at; at = at.before) if (at.event && at.outcome === "moved") events.unshift(at.event);
  return events;
}
