import { drawerOf, lookup, modalOf } from "../model/lookup.ts";
import type { Project } from "../model/schema.ts";
import { withoutTop } from "./items.ts";
import { closed, previousLane, selectLane } from "./lanes.ts";
import { branchNode, type Change, left, moved, type Node, nothingToDo, type State, updateBranch, visiblePath, withLayers } from "./state.ts";

/** Back on a branch, without asking depart legs: an open drawer, then from the innermost container outwards, then the layer or the app. */
export function goBack(project: Project, state: State, branch: number): Change {
  const path = visiblePath(branchNode(state, branch));
  const open = openDrawerDepth(path);
  if (open >= 0) {
    const node = path[open] as Node;
    return drawerOf(project, node.at)?.closeOn.includes("back") ? moved(updateBranch(state, branch, open, closed(node))) : nothingToDo;
  }
  for (let depth = path.length - 1; depth >= 0; depth--) {
    const next = backIn(project, path[depth] as Node);
    if (next) return moved(updateBranch(state, branch, depth, next));
  }
  if (branch === 0) return left;
  const layer = state.layers[branch - 1];
  return layer && modalOf(project, layer.at)?.closeOn.includes("back") ? moved(withLayers(state, branch - 1)) : nothingToDo;
}

/** What Back makes of one container, or undefined where it passes on outwards. */
function backIn(project: Project, node: Node): Node | undefined {
  if (node.kind === "shown") return undefined;
  if (node.kind === "stack") return node.items.length > 1 ? { ...node, items: withoutTop(project, node.items) } : undefined;
  const container = lookup(project).containers.get(node.at);
  if (container?.kind !== "tabs" && container?.kind !== "drawer") return undefined;
  switch (container.onBack) {
    case "leave":
      return undefined;
    case "start":
      return node.active === container.start ? undefined : selectLane(project, node, container.start);
    case "previous":
      return previousLane(project, node);
  }
}

/** The depth of the innermost open drawer on a path, or -1. */
export function openDrawerDepth(path: readonly Node[]): number {
  return path.findLastIndex((node) => node.kind === "drawer" && node.open);
}
