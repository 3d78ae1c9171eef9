import { appOf } from "../../../core/insight/app.ts";
import { available } from "../../../core/insight/available.ts";
import { drawerOf, elementIdOf, elementOf, keyField, lookup, modalOf, tabsOf } from "../../../core/model/lookup.ts";
import type { Element, Json, Leg, NavEvent, Project, Row } from "../../../core/model/schema.ts";
import { branchNode, topBranch, visiblePath } from "../../../core/semantics/state.ts";
import { step } from "../../../core/semantics/step.ts";
import type { State } from "../../../core/semantics/types.ts";

/** How an element is used by hand. */
export type Use = "tap" | "submit" | "hold";
type LegEvent = Extract<NavEvent, { do: "leg" }>;

/** An outcome to choose from, and the event that it stands for. */
export interface Choice {
  outcome: string;
  event: NavEvent;
}

/** The words for a leg that is taken whenever none of the named outcomes is. */
const OTHERWISE = "anything else";

/** The legs that start at an element when it is used so. A tap on anything but a field also submits. */
export function legsOf(project: Project, place: string, element: Element, how: Use): Leg[] {
  const kinds: string[] = how === "tap" && element.kind !== "field" ? ["tap", "submit"] : [how];
  return (lookup(project).legsFrom.get(place) ?? []).filter((leg) => elementIdOf(leg) === element.id && kinds.includes(leg.on.kind));
}

/** What using an element comes to: one event, several outcomes to choose from, or nothing where no leg starts there. */
export function eventsFor(
  project: Project,
  state: State,
  legs: readonly Leg[],
  input: { element: Element; row?: Row | undefined; fields: Record<string, Json> },
): { event: NavEvent } | { choices: Choice[] } | undefined {
  const events = legs.map((leg) => ({ leg, event: legEvent(project, leg, input) }));
  const possible = events.filter(({ event }) => step(appOf(project), state, event).outcome !== "ignored");
  const choices = new Map<string, NavEvent>();
  for (const { leg, event } of possible) {
    const outcome = "outcome" in leg.on && leg.on.outcome !== undefined ? leg.on.outcome : OTHERWISE;
    if (!choices.has(outcome)) choices.set(outcome, event);
  }
  if (choices.size > 1) return { choices: [...choices].map(([outcome, event]) => ({ outcome, event })) };
  const first = possible[0] ?? events[0];
  return first && { event: first.event };
}

function legEvent(project: Project, leg: Leg, { element, row, fields }: { element: Element; row?: Row | undefined; fields: Record<string, Json> }): LegEvent {
  const type = element.of === undefined ? undefined : lookup(project).types.get(element.of);
  const key = type && row ? row[keyField(type)] : undefined;
  const item = typeof key === "string" ? key : row;
  return { do: "leg", leg: leg.id, ...(item === undefined ? {} : { item }), ...(Object.keys(fields).length > 0 ? { fields } : {}) };
}

/** Elements that do something now, as `place element`. */
export function liveElements(project: Project, state: State): Set<string> {
  return new Set(
    available(project, state).flatMap((event) => {
      const leg = legOf(project, event);
      const element = elementOfLeg(leg);
      return leg && element !== undefined ? [`${leg.from} ${element}`] : [];
    }),
  );
}

/** The leg that an event uses. */
export function legOf(project: Project, event: NavEvent): Leg | undefined {
  return event.do === "leg" ? lookup(project).legs.get(event.leg) : undefined;
}

/** The swipes that a leg waits for now, once each: for whoever has no finger on the device. */
export function swipesNow(project: Project, state: State): LegEvent[] {
  return available(project, state).flatMap((event) => (event.do === "leg" && legOf(project, event)?.on.kind === "swipe" ? [event] : []));
}

function elementOfLeg(leg: Leg | undefined): string | undefined {
  return leg && elementIdOf(leg);
}

export type Direction = "left" | "right" | "up" | "down";
/** What a finger was on when it began to swipe. */
export interface Touched {
  place: string;
  element: string;
  item?: string | undefined;
}

/** A finger's way over the device. */
export interface Swipe {
  to: Direction;
  /** What it was on when it began. */
  touched: Touched | undefined;
  /** Whether it began at the left edge of the device. */
  fromEdge: boolean;
}

/**
 * What a swipe on a branch does: from the edge it is the system's Back; else a leg that waits for it, on what was touched first; else it
 * pushes an open drawer away, or a layer, where these close so; else it goes to the neighboring tab where tabs can be swiped.
 */
export function swipeEvent(project: Project, state: State, branch: number, { to, touched, fromEdge }: Swipe): NavEvent | undefined {
  if (fromEdge && to === "right") return { do: "back" };
  return legSwipe(project, state, branch, to, touched) ?? pushedAway(project, state, branch, to) ?? tabSwipe(project, state, branch, to);
}

/** The side that a swipe pushes something off at. */
const SIDE = { left: "left", right: "right", up: "top", down: "bottom" } as const;

function pushedAway(project: Project, state: State, branch: number, to: Direction): NavEvent | undefined {
  if (branch !== topBranch(state)) return undefined;
  const open = visiblePath(branchNode(state, branch)).find((node) => node.kind === "drawer" && node.open);
  const drawer = open && drawerOf(project, open.at);
  if (drawer) return drawer.side === to && drawer.closeOn.includes("swipe") ? { do: "close", via: "swipe" } : undefined;
  const modal = modalOf(project, state.layers[branch - 1]?.at ?? "");
  return modal?.edge === SIDE[to] && modal.closeOn.includes("swipe") ? { do: "close", via: "swipe" } : undefined;
}

function legSwipe(project: Project, state: State, branch: number, to: Direction, touched: Touched | undefined): NavEvent | undefined {
  const path = visiblePath(branchNode(state, branch));
  const sources = new Set([...path.map((node) => node.at), state.layers[branch - 1]?.at ?? ""]);
  const legs = swipesNow(project, state).filter((event) => {
    const leg = lookup(project).legs.get(event.leg);
    return leg?.on.kind === "swipe" && leg.on.to === to && sources.has(leg.from) && isOn(project, leg, event, touched);
  });
  const onElement = legs.find((event) => elementOfLeg(legOf(project, event)) !== undefined);
  return onElement ?? legs[0];
}

function tabSwipe(project: Project, state: State, branch: number, to: Direction): NavEvent | undefined {
  const path = visiblePath(branchNode(state, branch));
  const tabs = path.findLast((node) => node.kind === "tabs" && tabsOf(project, node.at)?.swipes);
  if (tabs?.kind !== "tabs" || (to !== "left" && to !== "right")) return undefined;
  const members = tabsOf(project, tabs.at)?.members ?? [];
  const next = members[members.indexOf(tabs.active) + (to === "left" ? 1 : -1)];
  return next === undefined ? undefined : { do: "tab", to: next };
}

/** Whether a swipe leg is for what was touched; one without an element is for the whole screen. */
function isOn(project: Project, leg: Leg, event: LegEvent, touched: Touched | undefined): boolean {
  const element = elementIdOf(leg);
  if (element === undefined) return true;
  if (touched?.place !== leg.from || touched.element !== element) return false;
  const of = elementOf(project, leg.from, element)?.of;
  const type = of === undefined ? undefined : lookup(project).types.get(of);
  if (!type || event.item === undefined || touched.item === undefined) return true;
  const key = typeof event.item === "object" && event.item !== null ? (event.item as Row)[keyField(type)] : event.item;
  return String(key) === touched.item;
}
