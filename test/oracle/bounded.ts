/**
 * The plain reference where stacks have no end: every state one by one as far as stacks are no deeper than a bound. What lies
 * beyond may help anybody, so whoever is lost here is lost for certain. Written apart from the checker; it shares with it only
 * the engine.
 */

import { appOf } from "../../src/core/insight/app.ts";
import type { NavEvent, Project, Width } from "../../src/core/model/schema.ts";
import { planOf } from "../../src/core/plan/planOf.ts";
import { stateLine } from "../../src/core/semantics/line.ts";
import { currentScreen } from "../../src/core/semantics/state.ts";
import { arrive, beginning, step } from "../../src/core/semantics/step.ts";
import type { State } from "../../src/core/semantics/types.ts";
import { allEvents } from "../random/documents.ts";
import { depth, hubsOf } from "./oracle.ts";

interface Seen {
  state: State;
  screen: string;
  line: string;
  /** States from which a step of the user's leads here. */
  before: string[];
  after: string[];
  beyond: boolean;
}
export interface Lost {
  /** Screens with a state from which no hub is met, screens with one that nothing leads on from, and modals that nothing closes. */
  trap: Set<string>;
  dead: Set<string>;
  stuck: Set<string>;
  /** Whether any stack went beyond the bound. */
  endless: boolean;
}

const USERS = ["leg", "tab", "pick", "lead", "close", "fact", "back"];

/** Who is lost within a bound on the depth of stacks; undefined where there are more than so many states. */
export function lostWithin(project: Project, width: Width, deepest: number, most: number): Lost | undefined {
  const seen = new Map<string, Seen>();
  const queue: string[] = [];
  const add = (state: State): string => {
    const key = JSON.stringify(state);
    if (!seen.has(key)) {
      const beyond = depth(state) > deepest;
      seen.set(key, { state, screen: currentScreen(state).at, line: stateLine(planOf(project), state), before: [], after: [], beyond });
      if (!beyond) queue.push(key);
    }
    return key;
  };
  const start = add(arrive(appOf(project), undefined, beginning(appOf(project), width)).state);
  const events = allEvents(project).filter((e) => e.do !== "width" && !(e.do === "enter" && !e.cold));
  for (let at = 0; at < queue.length; at++) {
    if (seen.size > most) return undefined;
    const key = queue[at] as string;
    for (const event of events) {
      const result = step(appOf(project), (seen.get(key) as Seen).state, event);
      if (result.outcome !== "moved") continue;
      const to = add(result.state);
      if (!USERS.includes(event.do)) continue;
      seen.get(to)?.before.push(key);
      seen.get(key)?.after.push(to);
    }
  }
  const hubs = hubsOf(project, seen.get(start)?.screen ?? "");
  const home = backwards(seen, (node) => node.beyond || hubs.has(node.screen));
  const lost: Lost = { trap: new Set(), dead: new Set(), stuck: new Set(), endless: [...seen.values()].some(({ beyond }) => beyond) };
  const closed = new Map<string, Set<string>>();
  for (const { at } of [...seen.values()].flatMap(({ state }) => state.layers))
    if (!closed.has(at))
      closed.set(
        at,
        backwards(seen, (node) => node.beyond || node.state.layers.every((layer) => layer.at !== at)),
      );
  for (const [key, node] of seen) {
    if (node.beyond) continue;
    const stuck = node.state.layers.filter(({ at }) => !closed.get(at)?.has(key));
    for (const { at } of stuck) lost.stuck.add(at);
    if (stuck.length > 0 || home.has(key)) continue;
    const sameLine = [...forwards(seen, key)].every((k) => seen.get(k)?.line === node.line);
    if (sameLine) lost.dead.add(node.screen);
    else lost.trap.add(node.screen);
  }
  return lost;
}

/** Whether, from the end of a walk, a plain search within so many states meets what is looked for. */
export function meets(project: Project, start: State, holds: (state: State) => boolean, most: number): boolean {
  const events: NavEvent[] = allEvents(project).filter((e) => USERS.includes(e.do));
  const seen = new Set([JSON.stringify(start)]);
  const queue = [start];
  for (let i = 0; i < queue.length && seen.size < most; i++)
    for (const event of events) {
      const { outcome, state } = step(appOf(project), queue[i] as State, event);
      if (outcome !== "moved") continue;
      if (holds(state)) return true;
      const key = JSON.stringify(state);
      if (!seen.has(key)) queue.push(state);
      seen.add(key);
    }
  return false;
}

function backwards(seen: Map<string, Seen>, goal: (node: Seen) => boolean): Set<string> {
  const out = new Set([...seen].flatMap(([key, node]) => (goal(node) ? [key] : [])));
  const queue = [...out];
  for (let key = queue.pop(); key !== undefined; key = queue.pop())
    for (const before of seen.get(key)?.before ?? [])
      if (!out.has(before)) {
        out.add(before);
        queue.push(before);
      }
  return out;
}

function forwards(seen: Map<string, Seen>, from: string): Set<string> {
  const out = new Set([from]);
  const queue = [from];
  for (let key = queue.pop(); key !== undefined; key = queue.pop())
    for (const after of seen.get(key)?.after ?? [])
      if (!out.has(after)) {
        out.add(after);
        queue.push(after);
      }
  return out;
}
