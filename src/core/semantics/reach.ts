import type { Values } from "../plan/expression.ts";
import type { Leg } from "../plan/plan.ts";
import { isPinnedAt } from "./bar.ts";
import { branchNode, currentScreen, isOpenDrawer, topBranch, visibleChild } from "./state.ts";
import type { App, Node, Shown, State } from "./types.ts";
import { type Input, valuesFor } from "./values.ts";

/** The branches in reach, topmost first: beneath a layer only where nothing above it blocks. */
export function branchesInReach(app: App, state: State): number[] {
  const out = [topBranch(state)];
  for (let branch = topBranch(state); branch > 0; branch--) {
    const layer = state.layers[branch - 1];
    if (!layer || app.plan.containers.get(layer.at)?.blocks !== false) break;
    out.push(branch - 1);
  }
  return out;
}

/** Whether legs from a place can be used on a branch; with `drawersClosed`, open drawers count as closed. */
export function isSource(app: App, state: State, branch: number, from: string, drawersClosed = false): boolean {
  let found: Node | undefined;
  let open = false;
  for (let node: Node | undefined = branchNode(state, branch); node; node = visibleChild(node)) {
    if (node.at === from) found = node;
    open ||= !drawersClosed && isOpenDrawer(node);
  }
  if (open) return found !== undefined && isOpenDrawer(found);
  if (!found) return state.layers[branch - 1]?.at === from;
  return found.kind !== "drawer" || isPinnedAt(app.plan, from, state.width);
}

/** A leg about to fire: on which branch, and with which values. */
export interface Firing {
  readonly leg: Leg;
  readonly branch: number;
  readonly values: Values;
}

/** The branch on which a leg can fire for an event, or undefined. */
export function firingOf(app: App, state: State, leg: Leg, input: Input): Firing | undefined {
  for (const branch of branchesInReach(app, state)) {
    if (!isSource(app, state, branch, leg.from)) continue;
    const firing = firingOn(app, state, branch, leg, input);
    if (firing) return firing;
  }
  return undefined;
}

/** The firing of a leg from a place known to be a source on the branch, or undefined where it can not. */
export function firingOn(app: App, state: State, branch: number, leg: Leg, input: Input = {}, departBy?: string): Firing | undefined {
  const screen = currentScreen(state, branch);
  const values = valuesFor(app, state, screen, input);
  if (!isReady(app, leg, screen, values)) return undefined;
  for (const earlier of leg.earlier) {
    if (departBy !== undefined && !answers(earlier, departBy)) continue;
    if (isReady(app, earlier, screen, values)) return undefined;
  }
  return { leg, branch, values };
}

/** Whether a depart leg is for events of a kind. */
export function answers(leg: Leg, kind: string): boolean {
  return leg.on === "depart" && (leg.by === undefined || leg.by.includes(kind));
}

function isReady(app: App, leg: Leg, screen: Shown, values: Values): boolean {
  if (leg.never || leg.except?.includes(screen.at)) return false;
  if (leg.on === "after" && screen.spent?.includes(leg.id)) return false;
  const { when, shown, enabled } = leg;
  const { evaluator } = app;
  if (when && !evaluator.holds(when, values)) return false;
  return (!shown || evaluator.holds(shown, values)) && (!enabled || evaluator.holds(enabled, values));
}

/** The first arrive leg of the current screen itself that can fire. */
export function arriveFiring(app: App, state: State): Firing | undefined {
  const branch = topBranch(state);
  const screen = currentScreen(state, branch);
  const legs = app.plan.from.get(screen.at)?.arrive;
  if (!legs || legs.length === 0 || !isSource(app, state, branch, screen.at)) return undefined;
  for (const leg of legs) {
    const firing = firingOn(app, state, branch, leg);
    if (firing) return firing;
  }
  return undefined;
}
