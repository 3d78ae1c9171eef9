import { lookup, treeOf } from "../model/lookup.ts";
import type { Project } from "../model/schema.ts";
import { compiled } from "./compiled.ts";
import { cutAt } from "./items.ts";
import { switchLane } from "./lanes.ts";
import { lanesInOrder } from "./line.ts";
import { make } from "./make.ts";
import { branchNode, type LaneNode, type Node, type State, topBranch, visiblePath, withBranch, withLayers } from "./state.ts";

export interface Activated {
  state: State;
  branch: number;
  /** Where the container stands on the branch's visible path. */
  depth: number;
}

/**
 * Activates a container: searches the branches from the topmost down and brings it onto
 * the visible path. Undefined where it is not showing anywhere.
 */
export function activate(project: Project, state: State, id: string): Activated | undefined {
  for (let branch = topBranch(state); branch >= 0; branch--) {
    const node = branchNode(state, branch);
    const found = bringUp(project, compiled(project).reveal?.(node, "search") ?? node, id, []);
    if (!found) continue;
    const next = withBranch(withLayers(state, branch), branch, found);
    const depth = visiblePath(found).findIndex((node) => node.at === id && node.kind !== "shown");
    return { state: next, branch, depth };
  }
  return undefined;
}

/** The node with the container on its visible path, or undefined. */
function bringUp(project: Project, node: Node, id: string, around: readonly string[]): Node | undefined {
  if (node.kind === "shown" || around.includes(node.at)) return undefined;
  if (node.at === id) return node;
  const within = [...around, node.at];
  if (node.kind === "stack") {
    const items = cutAt(project, node.items, (item) => bringUp(project, item, id, within));
    return items && { ...node, items };
  }
  for (const lane of laneOrder(project, node)) {
    const kept = node.lanes[lane];
    const content = kept ? (compiled(project).reveal?.(kept, "search") ?? kept) : mayHold(project, lane, id) ? make(project, lane) : undefined;
    const found = content && bringUp(project, content, id, within);
    if (found) return switchLane(project, node, lane, found);
  }
  return undefined;
}

/** The state with a branch that a search has hidden as what it may hold. */
export function withBranchKnown(project: Project, state: State, branch: number): State {
  const node = branchNode(state, branch);
  const known = compiled(project).reveal?.(node, "search") ?? node;
  return known === node ? state : withBranch(state, branch, known);
}

/** The active lane first, then the others in member order, visited or not. */
function laneOrder(project: Project, node: LaneNode): string[] {
  const members = lookup(project).containers.get(node.at)?.members ?? [];
  return [...new Set([node.active, ...members, ...lanesInOrder(project, node)])];
}

const trees = new WeakMap<Project, Map<string, Set<string>>>();

function mayHold(project: Project, member: string, id: string): boolean {
  return treeSet(project, member).has(id);
}

/** All places in a place's tree, itself included. */
export function treeSet(project: Project, placeId: string): Set<string> {
  let known = trees.get(project);
  if (!known) {
    known = new Map();
    trees.set(project, known);
  }
  let tree = known.get(placeId);
  if (!tree) {
    tree = new Set(treeOf(project, placeId));
    known.set(placeId, tree);
  }
  return tree;
}

/** Whether a place, or a container in its tree, is already one of the nodes around a slot. */
export function insideItself(project: Project, placeId: string, around: readonly Node[]): boolean {
  if (!lookup(project).containers.has(placeId)) return false;
  const tree = treeSet(project, placeId);
  return around.some((node) => node.kind !== "shown" && tree.has(node.at));
}
