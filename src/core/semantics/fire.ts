import type { Args, Json } from "../plan/data.ts";
import { sameValue } from "../plan/expression.ts";
import type { Leg } from "../plan/plan.ts";
import { resume } from "./enter.ts";
import { closed } from "./lanes.ts";
import { ownArguments } from "./make.ts";
import { makeMove } from "./moves.ts";
import type { Firing } from "./reach.ts";
import { branchNode, currentScreen, isOpenDrawer, moved, nothingToDo, refused, topBranch, updateBranch, visiblePath } from "./state.ts";
import type { App, Change, Log, State } from "./types.ts";

/** What a step has done so far. */
export type Notes = { -readonly [Name in keyof Log]: Log[Name] };

const NOTHING: readonly never[] = [];
const NO_ARGS: Args = {};

export function newNotes(): Notes {
  return { fired: NOTHING, refused: NOTHING, copied: NOTHING, handed: NOTHING, renewed: NOTHING, passed: NOTHING };
}

/**
 * Fires a leg: arguments and values from the state before, an open drawer that it belongs to
 * closed, then the move; if it was made, what the leg sets. What came of it is noted.
 */
export function fire(app: App, state: State, firing: Firing, notes: Notes): Change {
  const leg = firing.leg.id;
  app.observer?.fired(leg);
  notes.fired = [...notes.fired, leg];
  const change = carryOut(app, state, firing, notes);
  if (change.is === "refused") notes.refused = [...notes.refused, { leg, why: change.why }];
  if (change.is === "moved" && change.copied !== undefined) notes.copied = [...notes.copied, { leg, place: change.copied }];
  return change;
}

/** The change with what a leg hands back given to the screen that shows then: what it declares of it, in place of what it had by those names. */
function withHanded(app: App, leg: Leg, change: Change, given: Args, notes: Notes): Change {
  if (leg.give.length === 0 || change.is !== "moved" || !change.back) return change;
  const branch = topBranch(change.state);
  const path = visiblePath(branchNode(change.state, branch));
  const screen = currentScreen(change.state, branch);
  notes.handed = [...notes.handed, { leg: leg.id, names: leg.give.map(({ name }) => name), to: screen.at }];
  const params = app.plan.screens.get(screen.at)?.params ?? [];
  if (!params.some(({ name }) => Object.hasOwn(given, name))) return change;
  const args = ownArguments(app.plan, screen.at, { ...screen.args, ...given });
  notes.renewed = [...notes.renewed, [screen.args, args]];
  return { ...change, state: updateBranch(change.state, branch, path.length - 1, { ...screen, args }) };
}

function carryOut(app: App, state: State, { leg, branch, values }: Firing, notes: Notes): Change {
  const facts = factsAfter(app, leg, state, values);
  const drawer = drawerToClose(state, branch, leg);
  const before = spent(drawer < 0 ? state : withDrawerClosed(state, branch, drawer), branch, leg);
  const resumed = leg.resumes ? resume(app, before, facts ?? state.facts) : undefined;
  const first = leg.move?.[0];
  if (!resumed && first?.op === "refuse") return refused(first.why);
  const args = argumentsOf(app, leg, values);
  const handed = resultsOf(app, leg, values);
  if (facts === undefined || (!resumed && (args === undefined || handed === undefined))) return refused("no-value");
  const sets = facts !== state.facts && Object.keys(facts).some((id) => !sameValue(facts[id], state.facts[id]));
  const made = resumed ?? (leg.move ? makeMove(app, before, branch, leg.move, args ?? {}) : sets ? moved(before) : nothingToDo);
  const change = resumed ? made : withHanded(app, leg, made, handed ?? {}, notes);
  if (change.is === "moved") return sets ? { ...change, state: { ...change.state, facts } } : change;
  return change.is === "ignored" && drawer >= 0 ? moved(before) : change;
}

/** The arguments that a leg passes, or undefined where a required one has no value. */
function argumentsOf(app: App, leg: Leg, values: Firing["values"]): Args | undefined {
  const args: Record<string, Json> = {};
  for (const { name, value, required } of leg.pass) {
    const found = app.evaluator.value(value, values);
    if (found !== undefined) args[name] = found;
    else if (required) return undefined;
  }
  return args;
}

/** What a leg hands back, or undefined where some of it has no value. */
function resultsOf(app: App, leg: Leg, values: Firing["values"]): Args | undefined {
  if (leg.give.length === 0) return NO_ARGS;
  const out: Record<string, Json> = {};
  for (const { name, value } of leg.give) {
    const found = app.evaluator.value(value, values);
    if (found === undefined) return undefined;
    out[name] = found;
  }
  return out;
}

/** All facts with what the leg sets, or undefined where one to set has no value, or none of the fact's own. */
function factsAfter(app: App, leg: Leg, state: State, values: Firing["values"]): Args | undefined {
  if (leg.set.length === 0) return state.facts;
  const facts: Record<string, Json> = { ...state.facts };
  for (const { fact, value } of leg.set) {
    const found = app.evaluator.value(value, values, fact);
    const possible = app.plan.facts.get(fact)?.values;
    if (found === undefined || (possible && !possible.includes(found as string))) return undefined;
    facts[fact] = found;
  }
  return facts;
}

/** The depth of the open drawer that a leg belongs to and closes before its move, or -1. */
function drawerToClose(state: State, branch: number, leg: Leg): number {
  return leg.keepsDrawer ? -1 : visiblePath(branchNode(state, branch)).findIndex((node) => node.at === leg.from && isOpenDrawer(node));
}

function withDrawerClosed(state: State, branch: number, depth: number): State {
  const node = visiblePath(branchNode(state, branch))[depth];
  return node ? updateBranch(state, branch, depth, closed(node)) : state;
}

/** Marks an `after` leg as spent on the screen that it fires from. */
function spent(state: State, branch: number, leg: Leg): State {
  if (leg.on !== "after") return state;
  const screen = currentScreen(state, branch);
  const depth = visiblePath(branchNode(state, branch)).length - 1;
  return updateBranch(state, branch, depth, { ...screen, spent: [...(screen.spent ?? []), leg.id] });
}
