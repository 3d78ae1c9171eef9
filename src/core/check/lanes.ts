/**
 * Hidden lanes. The lanes of a tab set or drawer that are not active keep their content to
 * themselves, so the search does not multiply them: it notes what each lane held when it was
 * left, and lets a lane that is chosen again show any of that. The state in between, in
 * which it is not yet said what shows, is a portal.
 */
import type { LaneNode, Node, State } from "../engine/state.ts";
import { branchNode, topBranch, withBranch, withChild } from "../engine/state.ts";

/** What stands for the content of a hidden lane. */
const mark = "~";

export function isHidden(node: Node): boolean {
  return node.kind === "shown" && node.at.startsWith(mark);
}

/** The state with its inactive lanes hidden; `left` is told what they held. */
export function hideLanes(state: State, left: (lane: string, content: Node) => void = () => undefined): State {
  const base = hide(state.base, left);
  const layers = state.layers.map((layer) => {
    const content = hide(layer.content, left);
    return content === layer.content ? layer : { ...layer, content };
  });
  return base === state.base && layers.every((layer, i) => layer === state.layers[i]) ? state : { ...state, base, layers };
}

function hide(node: Node, left: (lane: string, content: Node) => void): Node {
  switch (node.kind) {
    case "shown":
      return node;
    case "stack": {
      const items = node.items.map((item) => hide(item, left));
      return items.every((item, i) => item === node.items[i]) ? node : { ...node, items };
    }
    case "tabs":
    case "drawer":
      return hideIn(node, left);
  }
}

function hideIn<T extends LaneNode>(node: T, left: (lane: string, content: Node) => void): T {
  const lanes: Record<string, Node> = {};
  let same = true;
  for (const [id, lane] of Object.entries(node.lanes)) {
    const content = hide(lane, left);
    if (id === node.active || isHidden(content)) lanes[id] = content;
    else {
      left(id, content);
      lanes[id] = { kind: "shown", at: mark + id, args: {} };
    }
    same &&= lanes[id] === lane;
  }
  return same ? node : { ...node, lanes };
}

/** The hidden lane that a state shows, for portals: on the topmost branch that shows one. */
export function hiddenShown(state: State): { lane: string; branch: number } | undefined {
  for (let branch = topBranch(state); branch >= 0; branch--) {
    const lane = shownLane(branchNode(state, branch));
    if (lane !== undefined) return { lane, branch };
  }
  return undefined;
}

function shownLane(node: Node): string | undefined {
  if (isHidden(node)) return node.at.slice(mark.length);
  const child = visible(node);
  return child && shownLane(child);
}

function visible(node: Node): Node | undefined {
  return node.kind === "shown" ? undefined : node.kind === "stack" ? node.items[node.items.length - 1] : node.lanes[node.active];
}

/** A portal with the content of its lane filled in. */
export function revealed(state: State, branch: number, content: Node): State {
  const fill = (node: Node): Node => {
    if (isHidden(node)) return content;
    const child = visible(node);
    return child ? withChild(node, fill(child)) : node;
  };
  return withBranch(state, branch, fill(branchNode(state, branch)));
}
