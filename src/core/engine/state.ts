import type { Json, NavEvent, Width } from "../model/schema.ts";

export type Args = Record<string, Json>;

/** A screen being shown, or lying beneath. `spent`: the `after` legs that have fired since it was made. */
export interface Shown {
  readonly kind: "shown";
  readonly at: string;
  readonly args: Args;
  readonly spent?: readonly string[];
}
/** A stack; items from the bottom to the top, at least one. */
export interface StackNode {
  readonly kind: "stack";
  readonly at: string;
  readonly items: readonly Node[];
}
/** A tab set; lanes by member id, `visited` latest last. */
export interface TabsNode {
  readonly kind: "tabs";
  readonly at: string;
  readonly active: string;
  readonly lanes: Readonly<Record<string, Node>>;
  readonly visited: readonly string[];
}
/** A drawer with what its members show; `open` is false while it is pinned. */
export interface DrawerNode {
  readonly kind: "drawer";
  readonly at: string;
  readonly active: string;
  readonly lanes: Readonly<Record<string, Node>>;
  readonly visited: readonly string[];
  readonly open: boolean;
}
export type LaneNode = TabsNode | DrawerNode;
export type Node = Shown | StackNode | LaneNode;

export interface Layer {
  readonly at: string;
  readonly content: Node;
}
export interface Waiting {
  readonly entrance: string;
  readonly args: Args;
}
/** An event other than using a leg. */
export type PlainEvent = Exclude<NavEvent, { do: "leg" }>;

export interface Held {
  readonly event: PlainEvent;
  /** The number of layers when the event was held. */
  readonly depth: number;
}
/** The whole navigation state; never changed in place, parts are shared between states. */
export interface State {
  readonly base: Node;
  readonly layers: readonly Layer[];
  readonly facts: Readonly<Record<string, Json>>;
  readonly width: Width;
  readonly waiting?: Waiting;
  readonly held?: Held;
}

/** The reasons that `refused` outcomes name. */
export type Refusal = "no-stack" | "not-showing" | "no-place" | "no-value" | "inside-itself" | "not-allowed" | "redirect-loop";
/** The reasons that `ignored` outcomes name: no such control now, or nothing that it would do. */
export type Idle = "no-such-control" | "nothing-to-do";

export type StepResult =
  | { state: State; outcome: "moved" }
  | { state: State; outcome: "ignored"; why: Idle }
  | { state: State; outcome: "refused"; why: Refusal }
  | { state: State; outcome: "left" };

/** What a move comes to: a new state, with the place that a push put into a stack again where anybody watches, or why there is none. */
export type Change = { is: "moved"; state: State; copied?: string } | { is: "ignored"; why: Idle } | { is: "refused"; why: Refusal } | { is: "left" };

export const moved = (state: State): Extract<Change, { is: "moved" }> => ({ is: "moved", state });
export const refused = (why: Refusal): Change => ({ is: "refused", why });
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
      return { ...node, items: [...node.items.slice(0, -1), child] };
    case "tabs":
    case "drawer":
      return { ...node, lanes: { ...node.lanes, [node.active]: child } };
  }
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
