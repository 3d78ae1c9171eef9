import { lookup } from "../model/lookup.ts";
import type { Project } from "../model/schema.ts";
import { activate } from "./activate.ts";
import { upTarget } from "./bar.ts";
import { cutAt, withoutTop } from "./items.ts";
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
  if (branch > 0) return stack && stack.stack.items.length > 1 ? moved(pop(project, state, branch, stack)) : nothingToDo;
  const source = currentScreen(state, branch);
  const target = upTarget(project, source.at);
  if (target === undefined) return nothingToDo;
  const beneath = stack && cutAt(project, stack.stack.items.slice(0, -1), (item) => matching(project, item, target));
  if (stack && beneath) return moved(withItems(state, branch, stack, beneath));
  if (!lookup(project).places.has(target)) return refused("no-place");
  const gone = stack && stack.stack.items.length > 1 ? pop(project, state, branch, stack) : state;
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
    case "stack":
      return { ...node, items: cutAt(project, node.items, (item) => matching(project, item, target)) ?? trail(project, target, args) };
    case "tabs":
    case "drawer":
      return selectLane(project, node, target);
  }
}

/** An item that is the target or, the target being a screen, shows it. */
function matching(project: Project, item: Node, target: string): Node | undefined {
  return item.at === target || (lookup(project).screens.has(target) && shownIn(item).at === target) ? item : undefined;
}

/** The state with other items in the nearest stack of a branch. */
export function withItems(state: State, branch: number, { stack, depth }: { stack: StackNode; depth: number }, items: readonly Node[]): State {
  return updateBranch(state, branch, depth, { ...stack, items });
}

/** The state with the nearest stack of a branch less its top. */
export function pop(project: Project, state: State, branch: number, found: { stack: StackNode; depth: number }): State {
  return withItems(state, branch, found, withoutTop(project, found.stack.items));
}
