import { lookup } from "../model/lookup.ts";
import type { Project } from "../model/schema.ts";
import { activate } from "./activate.ts";
import { upTarget } from "./bar.ts";
import { selectLane } from "./lanes.ts";
import {
  branchNode,
  type Change,
  currentScreen,
  moved,
  type Node,
  nearestStack,
  nothingToDo,
  refused,
  type StackNode,
  type State,
  shownIn,
  updateBranch,
  visiblePath,
} from "./state.ts";
import { rebuild, trail } from "./trail.ts";

/** Up, as the lead or as a move, on a branch. In a layer it is going back in the nearest stack. */
export function goUp(project: Project, state: State, branch: number): Change {
  const stack = nearestStack(state, branch);
  if (branch > 0) return stack && stack.stack.items.length > 1 ? moved(popTo(state, branch, stack, stack.stack.items.length - 1)) : nothingToDo;
  const source = currentScreen(state, branch);
  const target = upTarget(project, source.at);
  if (target === undefined) return nothingToDo;
  const beneath = stack ? topmostMatch(project, stack.stack.items.slice(0, -1), target) : -1;
  if (stack && beneath >= 0) return moved(popTo(state, branch, stack, beneath + 1));
  if (!lookup(project).places.has(target)) return refused("no-place");
  const gone = stack && stack.stack.items.length > 1 ? popTo(state, branch, stack, stack.stack.items.length - 1) : state;
  const owner = lookup(project).owners.get(target);
  const found = owner && owner.kind !== "modal" ? activate(project, gone, owner.id) : undefined;
  if (!found) return rebuild(project, state, target, source.args);
  const node = visiblePath(branchNode(found.state, found.branch))[found.depth] as Node;
  return moved(updateBranch(found.state, found.branch, found.depth, arrived(project, node, target, source.args)));
}

/** The owner of an up target, once it is on the visible path, showing that target. */
function arrived(project: Project, node: Node, target: string, args: Parameters<typeof trail>[2]): Node {
  switch (node.kind) {
    case "shown":
      return node;
    case "stack": {
      const at = topmostMatch(project, node.items, target);
      return { ...node, items: at >= 0 ? node.items.slice(0, at + 1) : trail(project, target, args) };
    }
    case "tabs":
    case "drawer":
      return selectLane(project, node, target);
  }
}

/** The index of the topmost item that is the target or, the target being a screen, shows it; or -1. */
function topmostMatch(project: Project, items: readonly Node[], target: string): number {
  const isScreen = lookup(project).screens.has(target);
  return items.findLastIndex((item) => item.at === target || (isScreen && shownIn(item).at === target));
}

/** The state with the nearest stack of a branch cut to its first `count` items. */
export function popTo(state: State, branch: number, { stack, depth }: { stack: StackNode; depth: number }, count: number): State {
  return updateBranch(state, branch, depth, { ...stack, items: stack.items.slice(0, count) });
}
