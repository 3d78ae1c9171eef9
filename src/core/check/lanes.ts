/**
 * Hidden lanes. The lanes of a tab set or drawer that are not active keep their content to
 * themselves, so the search does not multiply them: it notes what each lane held when it was
 * left, and lets a lane that is chosen again show any of that. What stands for a hidden lane
 * remembers the facts at the time it was left, so that what was left under some facts
 * never comes back under others. The state in between, in which it is not yet said what
 * shows, is a portal.
 */
import type { LaneNode, Node, Shown, State } from "../engine/state.ts";
import { branchNode, topBranch, withBranch, withChild } from "../engine/state.ts";

/** What stands for the content of a hidden lane. */
const mark = "~";

export function isHidden(node: Node): node is Shown {
  return node.kind === "shown" && node.at.startsWith(mark);
}

/** Takes what a lane holds as it is left; gives the mark under which that is known. */
export type Left = (lane: string, content: Node, of: LaneNode) => string;

/** Between a lane's id and the number of the facts under which it was left. */
const STAMP = "#";

/** The id of a lane, and of the facts under which it was left, as one name. */
export function stamped(lane: string, facts: number): string {
  return `${lane}${STAMP}${facts}`;
}

/** Text without the stamps: concrete states do not remember under which facts a lane was left. */
export function withoutStamps(text: string): string {
  return text.replace(/#\d+/g, "");
}

/** The marks of the hidden lanes in a line, in order. */
export function stampsIn(line: string): string[] {
  return [...line.matchAll(/~(\w+#\d+)/g)].map((match) => match[1] ?? "");
}

/** The state with its inactive lanes hidden; `left` is told what they held. */
export function hideLanes(state: State, left: Left = (lane) => lane): State {
  const base = hide(state.base, left);
  const layers = state.layers.map((layer) => {
    const content = hide(layer.content, left);
    return content === layer.content ? layer : { ...layer, content };
  });
  return base === state.base && layers.every((layer, i) => layer === state.layers[i]) ? state : { ...state, base, layers };
}

function hide(node: Node, left: Left): Node {
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

function hideIn<T extends LaneNode>(node: T, left: Left): T {
  const lanes: Record<string, Node> = {};
  let same = true;
  for (const [id, lane] of Object.entries(node.lanes)) {
    const content = hide(lane, left);
    if (id === node.active || isHidden(content)) lanes[id] = content;
    else {
      lanes[id] = { kind: "shown", at: mark + left(id, content, node), args: {} };
    }
    same &&= lanes[id] === lane;
  }
  return same ? node : { ...node, lanes };
}

/** The hidden lane that a state shows, by its mark, for portals: on the topmost branch that shows one. */
export function hiddenShown(state: State): { lane: string; branch: number } | undefined {
  for (let branch = topBranch(state); branch >= 0; branch--) {
    const lane = shownLane(branchNode(state, branch));
    if (lane !== undefined) return { lane, branch };
  }
  return undefined;
}

/** The mark of a hidden lane: its id and the stamp of its facts. */
export function markOf(node: Shown): string {
  return node.at.slice(mark.length);
}

function shownLane(node: Node): string | undefined {
  if (isHidden(node)) return markOf(node);
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
