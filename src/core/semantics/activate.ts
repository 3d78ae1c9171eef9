import { switchLane } from "./lanes.ts";
import { lanesInOrder } from "./line.ts";
import { makeLane } from "./make.ts";
import { branchNode, topBranch, visiblePath, withBranch, withLayers } from "./state.ts";
import type { App, LaneNode, Node, State } from "./types.ts";

/** A state in which a container stands on the visible path of a branch. */
export interface Focus {
  readonly state: State;
  readonly branch: number;
  readonly depth: number;
}

/**
 * Activates a container: searches the branches from the topmost down and brings it onto
 * the visible path. Undefined where it is not showing anywhere.
 */
export function activate(app: App, state: State, id: string): Focus | undefined {
  for (let branch = topBranch(state); branch >= 0; branch--) {
    const found = bringUp(app, app.stacks.look(branchNode(state, branch), "search", id), id, []);
    if (!found) continue;
    const depth = visiblePath(found).findIndex((node) => node.at === id && node.kind !== "shown");
    return { state: withBranch(withLayers(state, branch), branch, found), branch, depth };
  }
  return undefined;
}

/** The node with the container on its visible path, or undefined. */
function bringUp(app: App, node: Node, id: string, around: readonly string[]): Node | undefined {
  if (node.kind === "shown" || around.includes(node.at)) return undefined;
  if (node.at === id) return node;
  const within = [...around, node.at];
  if (node.kind === "stack") {
    const items = app.stacks.cut(node.items, (item) => bringUp(app, item, id, within), `holds ${id}`);
    return items && { ...node, items };
  }
  for (const lane of laneOrder(app, node)) {
    const content = laneContent(app, node, lane, id);
    const found = content && bringUp(app, content, id, within);
    if (found) return switchLane(app, node, lane, found);
  }
  return undefined;
}

/** What a lane holds, or would hold: one that was never visited only where the container can be in it. */
function laneContent(app: App, node: LaneNode, lane: string, id: string): Node | undefined {
  const kept = Object.hasOwn(node.lanes, lane) ? node.lanes[lane] : undefined;
  if (kept) return app.stacks.look(kept, "search", id);
  return app.plan.containers.get(lane)?.holds.includes(id) ? makeLane(app.plan, lane) : undefined;
}

/** The active lane first, then the others in member order, visited or not. */
function laneOrder(app: App, node: LaneNode): string[] {
  const members = app.plan.containers.get(node.at)?.members ?? [];
  return [...new Set([node.active, ...members, ...lanesInOrder(app.plan, node)])];
}

/** The state with a branch known that a search has hidden. */
export function withBranchKnown(app: App, state: State, branch: number): State {
  const node = branchNode(state, branch);
  const known = app.stacks.look(node, "search");
  return known === node ? state : withBranch(state, branch, known);
}
