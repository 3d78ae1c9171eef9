/**
 * Hidden lanes and rests. What lies beneath the top of a stack is hidden too, under a mark that
 * names what lies next beneath; so stacks are followed to any depth, as the states of a
 * pushdown system are (Bouajjani, Esparza and Maler 1997), and not one by one.
 *
 * Hidden lanes. The lanes of a tab set or drawer that are not active keep their content to
 * themselves, so the search does not multiply them: it notes what each lane held when it was
 * left, and lets a lane that is chosen again show any of that. What stands for a hidden lane
 * remembers the facts at the time it was left, so that what was left under some facts
 * never comes back under others. The state in between, in which it is not yet said what
 * shows, is a portal.
 */

import { make } from "../engine/make.ts";
import type { LaneNode, Node, Shown, StackNode, State } from "../engine/state.ts";
import { branchNode, topBranch, withBranch, withChild } from "../engine/state.ts";
import { lookup } from "../model/lookup.ts";
import type { Project } from "../model/schema.ts";

/** What stands for the content of a hidden lane, and for all that lies beneath the top of a stack. */
const LANE = "~";
const REST = "^";

export function isHidden(node: Node): node is Shown {
  return node.kind === "shown" && (node.at.startsWith(LANE) || node.at.startsWith(REST));
}

/** Whether a node stands for all that lies beneath the top of a stack. */
export function isRest(node: Node): node is Shown {
  return node.kind === "shown" && node.at.startsWith(REST);
}

/** Takes what a lane holds as it is left; gives the mark under which that is known. */
export type Left = (lane: string, content: Node, of: LaneNode | StackNode) => string;

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
  return [...line.matchAll(/[~^]([\w.]+#\d+)/g)].map((match) => match[1] ?? "");
}

/** The state with its inactive lanes hidden; `left` is told what they held. */
export function hideLanes(project: Project, state: State, left: Left = (lane) => lane): State {
  const base = hide(project, state.base, left);
  const layers = state.layers.map((layer) => {
    const content = hide(project, layer.content, left);
    return content === layer.content ? layer : { ...layer, content };
  });
  return base === state.base && layers.every((layer, i) => layer === state.layers[i]) ? state : { ...state, base, layers };
}

function hide(project: Project, node: Node, left: Left): Node {
  switch (node.kind) {
    case "shown":
      return node;
    case "stack": {
      const items = node.items.map((item) => hide(project, item, left));
      const same = items.every((item, i) => item === node.items[i]);
      const beneath = items[items.length - 2];
      if (!beneath || (items.length === 2 && isRest(beneath))) return same ? node : { ...node, items };
      const rest: StackNode = { ...node, items: items.slice(0, -1) };
      return { ...node, items: [{ kind: "shown", at: REST + left(`${node.at}.${beneath.at}`, rest, node), args: {} }, items[items.length - 1] as Node] };
    }
    case "tabs":
    case "drawer":
      return hideIn(project, node, left);
  }
}

function hideIn<T extends LaneNode>(project: Project, node: T, left: Left): T {
  const lanes: Record<string, Node> = {};
  let same = true;
  for (const id of new Set([...Object.keys(node.lanes), ...keptMembers(project, node)])) {
    const lane = node.lanes[id];
    const content = hide(project, lane ?? make(project, id), left);
    if (id === node.active || isHidden(content)) lanes[id] = content;
    else {
      lanes[id] = { kind: "shown", at: LANE + left(id, content, node), args: {} };
    }
    same &&= lanes[id] === lane;
  }
  return same ? node : { ...node, lanes };
}

/**
 * The members of a tab set that keeps its lanes: one not visited yet counts as one that was
 * left as it is made, so that the search does not tell apart which have been visited.
 */
function keptMembers(project: Project, node: LaneNode): string[] {
  const container = lookup(project).containers.get(node.at);
  return container?.kind === "tabs" && container.keeps ? container.members : [];
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
  return node.at.slice(1);
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
    if (node.kind === "stack" && content.kind === "stack" && node.items.some(isRest) && node.items.length === 1) return { ...node, items: content.items };
    if (isHidden(node)) return content;
    const child = visible(node);
    return child ? withChild(node, fill(child)) : node;
  };
  return withBranch(state, branch, fill(branchNode(state, branch)));
}
