import { controlOf, unasked } from "./events.ts";
import { fire, type Notes } from "./fire.ts";
import { sameLine } from "./line.ts";
import { answers, type Firing, firingOf, firingOn, isSource } from "./reach.ts";
import { branchNode, moved, noControl, topBranch, visiblePath } from "./state.ts";
import type { App, Change, Event, LegEvent, PlainEvent, State } from "./types.ts";
import { resolveItem } from "./values.ts";

/**
 * An event with its depart legs asked: it is tried first; if it would leave the app or change
 * the state line by more than an open mark, the first depart leg that can fires instead.
 */
export function attempt(app: App, state: State, event: Event, log: Notes): Change {
  if (event.do === "leg") return takeLeg(app, state, event, log);
  const tried = unasked(app, state, event);
  const by = departKind(event);
  if (by === undefined || !app.plan.hasDepart) return tried;
  if (tried.is !== "left" && !(tried.is === "moved" && !sameLine(app.plan, state, tried.state, false))) return tried;
  const firing = askedFirst(app, state, event, by);
  if (!firing) return tried;
  const instead = fire(app, state, firing, log);
  if (firing.leg.move === undefined) return instead.is === "moved" && tried.is === "moved" ? moved({ ...tried.state, facts: instead.state.facts }) : tried;
  if (instead.is === "ignored" || instead.is === "refused") return tried;
  if (instead.is === "left") return instead;
  const opened = instead.state.layers.length > state.layers.length;
  return opened ? moved({ ...instead.state, held: { event, depth: state.layers.length } }) : instead;
}

function takeLeg(app: App, state: State, event: LegEvent, log: Notes): Change {
  const leg = app.plan.legs.get(event.leg);
  if (!leg || leg.on === "arrive" || leg.on === "depart") return noControl;
  const item = resolveItem(app, leg, event.item);
  if (item === "unknown") return noControl;
  const firing = firingOf(app, state, leg, { item, fields: event.fields });
  return firing ? fire(app, state, firing, log) : noControl;
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
function askedFirst(app: App, state: State, event: PlainEvent, by: string): Firing | undefined {
  const chosen = event.do === "tab" || event.do === "pick" ? controlOf(app, state, event.do, event.to) : undefined;
  const branch = chosen?.branch ?? topBranch(state);
  const places = visiblePath(branchNode(state, branch)).map((node) => node.at);
  const modal = state.layers[branch - 1]?.at;
  for (const place of [...places.reverse(), ...(modal === undefined ? [] : [modal])]) {
    if (!isSource(app, state, branch, place, true)) continue;
    for (const leg of app.plan.from.get(place)?.depart ?? []) {
      const firing = answers(leg, by) ? firingOn(app, state, branch, leg, {}, by) : undefined;
      if (firing) return firing;
    }
  }
  return undefined;
}
