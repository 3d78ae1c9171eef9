import type { NavEvent, Project } from "../model/schema.ts";
import { compiled } from "./compiled.ts";
import { attemptUnasked, controlOf } from "./events.ts";
import { fire } from "./fire.ts";
import { sameLine } from "./line.ts";
import { type Firing, firingOf, firingOn, isSource, namesEvent } from "./reach.ts";
import { branchNode, type Change, moved, noControl, type PlainEvent, type State, topBranch, visiblePath } from "./state.ts";
import { resolveItem } from "./values.ts";

/**
 * An event with its depart legs asked: it is tried first; if it would leave the app or change
 * the state line by more than an open mark, the first depart leg that can fires instead.
 */
export function attempt(project: Project, state: State, event: NavEvent): Change {
  if (event.do === "leg") return takeLeg(project, state, event);
  const tried = attemptUnasked(project, state, event);
  const by = departKind(event);
  if (by === undefined || !compiled(project).hasDepart) return tried;
  if (tried.is !== "left" && !(tried.is === "moved" && !sameLine(state, tried.state, false))) return tried;
  const firing = askedFirst(project, state, event, by);
  if (!firing) return tried;
  const instead = fire(project, state, firing);
  if (firing.compiled.leg.move === undefined) return instead.is === "moved" ? withFacts(tried, instead.state.facts) : tried;
  if (instead.is === "ignored" || instead.is === "refused") return tried;
  if (instead.is === "left") return instead;
  const opened = instead.state.layers.length > state.layers.length;
  return opened ? moved({ ...instead.state, held: { event, depth: state.layers.length } }) : instead;
}

function takeLeg(project: Project, state: State, event: Extract<NavEvent, { do: "leg" }>): Change {
  const leg = compiled(project).legs.get(event.leg);
  if (!leg || leg.leg.on.kind === "arrive" || leg.leg.on.kind === "depart") return noControl;
  const item = resolveItem(project, leg.leg, event.item);
  if (item === "unknown") return noControl;
  const firing = firingOf(project, state, leg, { item, fields: event.fields });
  return firing ? fire(project, state, firing) : noControl;
}

/** The word by which depart legs name an event, or undefined for events that they are not asked about. */
function departKind(event: PlainEvent): string | undefined {
  switch (event.do) {
    case "back":
    case "lead":
    case "tab":
    case "pick":
    case "close":
      return event.do;
    case "enter":
      return event.cold ? undefined : "link";
    case "launch":
    case "fact":
    case "width":
      return undefined;
  }
}

/** The depart leg that is asked: from the current screen of the branch acted on outwards, its layer's modal last. */
function askedFirst(project: Project, state: State, event: PlainEvent, by: string): Firing | undefined {
  const chosen = event.do === "tab" || event.do === "pick" ? controlOf(project, state, event) : undefined;
  const branch = chosen?.branch ?? topBranch(state);
  const places = visiblePath(branchNode(state, branch))
    .map((node) => node.at)
    .reverse();
  const modal = state.layers[branch - 1]?.at;
  if (modal !== undefined) places.push(modal);
  for (const place of places) {
    if (!isSource(project, state, branch, place, true)) continue;
    for (const leg of compiled(project).from.get(place)?.depart ?? []) {
      const firing = namesEvent(leg, by) ? firingOn(project, state, branch, leg, {}, by) : undefined;
      if (firing) return firing;
    }
  }
  return undefined;
}

function withFacts(change: Change, facts: State["facts"]): Change {
  return change.is === "moved" ? moved({ ...change.state, facts }) : change;
}
