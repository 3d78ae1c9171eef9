import type { Args, Json, Route } from "../plan/data.ts";
import type { Entrance } from "../plan/plan.ts";
import { withDrawersClosed } from "./lanes.ts";
import { make } from "./make.ts";
import { rebuilt } from "./operations.ts";
import { moved, nearestStack, noControl, refused, updateBranch } from "./state.ts";
import type { App, Change, State } from "./types.ts";
import { argumentsFromText } from "./values.ts";

/** Facts at a launch: the initial values. */
export function initialFacts(app: App): Args {
  const facts: Record<string, Json> = {};
  for (const [id, fact] of app.plan.facts) facts[id] = fact.initial;
  return facts;
}

/** The facts of a new start: those that persist or come from outside are kept. */
export function factsAnew(app: App, state: State): Args {
  const facts: Record<string, Json> = {};
  for (const [id, fact] of app.plan.facts) {
    const kept = fact.persists || fact.outside ? state.facts[id] : undefined;
    facts[id] = kept ?? fact.initial;
  }
  return facts;
}

/** The state of a new start in the same width. */
export function relaunched(app: App, state: State): State {
  return { base: make(app.plan, app.plan.launch), layers: [], facts: factsAnew(app, state), width: state.width };
}

/** Where an entrance leads now. */
interface Destination {
  /** Whether its condition holds. */
  readonly allowed: boolean;
  /** Undefined where there is no such screen. */
  readonly route: Route | undefined;
  readonly args: Args;
}

function destinationOf(app: App, state: State, entrance: Entrance, given: Args): Destination {
  const values = { fact: state.facts, width: state.width, link: asText(given) };
  const allowed = !entrance.never && (entrance.when === undefined || app.evaluator.holds(entrance.when, values));
  if (!entrance.pass) return { allowed, route: entrance.route, args: argumentsFromText(entrance.takes ?? [], given) };
  const args: Record<string, Json> = {};
  for (const { name, value } of entrance.pass) {
    const found = app.evaluator.value(value, values);
    if (found !== undefined) args[name] = found;
  }
  return { allowed, route: entrance.route, args };
}

/** The event enter, cold or warm, without asking depart legs. */
export function enter(app: App, state: State, event: { entrance: string; args?: Args | undefined; cold?: boolean | undefined }): Change {
  const entrance = app.plan.entrances.get(event.entrance);
  if (!entrance) return noControl;
  const from = event.cold ? relaunched(app, state) : state;
  const given = event.args ?? {};
  const destination = destinationOf(app, from, entrance, given);
  if (!destination.allowed) {
    if (!entrance.otherwise) return event.cold ? moved(from) : refused("not-allowed");
    const waiting = entrance.resume ? { ...from, waiting: { entrance: event.entrance, args: given } } : from;
    return entrance.otherwise.route ? moved(rebuilt(app, waiting, entrance.otherwise.route, {})) : refused("no-place");
  }
  if (!destination.route) return refused("no-place");
  const pushed = entrance.onTop && !event.cold ? onTop(app, from, entrance.make ?? entrance.to, destination.args) : undefined;
  return moved(pushed ?? rebuilt(app, from, destination.route, destination.args));
}

/** The state with a screen pushed on the nearest stack of the base, layers and open drawers closed; undefined where there is no stack. */
function onTop(app: App, state: State, template: Parameters<typeof make>[1], args: Args): State | undefined {
  const bare = withDrawersClosed({ ...state, layers: [] }, 0);
  const found = nearestStack(bare, 0);
  return found && updateBranch(bare, 0, found.depth, { ...found.stack, items: [...found.stack.items, make(app.plan, template, args)] });
}

/** Goes to a waiting entrance if its condition holds with the facts as they will be; undefined where nothing waits, or it does not. */
export function resume(app: App, state: State, facts: Args): Change | undefined {
  const waiting = app.stacks.waiting(state);
  const { waiting: _, ...rest } = state;
  const entrance = waiting && app.plan.entrances.get(waiting.entrance);
  const destination = entrance && destinationOf(app, { ...state, facts }, entrance, waiting.args);
  if (!destination?.allowed) return undefined;
  return destination.route ? moved(rebuilt(app, rest, destination.route, destination.args)) : refused("no-place");
}

function asText(args: Args): Args {
  return Object.fromEntries(Object.entries(args).map(([name, value]) => [name, typeof value === "string" ? value : JSON.stringify(value)]));
}
