import { lookup } from "../model/lookup.ts";
import type { Project } from "../model/schema.ts";
import { compiled } from "./compiled.ts";
import { make } from "./make.ts";
import { branchNode, type LaneNode, type Node, type State, visiblePath, withBranch, withChild } from "./state.ts";

/** Makes a lane active. The lane left is dropped where the container does not keep lanes; a drawer closes. */
export function switchLane(project: Project, node: LaneNode, id: string, lane: Node): LaneNode {
  const lanes: Record<string, Node> = { ...node.lanes, [id]: lane };
  if (node.active !== id && !keeps(project, node)) delete lanes[node.active];
  return closed({ ...node, active: id, lanes, visited: [...node.visited.filter((v) => v !== id), id] });
}

/** Selects a lane: as it was left, or made where it does not exist or `fresh` is asked. */
export function selectLane(project: Project, node: LaneNode, id: string, fresh = false): LaneNode {
  const kept = fresh ? undefined : keptLane(project, node, id);
  return switchLane(project, node, id, kept ?? make(project, id));
}

/** Goes to the lane visited before: the current one is forgotten as visited. Undefined where there is none. */
export function previousLane(project: Project, node: LaneNode): LaneNode | undefined {
  const visited = node.visited.filter((id) => id !== node.active);
  const id = visited[visited.length - 1];
  if (id === undefined) return undefined;
  return { ...switchLane(project, node, id, keptLane(project, node, id) ?? make(project, id)), visited };
}

function keptLane(project: Project, node: LaneNode, id: string): Node | undefined {
  const kept = node.lanes[id];
  return kept && (compiled(project).reveal?.(kept, "show") ?? kept);
}

function keeps(project: Project, node: LaneNode): boolean {
  const container = lookup(project).containers.get(node.at);
  return container?.kind === "tabs" || container?.kind === "drawer" ? container.keeps : true;
}

/** The node with an open drawer closed. */
export function closed<T extends Node>(node: T): T {
  return node.kind === "drawer" && node.open ? { ...node, open: false } : node;
}

/** The state with the open drawers on a branch's visible path closed. */
export function withDrawersClosed(state: State, branch: number): State {
  const path = visiblePath(branchNode(state, branch));
  if (!path.some((node) => node.kind === "drawer" && node.open)) return state;
  let out = path[path.length - 1] as Node;
  for (let i = path.length - 2; i >= 0; i--) out = withChild(closed(path[i] as Node), out);
  return withBranch(state, branch, out);
}
