/**
 * Hiding what does not show, and showing it again. What lies beneath the top of a stack, lanes that are not active, and branches beneath a
 * layer that blocks them are each replaced by the name of a context (contexts.ts). A state in which it is not yet said what shows, because
 * a context has just been uncovered, is pending.
 */

import { lookup, modalOf } from "../../model/lookup.ts";
import { once } from "../../model/once.ts";
import type { Project } from "../../model/schema.ts";
import type { Plan } from "../../plan/plan.ts";
import { makeLane } from "../../semantics/make.ts";
import { branchesInReach } from "../../semantics/reach.ts";
import { branchNode, withBranch, withChild } from "../../semantics/state.ts";
import type { App, LaneNode, Layer, Node, Shown, StackNode, State } from "../../semantics/types.ts";
import { visitsOf } from "./precision.ts";
import type { Abstraction } from "./types.ts";

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

/** What stands for the content of a hidden lane. */
export function laneOf(context: string): string {
  return LANE + context;
}

/** The item that stands for all that a stack holds whose content is a context. */
export function restOn(context: string): string {
  return REST + context;
}

/** Takes the name of a context that comes about and what it holds; gives the name under which that is known. */
export type Left = (name: string, content: Node, of: LaneNode | StackNode | Covered) => string;

/** A branch beneath a layer: the branch beneath that one, if there is one, is hidden already. */
export interface Covered {
  kind: "covered";
  at: string;
  beneath: Node | undefined;
}

/** A hidden node in a line. */
const NAMES = /([~^_])([\w.]+)(#\d+)?((?:\/[\w ]+)*)/g;

/** A line without the names of its contexts. */
export function withoutContexts(line: string): string {
  return line.replace(NAMES, "$1");
}

/** A line or key with contexts known by their place alone. */
export function withoutParts(line: string): string {
  return line.replace(NAMES, "$1$2");
}

/** The contexts in a line, in order. */
export function contextsIn(line: string): string[] {
  return [...line.matchAll(NAMES)].map(([text]) => text.slice(1));
}

/** What the name of a context says beside its place: the moment at which it came about, and what was cut from it or is not in it. */
function suffixOf(context: string): string {
  const at = context.search(/[#/]/);
  return at < 0 ? "" : context.slice(at);
}

/** What stays of the suffix where another item comes to lie on a context: all of it, or where contexts are known by their place what they were and are without. */
function keptSuffix({ precision }: Hiding, context: string): string {
  const suffix = suffixOf(context);
  return precision.contexts === "moment" ? suffix : suffix.replace(/\/(?!no ).*$/, "");
}

/** The name of a context without its suffix. */
export function placeOf(context: string): string {
  return context.slice(0, context.length - suffixOf(context).length);
}

/** What it takes to know what is hidden. */
export type Hiding = Pick<Abstraction, "project" | "app" | "precision">;

/** The state with what does not show hidden; `left` is told what that was. */
export function hideContexts(abstraction: Hiding, state: State, left: Left = (name) => name): State {
  const { project } = abstraction;
  if (abstraction.precision.whole) return state;
  const base = hide(abstraction, state.base, left);
  const layers = state.layers.map((layer) => {
    const content = hide(abstraction, layer.content, left);
    return content === layer.content ? layer : { ...layer, content };
  });
  const shown = base === state.base && layers.every((layer, i) => layer === state.layers[i]) ? state : { ...state, base, layers };
  return abstraction.precision.apart ? shown : hideUnder(project, shown, left);
}

/**
 * The state with all branches hidden that lie beneath a layer that blocks. What they hold is known by the lowest that does, over which they showed until
 * it opened, and by the layer next above, where that is another.
 */
function hideUnder(project: Project, state: State, left: Left): State {
  const blocks = (layer: Layer) => modalOf(project, layer.at)?.blocks ?? true;
  const blocking = state.layers.findLastIndex(blocks);
  let out = state;
  let beneath: Node | undefined;
  for (let branch = 0; branch <= blocking; branch++) {
    const node = branchNode(state, branch);
    const covering = state.layers.slice(branch).find(blocks)?.at ?? "";
    const next = state.layers[branch]?.at ?? "";
    const above = next === covering ? covering : `${covering}_${next}`;
    if (!isUnder(node)) {
      const name = branch === 0 ? above : `${state.layers[branch - 1]?.at}.${above}`;
      out = withBranch(out, branch, { kind: "shown", at: UNDER + left(name, node, { kind: "covered", at: above, beneath }), args: {} });
    }
    beneath = branchNode(out, branch);
  }
  return out;
}

/** A node with what does not show in it hidden. */
export function hide(abstraction: Hiding, node: Node, left: Left = (name) => name): Node {
  switch (node.kind) {
    case "shown":
      return node;
    case "stack": {
      const items = hideAll(abstraction, node.items, left);
      const beneath = items[items.length - 2];
      const top = items[items.length - 1] as Node;
      const name = `${node.at}.${top.at}${beneath && isRest(beneath) ? keptSuffix(abstraction, contextOf(beneath)) : ""}`;
      const isNamed = beneath && isRest(beneath) && (contextOf(beneath) === name || !placeOf(contextOf(beneath)).includes("."));
      if (!beneath || (items.length === 2 && isNamed)) return items === node.items ? node : { ...node, items };
      const rest: StackNode = { ...node, items: items.slice(0, -1) };
      return { ...node, items: [{ kind: "shown", at: restOn(left(items.length === 2 ? name : `${node.at}.${top.at}`, rest, node)), args: {} }, top] };
    }
    case "tabs":
    case "drawer":
      return hideIn(abstraction, node, left);
  }
}

/** The same list where nothing in it is newly hidden. */
function hideAll(abstraction: Hiding, nodes: readonly Node[], left: Left): readonly Node[] {
  let out: Node[] | undefined;
  for (let i = 0; i < nodes.length; i++) {
    const node = nodes[i] as Node;
    const hidden = hide(abstraction, node, left);
    if (hidden !== node && !out) out = nodes.slice(0, i);
    out?.push(hidden);
  }
  return out ?? nodes;
}

function hideIn<T extends LaneNode>(abstraction: Hiding, known: T, left: Left): T {
  const node = withoutVisits(abstraction, known);
  let lanes: Record<string, Node> | undefined;
  for (const id of Object.keys(node.lanes)) {
    const lane = node.lanes[id] as Node;
    const shown = hiddenLane(abstraction, node, id, lane, left);
    if (shown === lane) continue;
    lanes ??= { ...node.lanes };
    lanes[id] = shown;
  }
  for (const id of keptMembers(abstraction, node)) {
    if (Object.hasOwn(node.lanes, id)) continue;
    lanes ??= { ...node.lanes };
    lanes[id] = hiddenLane(abstraction, node, id, makeLane(abstraction.app.plan, id), left);
  }
  return lanes ? { ...node, lanes } : node;
}

/** The node with the lane alone that is active as visited, where the order of visits is not followed. */
function withoutVisits<T extends LaneNode>({ project, precision }: Hiding, node: T): T {
  if (node.visited.length < 2 || !asksVisits(project, node.at) || precision.follows.has(visitsOf(node.at))) return node;
  return { ...node, visited: [node.active] };
}

function asksVisits(project: Project, id: string): boolean {
  const container = lookup(project).containers.get(id);
  return container?.kind === "tabs" && container.onBack === "previous";
}

/** A lane with what lies deeper in it hidden, and itself where it is not active. */
function hiddenLane(abstraction: Hiding, node: LaneNode, id: string, lane: Node, left: Left): Node {
  if (id !== node.active && isHidden(lane)) return lane;
  const content = hide(abstraction, lane, left);
  return id === node.active || isHidden(content) ? content : { kind: "shown", at: laneOf(left(id, content, node)), args: {} };
}

/**
 * The members of a tab set that keeps its lanes, and of a drawer where visits are not told
 * apart: one not visited yet counts as one that was left as it is made.
 */
function keptMembers({ project, precision }: Hiding, node: LaneNode): readonly string[] {
  const container = lookup(project).containers.get(node.at);
  return (container?.kind === "tabs" || (container?.kind === "drawer" && !precision.apart)) && container.keeps ? container.members : NONE;
}

const NONE: readonly string[] = [];

/** What shows in a state of which it is not yet said what it is. */
export interface Pending {
  context: string;
  /** The branch that shows it. */
  branch: number;
  /** It lay beneath what is gone now, on its stack or beneath its layer: there is less of it than there was. */
  beneath: boolean;
}

/** What is pending in a state: on the topmost branch in reach whose screen is hidden. */
export function pendingIn(app: App, state: State): Pending | undefined {
  for (const branch of branchesInReach(app, state)) {
    const shown = shownHidden(branchNode(state, branch));
    if (shown) return { context: contextOf(shown), branch, beneath: isRest(shown) || isUnder(shown) };
  }
  return undefined;
}

/** The name of the context that a node stands for. */
export function contextOf(node: Shown): string {
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

/** A pending state with what shows filled in. */
export function revealed(state: State, branch: number, content: Node): State {
  const fill = (node: Node): Node => {
    if (node.kind === "stack" && content.kind === "stack" && node.items.some(isRest) && node.items.length === 1) return { ...node, items: content.items };
    if (isHidden(node)) return content;
    const child = visible(node);
    return child ? withChild(node, fill(child)) : node;
  };
  return withBranch(state, branch, fill(branchNode(state, branch)));
}

/** A state in which the context beneath each stack that shows is another one. */
export function mapRests(state: State, other: (context: string) => string): State {
  const map = (node: Node): Node => {
    const child = visible(node);
    if (!child) return node;
    const within = child === node ? node : withChild(node, map(child));
    if (within.kind !== "stack") return within;
    const [lowest, ...others] = within.items;
    return lowest && isRest(lowest) ? { ...within, items: [{ ...lowest, at: restOn(other(contextOf(lowest))) }, ...others] } : within;
  };
  const layers = state.layers.map((layer) => ({ ...layer, content: map(layer.content) }));
  return { ...state, base: map(state.base), layers };
}

/** The containers in a node, those of lanes that were never visited among them, and the contexts hidden in it. */
export function heldBy(plan: Plan, node: Node): { containers: ReadonlySet<string>; hidden: readonly string[] } {
  const kept = once(plan, heldInNodes);
  const known = kept.get(node);
  if (known) return known;
  const containers = new Set<string>();
  const hidden = new Set<string>();
  const visit = (at: Node) => {
    if (isHidden(at)) hidden.add(contextOf(at));
    if (at.kind === "shown") return;
    containers.add(at.at);
    if (at.kind === "stack") return at.items.forEach(visit);
    for (const id of plan.containers.get(at.at)?.members ?? [])
      if (!Object.hasOwn(at.lanes, id)) for (const inside of plan.containers.get(id)?.holds ?? []) containers.add(inside);
    Object.values(at.lanes).forEach(visit);
  };
  visit(node);
  const made = { containers, hidden: [...hidden] };
  kept.set(node, made);
  return made;
}

const heldInNodes = (_: Plan) => new WeakMap<Node, { containers: ReadonlySet<string>; hidden: readonly string[] }>();
