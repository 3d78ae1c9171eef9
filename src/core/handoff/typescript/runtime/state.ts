import type { Args, ContainerPlan, Event, Json, Plan, ScreenPlan, Width } from "./plan.ts";

/** A screen being shown, or lying beneath. */
export interface Shown {
  readonly kind: "shown";
  readonly at: string;
  readonly args: Args;
  readonly spent?: readonly string[];
}
export interface Stack {
  readonly kind: "stack";
  readonly at: string;
  readonly items: readonly Node[];
}
/** A tab set or a drawer; `open` is for drawers alone. */
export interface Lanes {
  readonly kind: "tabs" | "drawer";
  readonly at: string;
  readonly active: string;
  readonly lanes: Readonly<Record<string, Node>>;
  readonly visited: readonly string[];
  readonly open: boolean;
}
export type Node = Shown | Stack | Lanes;

/** The whole navigation state. It is plain data: it can be kept and read back as JSON. */
export interface State {
  readonly base: Node;
  readonly layers: ReadonlyArray<{ readonly at: string; readonly content: Node }>;
  readonly facts: Args;
  readonly width: Width;
  readonly waiting?: { readonly entrance: string; readonly args: Args };
  readonly held?: { readonly event: Event; readonly depth: number };
}

export type Outcome =
  | { readonly outcome: "moved" | "left"; readonly state: State; readonly why?: undefined }
  | { readonly outcome: "ignored" | "refused"; readonly state: State; readonly why: string };

/** What a move comes to before it is made. */
export type Change = { is: "moved"; state: State } | { is: "ignored" | "refused"; why: string } | { is: "left" };
export const moved = (state: State): Change => ({ is: "moved", state });
export const refused = (why: string): Change => ({ is: "refused", why });
export const nothingToDo: Change = { is: "ignored", why: "nothing-to-do" };
export const noControl: Change = { is: "ignored", why: "no-such-control" };

export function screenOf(plan: Plan, id: string): ScreenPlan | undefined {
  const place = plan.places[id];
  return place?.kind === "screen" ? place : undefined;
}
export function containerOf(plan: Plan, id: string): ContainerPlan | undefined {
  const place = plan.places[id];
  return place === undefined || place.kind === "screen" ? undefined : place;
}
const ownersOf = new WeakMap<Plan, Map<string, string>>();
/** The container that lists a place. */
export function ownerOf(plan: Plan, id: string): string | undefined {
  let owners = ownersOf.get(plan);
  if (!owners) {
    owners = new Map();
    for (const at of Object.keys(plan.places)) for (const member of containerOf(plan, at)?.members ?? []) if (!owners.has(member)) owners.set(member, at);
    ownersOf.set(plan, owners);
  }
  return owners.get(id);
}

/** Branch 0 is the base, branch n the content of layer n. */
export function branch(state: State, n: number): Node {
  return n === 0 ? state.base : (state.layers[n - 1]?.content ?? state.base);
}
export function top(state: State): number {
  return state.layers.length;
}
export function withBranch(state: State, n: number, node: Node): State {
  return n === 0 ? { ...state, base: node } : { ...state, layers: state.layers.map((layer, i) => (i === n - 1 ? { ...layer, content: node } : layer)) };
}
export function withLayers(state: State, count: number): State {
  return count >= state.layers.length ? state : { ...state, layers: state.layers.slice(0, count) };
}
export function child(node: Node): Node | undefined {
  return node.kind === "shown" ? undefined : node.kind === "stack" ? node.items.at(-1) : node.lanes[node.active];
}
function withChild(node: Node, inner: Node): Node {
  if (node.kind === "shown") return inner;
  if (node.kind === "stack") return { ...node, items: [...node.items.slice(0, -1), inner] };
  return { ...node, lanes: { ...node.lanes, [node.active]: inner } };
}
/** From a node down to the screen that shows. */
export function path(node: Node): Node[] {
  const out = [node];
  for (let at = child(node); at; at = child(at)) out.push(at);
  return out;
}
export function shownIn(node: Node): Shown {
  const last = path(node).at(-1);
  return last?.kind === "shown" ? last : { kind: "shown", at: node.at, args: {} };
}
export function current(state: State, n: number = top(state)): Shown {
  return shownIn(branch(state, n));
}
/** The node at a depth of a path exchanged, and all above it that hold it. */
export function replaceOn(nodes: readonly Node[], depth: number, node: Node): Node {
  return nodes.slice(0, depth).reduceRight((inner, outer) => withChild(outer, inner), node);
}
export function update(state: State, n: number, depth: number, node: Node): State {
  return withBranch(state, n, replaceOn(path(branch(state, n)), depth, node));
}
/** The depth of the innermost node of a kind on a branch's path, or -1. */
export function nearest(state: State, n: number, kind: Node["kind"]): number {
  return path(branch(state, n)).findLastIndex((node) => node.kind === kind);
}
export function nearestStack(state: State, n: number): { stack: Stack; depth: number } | undefined {
  const depth = nearest(state, n, "stack");
  const stack = path(branch(state, n))[depth];
  return stack?.kind === "stack" ? { stack, depth } : undefined;
}
export function closed<T extends Node>(node: T): T {
  return node.kind === "drawer" && node.open ? { ...node, open: false } : node;
}

/** Whether two JSON values are alike. */
export function same(a: Json | undefined, b: Json | undefined): boolean {
  if (a === b) return true;
  if (typeof a !== "object" || typeof b !== "object" || a === null || b === null) return false;
  const [x, y] = [a as Args, b as Args];
  const keys = Object.keys(x);
  return keys.length === Object.keys(y).length && keys.every((key) => Object.hasOwn(y, key) && same(x[key], y[key]));
}

/** The state in one line: `yard[main{*hives[list,hive],rota[rota]}] + inspect(steps[brood])`. */
export function line(plan: Plan, state: State, openMarks = true): string {
  const of = (node: Node): string => {
    if (node.kind === "shown") return node.at;
    if (node.kind === "stack") return `${node.at}[${node.items.map(of).join(",")}]`;
    const members = containerOf(plan, node.at)?.members ?? [];
    const lanes = [...members.filter((id) => Object.hasOwn(node.lanes, id)), ...Object.keys(node.lanes).filter((id) => !members.includes(id))];
    const inside = lanes.map((id) => (id === node.active ? "*" : "") + of(node.lanes[id] as Node));
    return `${node.at}{${inside.join(",")}}${openMarks && node.open ? "!" : ""}`;
  };
  return [of(state.base), ...state.layers.map((layer) => `${layer.at}(${of(layer.content)})`)].join(" + ");
}
