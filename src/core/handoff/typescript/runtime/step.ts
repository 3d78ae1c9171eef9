import { anew, choose, closeBy, controlOf, enter, inReach, pressLead, setFact, setWidth } from "./controls.ts";
import { goBack, isPinned } from "./lanes.ts";
import { make, rebuild } from "./make.ts";
import { makeMove, placesExist } from "./moves.ts";
import type { Args, Event, Json, LegPlan, Plan, Values } from "./plan.ts";
import {
  branch,
  type Change,
  child,
  closed,
  current,
  line,
  moved,
  type Node,
  noControl,
  nothingToDo,
  type Outcome,
  path,
  refused,
  type Shown,
  type State,
  same,
  top,
  update,
  withLayers,
} from "./state.ts";
import { destination, holds, rowOf, valuesOn } from "./values.ts";

/** Arrive legs that may follow one another. */
const MOST_ARRIVING = 32;

/** The state at launch. */
export function launch(plan: Plan): State {
  const facts = Object.fromEntries(Object.entries(plan.facts).map(([id, fact]) => [id, fact.initial]));
  const first: State = { base: make(plan, plan.root), layers: [], facts, width: "narrow" };
  const settled = arrive(plan, undefined, first);
  return settled === "loop" ? first : settled;
}

/** What an event does. Pure, and never throws; unless the outcome is "moved", the state is the same object. */
export function step(plan: Plan, state: State, event: Event): Outcome {
  const change = attempt(plan, state, event);
  if (change.is === "left") return { outcome: "left", state };
  if (change.is !== "moved") return { outcome: change.is, why: change.why, state };
  const settled = arrive(plan, state, change.state);
  if (settled === "loop") return { outcome: "refused", why: "redirect-loop", state };
  return { outcome: "moved", state: settled.held && settled.layers.length <= settled.held.depth ? withoutHeld(settled) : settled };
}

function withoutHeld({ held: _, ...rest }: State): State {
  return rest;
}

function arrive(plan: Plan, before: State | undefined, start: State): State | "loop" {
  let [last, state] = [before, start];
  for (let count = 0; ; count++) {
    if (before && last && state.layers.length < last.layers.length && top(state) <= top(before) && current(before, top(state)) === current(state)) return state;
    const screen = current(state);
    const firing = legsFrom(plan, screen.at, "arrive").find(
      (leg) => isSource(plan, state, top(state), screen.at) && canFire(plan, leg, screen, valuesOn(plan, state, screen)),
    );
    const change = firing === undefined ? nothingToDo : fire(plan, state, top(state), firing, valuesOn(plan, state, screen));
    if (change.is !== "moved") return state;
    if (count >= MOST_ARRIVING) return "loop";
    [last, state] = [state, change.state];
  }
}

const from = new WeakMap<Plan, Map<string, string[]>>();
function legsFrom(plan: Plan, place: string, on: LegPlan["on"]): string[] {
  let known = from.get(plan);
  if (!known) {
    known = new Map();
    for (const [id, leg] of Object.entries(plan.legs)) known.set(`${leg.from} ${leg.on}`, [...(known.get(`${leg.from} ${leg.on}`) ?? []), id]);
    from.set(plan, known);
  }
  return known.get(`${place} ${on}`) ?? [];
}

function isSource(plan: Plan, state: State, n: number, place: string, drawersClosed = false): boolean {
  let found: Node | undefined;
  let open = false;
  for (let node: Node | undefined = branch(state, n); node; node = child(node)) {
    if (node.at === place) found = node;
    open ||= !drawersClosed && node.kind === "drawer" && node.open;
  }
  if (open) return found?.kind === "drawer" && found.open;
  if (!found) return state.layers[n - 1]?.at === place;
  return found.kind !== "drawer" || isPinned(plan, place, state.width);
}

function canFire(plan: Plan, id: string, screen: Shown, v: Values, by?: string): boolean {
  const leg = plan.legs[id];
  if (!leg || !ready(leg, id, screen, v)) return false;
  return !earlierThan(plan, id).some((other) => {
    const earlier = plan.legs[other] as LegPlan;
    return (by === undefined || (earlier.by ?? [by]).includes(by)) && ready(earlier, other, screen, v);
  });
}

const alike = new WeakMap<Plan, Map<string, string[]>>();
/** Legs of the same source and trigger that come before one. */
function earlierThan(plan: Plan, id: string): string[] {
  let known = alike.get(plan);
  if (!known) {
    known = new Map();
    for (const [leg, { key }] of Object.entries(plan.legs)) known.set(key, [...(known.get(key) ?? []), leg]);
    alike.set(plan, known);
  }
  const legs = known.get(plan.legs[id]?.key ?? "") ?? [];
  return legs.slice(0, legs.indexOf(id));
}

function ready(leg: LegPlan, id: string, screen: Shown, v: Values): boolean {
  if (leg.never || (leg.on === "after" && screen.spent?.includes(id)) || leg.except?.includes(screen.at)) return false;
  return holds(leg.when, v) && holds(leg.shown, v) && holds(leg.enabled, v);
}

/** The leg fires: values from the state before, a drawer that it belongs to closes, the move, then what it sets. */
function fire(plan: Plan, state: State, n: number, id: string, v: Values, given?: Args): Change {
  const leg = plan.legs[id];
  if (!leg) return noControl;
  const drawer = leg.move?.kind === "menu" ? -1 : path(branch(state, n)).findIndex((node) => node.kind === "drawer" && node.open && node.at === leg.from);
  let before = drawer < 0 ? state : update(state, n, drawer, closed(path(branch(state, n))[drawer] as Node));
  if (leg.on === "after") {
    const screen = current(before, n);
    before = update(before, n, path(branch(before, n)).length - 1, { ...screen, spent: [...(screen.spent ?? []), id] });
  }
  const facts = factsAfter(plan, leg, state, v);
  const resumed = leg.resumes ? resume(plan, before, facts ?? state.facts) : undefined;
  if (!resumed && leg.move && !placesExist(plan, leg.move)) return refused("no-place");
  const args = argumentsOf(leg, v, given);
  if (facts === undefined || (!resumed && args === undefined)) return refused("no-value");
  const sets = Object.keys(facts).some((fact) => !same(facts[fact], state.facts[fact]));
  const change = resumed ?? carryOut(plan, before, n, leg, args ?? {}, given !== undefined, sets);
  if (change.is === "moved") return sets ? moved({ ...change.state, facts }) : change;
  return change.is === "ignored" && drawer >= 0 ? moved(before) : change;
}

function carryOut(plan: Plan, state: State, n: number, leg: LegPlan, args: Args, given: boolean, sets: boolean): Change {
  if (!leg.move) return sets ? moved(state) : nothingToDo;
  return leg.move.kind === "proceed" ? proceed(plan, state) : makeMove(plan, state, n, leg.move, args, leg.passes === true || given);
}

function argumentsOf(leg: LegPlan, v: Values, given: Args | undefined): Args | undefined {
  if (given) return given;
  const args: Record<string, Json> = {};
  for (const [name, { value, required }] of Object.entries(leg.pass ?? {})) {
    const found = value(v);
    if (found !== undefined) args[name] = found;
    else if (required) return undefined;
  }
  return args;
}

function factsAfter(plan: Plan, leg: LegPlan, state: State, v: Values): Args | undefined {
  const facts: Record<string, Json> = { ...state.facts };
  for (const [id, value] of Object.entries(leg.set ?? {})) {
    const found = value(v);
    const values = plan.facts[id]?.values;
    if (found === undefined || (values && !values.includes(found as string))) return undefined;
    facts[id] = found;
  }
  return facts;
}

function resume(plan: Plan, state: State, facts: Args): Change | undefined {
  if (!state.waiting) return undefined;
  const found = destination(plan, { ...state, facts }, state.waiting.entrance, state.waiting.args);
  if (!found?.allowed) return undefined;
  const { waiting: _, ...rest } = state;
  return found.to === undefined ? refused("no-place") : rebuild(plan, rest, found.to, found.args);
}

/** Closes what was opened since an event was held, and does that event without asking again. */
function proceed(plan: Plan, state: State): Change {
  if (!state.held) return nothingToDo;
  const beneath = withoutHeld(withLayers(state, state.held.depth));
  const change = unasked(plan, beneath, state.held.event, true);
  return change.is === "ignored" ? moved(beneath) : change;
}

/** An event with its depart legs asked. */
function attempt(plan: Plan, state: State, event: Event): Change {
  if (event.do === "leg") return takeLeg(plan, state, event);
  const tried = unasked(plan, state, event, false);
  const asks = event.do === "enter" ? !event.cold : event.do !== "launch" && event.do !== "fact" && event.do !== "width";
  const leaves = tried.is === "left" || (tried.is === "moved" && line(plan, tried.state, false) !== line(plan, state, false));
  if (!asks || !leaves) return tried;
  const by = event.do === "enter" ? "link" : event.do;
  const control = event.do === "tab" || event.do === "pick" ? controlOf(plan, state, event, false) : undefined;
  const n = control?.branch ?? top(state);
  const layer = state.layers[n - 1]?.at;
  const places = [
    ...path(branch(state, n))
      .map((node) => node.at)
      .reverse(),
    ...(layer === undefined ? [] : [layer]),
  ];
  const screen = current(state, n);
  const v = valuesOn(plan, state, screen);
  const asked = places
    .filter((place) => isSource(plan, state, n, place, true))
    .flatMap((place) => legsFrom(plan, place, "depart"))
    .find((id) => (plan.legs[id]?.by ?? [by]).includes(by) && canFire(plan, id, screen, v, by));
  if (asked === undefined) return tried;
  const instead = fire(plan, state, n, asked, v);
  if (plan.legs[asked]?.move === undefined)
    return instead.is === "moved" && tried.is === "moved" ? moved({ ...tried.state, facts: instead.state.facts }) : tried;
  if (instead.is === "left") return instead;
  if (instead.is !== "moved") return tried;
  if (instead.state.layers.length <= state.layers.length) return instead;
  return moved({ ...instead.state, held: { event, depth: state.layers.length } });
}

function takeLeg(plan: Plan, state: State, event: Extract<Event, { do: "leg" }>): Change {
  const leg = plan.legs[event.leg];
  if (!leg || leg.on === "arrive" || leg.on === "depart") return noControl;
  const row = rowOf(plan, leg, event.item);
  if (row === "unknown") return noControl;
  for (const n of inReach(plan, state)) {
    const screen = current(state, n);
    const v = valuesOn(plan, state, screen, row, event.fields);
    if (isSource(plan, state, n, leg.from) && canFire(plan, event.leg, screen, v)) return fire(plan, state, n, event.leg, v, event.args);
  }
  return noControl;
}

/** What an event does when no depart leg is asked. */
function unasked(plan: Plan, state: State, event: Event, held: boolean): Change {
  switch (event.do) {
    case "leg":
      return takeLeg(plan, state, event);
    case "tab":
    case "pick":
      return choose(plan, state, event, held);
    case "lead":
      return pressLead(plan, state);
    case "close":
      return closeBy(plan, state, event.via);
    case "back":
      return goBack(plan, state, top(state));
    case "enter":
      return enter(plan, state, event);
    case "launch":
      return moved(anew(plan, state));
    case "fact":
      return setFact(plan, state, event.fact, event.value);
    case "width":
      return setWidth(state, event.to);
  }
}
