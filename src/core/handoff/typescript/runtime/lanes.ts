import { make, tree } from "./make.ts";
import type { Plan, Width } from "./plan.ts";
import {
  branch,
  type Change,
  closed,
  containerOf,
  type Lanes,
  moved,
  type Node,
  nothingToDo,
  path,
  type State,
  top,
  update,
  withBranch,
  withLayers,
} from "./state.ts";

export function isPinned(plan: Plan, drawer: string, width: Width): boolean {
  const widths = ["narrow", "middle", "wide"];
  const from = containerOf(plan, drawer)?.pinnedFrom ?? "never";
  return from !== "never" && widths.indexOf(width) >= widths.indexOf(from);
}

function switchTo(plan: Plan, node: Lanes, id: string, lane: Node): Lanes {
  const lanes = { ...node.lanes, [id]: lane };
  if (node.active !== id && containerOf(plan, node.at)?.keeps === false) delete lanes[node.active];
  return closed({ ...node, active: id, lanes, visited: [...node.visited.filter((other) => other !== id), id] });
}

/** A lane selected: as it was left, or made where it is new or `fresh`. */
export function select(plan: Plan, node: Lanes, id: string, fresh = false): Lanes {
  return switchTo(plan, node, id, (fresh ? undefined : node.lanes[id]) ?? make(plan, id));
}

/** Brings a container onto the visible path of the topmost branch that has it. */
export function activate(plan: Plan, state: State, id: string): { state: State; branch: number; depth: number } | undefined {
  for (let n = top(state); n >= 0; n--) {
    const found = bringUp(plan, branch(state, n), id, []);
    if (!found) continue;
    return { state: withBranch(withLayers(state, n), n, found), branch: n, depth: path(found).findIndex((node) => node.at === id && node.kind !== "shown") };
  }
  return undefined;
}

function bringUp(plan: Plan, node: Node, id: string, around: readonly string[]): Node | undefined {
  if (node.kind === "shown" || around.includes(node.at)) return undefined;
  if (node.at === id) return node;
  const within = [...around, node.at];
  if (node.kind === "stack") {
    for (let i = node.items.length - 1; i >= 0; i--) {
      const found = bringUp(plan, node.items[i] as Node, id, within);
      if (found) return { ...node, items: [...node.items.slice(0, i), found] };
    }
    return undefined;
  }
  const members = containerOf(plan, node.at)?.members ?? [];
  for (const lane of new Set([node.active, ...members, ...Object.keys(node.lanes)])) {
    const content = node.lanes[lane] ?? (tree(plan, lane).has(id) ? make(plan, lane) : undefined);
    const found = content && bringUp(plan, content, id, within);
    if (found) return switchTo(plan, node, lane, found);
  }
  return undefined;
}

/** Back on a branch: an open drawer, then the containers from the innermost outwards, then the layer or the app. */
export function goBack(plan: Plan, state: State, n: number): Change {
  const nodes = path(branch(state, n));
  const open = nodes.findLastIndex((node) => node.kind === "drawer" && node.open);
  if (open >= 0) {
    const drawer = nodes[open] as Lanes;
    return containerOf(plan, drawer.at)?.closeOn?.includes("back") ? moved(update(state, n, open, closed(drawer))) : nothingToDo;
  }
  for (let depth = nodes.length - 1; depth >= 0; depth--) {
    const next = backIn(plan, nodes[depth] as Node);
    if (next) return moved(update(state, n, depth, next));
  }
  if (n === 0) return { is: "left" };
  return containerOf(plan, state.layers[n - 1]?.at ?? "")?.closeOn?.includes("back") ? moved(withLayers(state, n - 1)) : nothingToDo;
}

function backIn(plan: Plan, node: Node): Node | undefined {
  if (node.kind === "shown") return undefined;
  if (node.kind === "stack") return node.items.length > 1 ? { ...node, items: node.items.slice(0, -1) } : undefined;
  const container = containerOf(plan, node.at);
  if (container?.onBack === "start") return node.active === container.start ? undefined : select(plan, node, container.start);
  if (container?.onBack !== "previous") return undefined;
  const visited = node.visited.filter((id) => id !== node.active);
  const previous = visited.at(-1);
  return previous === undefined ? undefined : { ...select(plan, node, previous), visited };
}
