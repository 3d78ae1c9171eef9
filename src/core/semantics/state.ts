import type { Change, DrawerNode, LaneNode, Node, Shown, StackNode, State } from "./types.ts";

export const moved = (state: State): Extract<Change, { is: "moved" }> => ({ is: "moved", state });
export const refused = (why: Extract<Change, { is: "refused" }>["why"]): Change => ({ is: "refused", why });
export const nothingToDo: Change = { is: "ignored", why: "nothing-to-do" };
export const noControl: Change = { is: "ignored", why: "no-such-control" };
export const left: Change = { is: "left" };

/** Branches by number: 0 is the base, n the content of layer n counted from 1. */
export function branchNode(state: State, branch: number): Node {
  return branch === 0 ? state.base : (state.layers[branch - 1]?.content ?? state.base);
}

export function topBranch(state: State): number {
  return state.layers.length;
}

export function withBranch(state: State, branch: number, node: Node): State {
  if (branch === 0) return { ...state, base: node };
  return { ...state, layers: state.layers.map((layer, i) => (i === branch - 1 ? { ...layer, content: node } : layer)) };
}

/** The state with only the first `count` layers. */
export function withLayers(state: State, count: number): State {
  return count >= state.layers.length ? state : { ...state, layers: state.layers.slice(0, count) };
}

/** The child on the visible path, or undefined for a screen. */
export function visibleChild(node: Node): Node | undefined {
  switch (node.kind) {
    case "shown":
      return undefined;
    case "stack":
      return node.items[node.items.length - 1];
    case "tabs":
    case "drawer":
      return node.lanes[node.active];
  }
}

/** The visible path from a node down to the screen at its end. */
export function visiblePath(node: Node): Node[] {
  const path: Node[] = [node];
  for (let at = visibleChild(node); at; at = visibleChild(at)) path.push(at);
  return path;
}

/** The screen at the end of a node's visible path. */
export function shownIn(node: Node): Shown {
  let at = node;
  while (at.kind !== "shown") {
    const child = visibleChild(at);
    if (!child) throw new Error(`${at.at} has nothing to show; every container in a state shows something`);
    at = child;
  }
  return at;
}

/** The current screen: that of the topmost branch, or of the branch given. */
export function currentScreen(state: State, branch = topBranch(state)): Shown {
  return shownIn(branchNode(state, branch));
}

/** A node whose visible child is another one. */
export function withChild(node: Node, child: Node): Node {
  switch (node.kind) {
    case "shown":
      return child;
    case "stack":
      return { ...node, items: withTop(node.items, child) };
    case "tabs":
    case "drawer":
      return { ...node, lanes: withLane(node.lanes, node.active, child) };
  }
}

/** Items with another one on top in place of the top one. */
function withTop(items: readonly Node[], top: Node): Node[] {
  const out = items.slice();
  out[out.length - 1] = top;
  return out;
}

/** Lanes with another content for one. Written so because an engine is several times as fast with it as with a computed name. */
export function withLane(lanes: LaneNode["lanes"], id: string, content: Node): LaneNode["lanes"] {
  const out: Record<string, Node> = { ...lanes };
  out[id] = content;
  return out;
}

/** Replaces the node at a depth of the visible path (0 is the top node) and everything above it that holds it. */
export function replaceOnPath(path: readonly Node[], depth: number, node: Node): Node {
  let out = node;
  for (let i = depth - 1; i >= 0; i--) out = withChild(path[i] as Node, out);
  return out;
}

/** Replaces the node at a depth of a branch's visible path. */
export function updateBranch(state: State, branch: number, depth: number, node: Node): State {
  return withBranch(state, branch, replaceOnPath(visiblePath(branchNode(state, branch)), depth, node));
}

/** The index on the path of the last node that passes, or -1. */
export function nearest<T extends Node>(path: readonly Node[], passes: (node: Node) => node is T): number {
  for (let i = path.length - 1; i >= 0; i--) if (passes(path[i] as Node)) return i;
  return -1;
}

export const isStack = (node: Node): node is StackNode => node.kind === "stack";
export const isDrawer = (node: Node): node is DrawerNode => node.kind === "drawer";

/** The nearest stack around the current screen of a branch, with its depth on the visible path. */
export function nearestStack(state: State, branch: number): { stack: StackNode; depth: number } | undefined {
  const path = visiblePath(branchNode(state, branch));
  const depth = nearest(path, isStack);
  return depth < 0 ? undefined : { stack: path[depth] as StackNode, depth };
}

/** The depth of the innermost open drawer on a path, or -1. */
export function openDrawerDepth(path: readonly Node[]): number {
  return nearest(path, isOpenDrawer);
}

/** Whether a node is a drawer that is open. A pinned drawer is never open. */
export const isOpenDrawer = (node: Node): node is DrawerNode => node.kind === "drawer" && node.open;

/** All screens that stand in a state, page first, those that show and those that do not. */
export function screensIn(state: State): Shown[] {
  return [state.base, ...state.layers.map(({ content }) => content)].flatMap(screensOf);
}

/** All screens that stand in a node. */
export function screensOf(node: Node): Shown[] {
  if (node.kind === "shown") return [node];
  return (node.kind === "stack" ? node.items : Object.values(node.lanes)).flatMap(screensOf);
}
