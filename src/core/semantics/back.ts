import { closed, previousLane, selectLane } from "./lanes.ts";
import { branchNode, left, moved, nothingToDo, openDrawerDepth, updateBranch, visiblePath, withLayers } from "./state.ts";
import type { App, Change, Node, State } from "./types.ts";

/** Back on a branch, without asking depart legs: an open drawer, then from the innermost container outwards, then the layer or the app. */
export function goBack(app: App, state: State, branch: number): Change {
  const path = visiblePath(branchNode(state, branch));
  const open = openDrawerDepth(path);
  const drawer = path[open];
  if (drawer) return closesOnBack(app, drawer.at) ? moved(updateBranch(state, branch, open, closed(drawer))) : nothingToDo;
  for (let depth = path.length - 1; depth >= 0; depth--) {
    const next = backIn(app, path[depth] as Node);
    if (next) return moved(updateBranch(state, branch, depth, next));
  }
  const layer = state.layers[branch - 1];
  if (!layer) return left;
  return closesOnBack(app, layer.at) ? moved(withLayers(state, branch - 1)) : nothingToDo;
}

function closesOnBack(app: App, id: string): boolean {
  return app.plan.containers.get(id)?.closeOn?.includes("back") === true;
}

/** What Back makes of one container, or undefined where it passes on outwards. */
function backIn(app: App, node: Node): Node | undefined {
  if (node.kind === "shown") return undefined;
  if (node.kind === "stack") return node.items.length > 1 ? { ...node, items: app.stacks.pop(node.items) } : undefined;
  const container = app.plan.containers.get(node.at);
  switch (container?.onBack) {
    case "start":
      return node.active === container.start ? undefined : selectLane(app, node, container.start);
    case "previous":
      return previousLane(app, node);
    default:
      return undefined;
  }
}
