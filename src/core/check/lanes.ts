/**
 * Hidden lanes and rests. What lies beneath the top of a stack is hidden too, under a mark that
 * names what lies next beneath; so stacks are followed to any depth, as the states of a
 * pushdown system are (Bouajjani, Esparza and Maler 1997), and not one by one. The branches
 * beneath a layer that blocks them are hidden in the same way, as layers are a stack of their
 * own: what a modal does is followed once, and not once for each page that it was opened over.
 *
 * Hidden lanes. The lanes of a tab set or drawer that are not active keep their content to
 * themselves, so the search does not multiply them: it notes what each lane held when it was
 * left, and lets a lane that is chosen again show any of that. What stands for a hidden lane
 * remembers the facts at the time it was left, so that what was left under some facts
 * never comes back under others. The state in between, in which it is not yet said what
 * shows, is a portal.
 */

import { lookup, modalOf } from "../model/lookup.ts";
import type { Project } from "../model/schema.ts";
import { makeLane } from "../semantics/make.ts";
import { branchesInReach } from "../semantics/reach.ts";
import { branchNode, withBranch, withChild } from "../semantics/state.ts";
import type { App, LaneNode, Node, Shown, StackNode, State } from "../semantics/types.ts";
import type { AbstractProject } from "./followed.ts";

/** What stands for the content of a hidden lane, for all that lies beneath the top of a stack, and for a branch beneath a blocking layer. */
const LANE = "~";
const REST = "^";
const UNDER = "_";

export function isHidden(node: Node): node is Shown {
  return node.kind === "shown" && (node.at[0] === LANE || node.at[0] === REST || node.at[0] === UNDER);
}

/** Whether a node stands for a whole branch beneath a blocking layer. */
export function isUnder(node: Node): node is Shown {
  return node.kind === "shown" && node.at[0] === UNDER;
}

/** Whether a node stands for all that lies beneath the top of a stack. */
export function isRest(node: Node): node is Shown {
  return node.kind === "shown" && node.at[0] === REST;
}

/** Takes what a lane holds as it is left, or a branch as it is covered; gives the mark under which that is known. */
export type Left = (lane: string, content: Node, of: LaneNode | StackNode | Covered) => string;

/** A branch beneath a layer: the branch beneath that one, if there is one, is hidden already. */
export interface Covered {
  kind: "covered";
  at: string;
  beneath: Node | undefined;
}

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
  return [...line.matchAll(/[~^_]([\w.]+#\d+)/g)].map((match) => match[1] ?? "");
}

/** What it takes to know what is hidden. */
export type Hiding = Pick<AbstractProject, "project" | "app" | "closeness">;

/** The state with its inactive lanes hidden; `left` is told what they held. */
export function hideLanes(abstract: Hiding, state: State, left: Left = (lane) => lane): State {
  const { project } = abstract;
  if (abstract.closeness.whole) return state;
  const base = hide(abstract, state.base, left);
  const layers = state.layers.map((layer) => {
    const content = hide(abstract, layer.content, left);
    return content === layer.content ? layer : { ...layer, content };
  });
  const shown = base === state.base && layers.every((layer, i) => layer === state.layers[i]) ? state : { ...state, base, layers };
  return abstract.closeness.apart ? shown : hideUnder(project, shown, left);
}

/** The state with all branches hidden that lie beneath a layer that blocks. */
function hideUnder(project: Project, state: State, left: Left): State {
  const blocking = state.layers.findLastIndex((layer) => modalOf(project, layer.at)?.blocks ?? true);
  let out = state;
  let beneath: Node | undefined;
  for (let branch = 0; branch <= blocking; branch++) {
    const node = branchNode(state, branch);
    const above = state.layers[branch]?.at ?? "";
    if (!isUnder(node)) {
      const name = branch === 0 ? above : `${state.layers[branch - 1]?.at}.${above}`;
      out = withBranch(out, branch, { kind: "shown", at: UNDER + left(name, node, { kind: "covered", at: above, beneath }), args: {} });
    }
    beneath = branchNode(out, branch);
  }
  return out;
}

function hide(abstract: Hiding, node: Node, left: Left): Node {
  switch (node.kind) {
    case "shown":
      return node;
    case "stack": {
      const items = hideAll(abstract, node.items, left);
      const same = items === node.items;
      const beneath = items[items.length - 2];
      if (!beneath || (items.length === 2 && isRest(beneath))) return same ? node : { ...node, items };
      const rest: StackNode = { ...node, items: items.slice(0, -1) };
      return { ...node, items: [{ kind: "shown", at: REST + left(`${node.at}.${beneath.at}`, rest, node), args: {} }, items[items.length - 1] as Node] };
    }
    case "tabs":
    case "drawer":
      return hideIn(abstract, node, left);
  }
}

/** The same list where nothing in it is hidden anew. */
function hideAll(abstract: Hiding, nodes: readonly Node[], left: Left): readonly Node[] {
  let out: Node[] | undefined;
  for (let i = 0; i < nodes.length; i++) {
    const node = nodes[i] as Node;
    const hidden = hide(abstract, node, left);
    if (hidden !== node && !out) out = nodes.slice(0, i);
    out?.push(hidden);
  }
  return out ?? nodes;
}

function hideIn<T extends LaneNode>(abstract: Hiding, node: T, left: Left): T {
  let lanes: Record<string, Node> | undefined;
  for (const id of Object.keys(node.lanes)) {
    const lane = node.lanes[id] as Node;
    const shown = hiddenLane(abstract, node, id, lane, left);
    if (shown === lane) continue;
    lanes ??= { ...node.lanes };
    lanes[id] = shown;
  }
  for (const id of keptMembers(abstract, node)) {
    if (Object.hasOwn(node.lanes, id)) continue;
    lanes ??= { ...node.lanes };
    lanes[id] = hiddenLane(abstract, node, id, makeLane(abstract.app.plan, id), left);
  }
  return lanes ? { ...node, lanes } : node;
}

/** A lane with what lies deeper in it hidden, and itself where it is not active. */
function hiddenLane(abstract: Hiding, node: LaneNode, id: string, lane: Node, left: Left): Node {
  if (id !== node.active && isHidden(lane)) return lane;
  const content = hide(abstract, lane, left);
  return id === node.active || isHidden(content) ? content : { kind: "shown", at: LANE + left(id, content, node), args: {} };
}

/**
 * The members of a tab set that keeps its lanes, and of a drawer where visits are not told
 * apart: one not visited yet counts as one that was left as it is made.
 */
function keptMembers({ project, closeness }: Hiding, node: LaneNode): readonly string[] {
  const container = lookup(project).containers.get(node.at);
  return (container?.kind === "tabs" || (container?.kind === "drawer" && !closeness.apart)) && container.keeps ? container.members : NONE;
}

const NONE: readonly string[] = [];

/** What is hidden and shows in a state of which it is not yet said what it is. */
export interface Portal {
  /** The mark under which that is hidden, and the branch that shows it. */
  lane: string;
  branch: number;
  /** What shows lay beneath what is gone now, on its stack or beneath its layer: there is less of it than there was. */
  beneath: boolean;
}

/** The hidden lane or branch that a state shows, for portals: on the topmost branch in reach that shows one. */
export function hiddenShown(app: App, state: State): Portal | undefined {
  for (const branch of branchesInReach(app, state)) {
    const shown = shownHidden(branchNode(state, branch));
    if (shown) return { lane: markOf(shown), branch, beneath: isRest(shown) || isUnder(shown) };
  }
  return undefined;
}

/** The mark of a hidden lane: its id and the stamp of its facts. */
export function markOf(node: Shown): string {
  return node.at.slice(1);
}

function shownHidden(node: Node): Shown | undefined {
  if (isHidden(node)) return node;
  const child = visible(node);
  return child && shownHidden(child);
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
