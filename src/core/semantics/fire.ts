import type { Args, Json } from "../plan/data.ts";
import { sameValue } from "../plan/expression.ts";
import type { Leg } from "../plan/plan.ts";
import { resume } from "./enter.ts";
import { closed } from "./lanes.ts";
import { makeMove } from "./moves.ts";
import type { Firing } from "./reach.ts";
import { branchNode, currentScreen, isOpenDrawer, moved, nothingToDo, refused, updateBranch, visiblePath } from "./state.ts";
import type { App, Change, Log, State } from "./types.ts";

/** What a step has done so far. */
export type Notes = { -readonly [Name in keyof Log]: Log[Name] };

const NOTHING: readonly never[] = [];

export function newNotes(): Notes {
  return { fired: NOTHING, refused: NOTHING, copied: NOTHING, passed: NOTHING };
}

/**
 * Fires a leg: arguments and values from the state before, an open drawer that it belongs to
 * closed, then the move; if it was made, what the leg sets. What came of it is noted. `given` replaces the arguments that it passes.
 */
export function fire(app: App, state: State, firing: Firing, notes: Notes, given?: Args): Change {
  const leg = firing.leg.id;
  app.observer?.fired(leg);
  notes.fired = [...notes.fired, leg];
  const change = carryOut(app, state, firing, given);
  if (change.is === "refused") notes.refused = [...notes.refused, { leg, why: change.why }];
  if (change.is === "moved" && change.copied !== undefined) notes.copied = [...notes.copied, { leg, place: change.copied }];
  return change;
}

function carryOut(app: App, state: State, { leg, branch, values }: Firing, given: Args | undefined): Change {
  const facts = factsAfter(app, leg, state, values);
  const drawer = drawerToClose(state, branch, leg);
  const before = spent(drawer < 0 ? state : withDrawerClosed(state, branch, drawer), branch, leg);
  const resumed = leg.resumes ? resume(app, before, facts ?? state.facts) : undefined;
  const first = leg.move?.[0];
  if (!resumed && first?.op === "refuse") return refused(first.why);
  const args = given ?? argumentsOf(app, leg, values);
  if (facts === undefined || (!resumed && args === undefined)) return refused("no-value");
  const sets = facts !== state.facts && Object.keys(facts).some((id) => !sameValue(facts[id], state.facts[id]));
  const change = resumed ?? (leg.move ? makeMove(app, before, branch, leg.move, args ?? {}) : sets ? moved(before) : nothingToDo);
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
