import type { Values } from "../model/expression.ts";
import { drawerOf, modalOf } from "../model/lookup.ts";
import type { Project } from "../model/schema.ts";
import { isPinned } from "./bar.ts";
import { type CompiledLeg, compiled } from "./compiled.ts";
import { branchNode, currentScreen, type Node, type Shown, type State, topBranch, visibleChild } from "./state.ts";
import { type Input, valuesFor } from "./values.ts";

/** The branches in reach, topmost first: beneath a layer only where nothing above it blocks. */
export function branchesInReach(project: Project, state: State): number[] {
  const out = [topBranch(state)];
  for (let branch = topBranch(state); branch > 0; branch--) {
    const layer = state.layers[branch - 1];
    if (!layer || (modalOf(project, layer.at)?.blocks ?? true)) break;
    out.push(branch - 1);
  }
  return out;
}

/** The open, unpinned drawers on a branch's visible path. A pinned drawer is never open. */
export function openDrawers(path: readonly Node[]): Node[] {
  return path.filter((node) => node.kind === "drawer" && node.open);
}

/** Whether legs from a place can be used on a branch; with `drawersClosed`, open drawers count as closed. */
export function isSource(project: Project, state: State, branch: number, from: string, drawersClosed = false): boolean {
  let found: Node | undefined;
  let open = false;
  for (let node: Node | undefined = branchNode(state, branch); node; node = visibleChild(node)) {
    if (node.at === from) found = node;
    open ||= !drawersClosed && node.kind === "drawer" && node.open;
  }
  if (open) return found?.kind === "drawer" && found.open;
  if (!found) return state.layers[branch - 1]?.at === from;
  return found.kind !== "drawer" || isPinned(drawerOf(project, from), state.width);
}

/** A leg about to fire: on which branch, and with which values. */
export interface Firing {
  compiled: CompiledLeg;
  branch: number;
  values: Values;
}

/** The branch on which a leg can fire for an event, or undefined. */
export function firingOf(project: Project, state: State, leg: CompiledLeg, input: Input): Firing | undefined {
  for (const branch of branchesInReach(project, state)) {
    if (!isSource(project, state, branch, leg.leg.from)) continue;
    const firing = firingOn(project, state, branch, leg, input);
    if (firing) return firing;
  }
  return undefined;
}

/** The firing of a leg from a place known to be a source on the branch, or undefined where it can not. */
export function firingOn(project: Project, state: State, branch: number, leg: CompiledLeg, input: Input = {}, departBy?: string): Firing | undefined {
  const screen = currentScreen(state, branch);
  const values = valuesFor(project, state, screen, input);
  if (!holds(leg, screen, values)) return undefined;
  for (const earlier of leg.earlier) {
    if (departBy !== undefined && !namesEvent(earlier, departBy)) continue;
    if (holds(earlier, screen, values)) return undefined;
  }
  return { compiled: leg, branch, values };
}

/** Whether a depart leg is for an event of this kind. */
export function namesEvent({ leg }: CompiledLeg, kind: string): boolean {
  return leg.on.kind === "depart" && (leg.on.by === undefined || (leg.on.by as string[]).includes(kind));
}

function holds(entry: CompiledLeg, screen: Shown, values: Values): boolean {
  if (!entry.wellTyped || entry.element === "missing") return false;
  if (entry.leg.on.kind === "after" && screen.spent?.includes(entry.leg.id)) return false;
  if (entry.when && entry.when.run(values) !== true) return false;
  const element = entry.element;
  if (!element) return true;
  if (element.except.has(screen.at)) return false;
  return (element.shown === undefined || element.shown.run(values) === true) && (element.enabled === undefined || element.enabled.run(values) === true);
}

/** The first arrive leg of the current screen itself that can fire. */
export function arriveFiring(project: Project, state: State): Firing | undefined {
  const branch = topBranch(state);
  const screen = currentScreen(state, branch);
  for (const leg of compiled(project).from.get(screen.at)?.arrive ?? []) {
    if (!isSource(project, state, branch, screen.at)) return undefined;
    const firing = firingOn(project, state, branch, leg);
    if (firing) return firing;
  }
  return undefined;
}
