import { makeLane } from "./make.ts";
import { branchNode, visiblePath, withBranch, withChild } from "./state.ts";
import type { App, LaneNode, Node, State } from "./types.ts";

/** Makes a lane active. The lane left is dropped where the container does not keep lanes; a drawer closes. */
export function switchLane(app: App, node: LaneNode, id: string, lane: Node): LaneNode {
  const lanes: Record<string, Node> = { ...node.lanes };
  lanes[id] = lane;
  if (node.active !== id && app.plan.containers.get(node.at)?.keeps === false) delete lanes[node.active];
  const visited = node.visited.filter((v) => v !== id);
  visited.push(id);
  return closed({ ...node, active: id, lanes, visited });
}

/** Selects a lane: as it was left, or made where it does not exist or `fresh` is asked. */
export function selectLane(app: App, node: LaneNode, id: string, fresh = false): LaneNode {
  return switchLane(app, node, id, (fresh ? undefined : keptLane(app, node, id)) ?? makeLane(app.plan, id));
}

/** Goes to the lane visited before: the current one is forgotten as visited. Undefined where there is none. */
export function previousLane(app: App, node: LaneNode): LaneNode | undefined {
  const id = app.stacks.previous(node);
  return id === undefined ? undefined : { ...selectLane(app, node, id), visited: node.visited.filter((one) => one !== node.active) };
}

function keptLane(app: App, node: LaneNode, id: string): Node | undefined {
  const kept = Object.hasOwn(node.lanes, id) ? node.lanes[id] : undefined;
  return kept && app.stacks.look(kept, "show");
}

/** The node with an open drawer closed. */
export function closed<T extends Node>(node: T): T {
  return node.kind === "drawer" && node.open ? { ...node, open: false } : node;
}

/** The state with the open drawers on a branch's visible path closed. */
export function withDrawersClosed(state: State, branch: number): State {
  const path = visiblePath(branchNode(state, branch));
  if (!path.some((node) => node.kind === "drawer" && node.open)) return state;
  return withBranch(
    state,
    branch,
    path.reduceRight((inner, node) => withChild(closed(node), inner)),
  );
}
