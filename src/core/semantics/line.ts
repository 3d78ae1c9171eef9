import type { Plan } from "../plan/plan.ts";
import type { LaneNode, Node, State } from "./types.ts";

/**
 * The state line: `yard[main{*hives[list,hive],rota[rota]}] + inspect(steps[brood])`.
 * Stacks `id[bottom,…,top]`; tabs and drawers `id{lanes}` in member order, `*` before the
 * active one, an open drawer ending in `!`; layers ` + modal(content)`, bottom first.
 */
export function stateLine(plan: Plan, state: State): string {
  let line = nodeLine(plan, state.base);
  for (const layer of state.layers) line += ` + ${layer.at}(${nodeLine(plan, layer.content)})`;
  return line;
}

function nodeLine(plan: Plan, node: Node): string {
  switch (node.kind) {
    case "shown":
      return node.at;
    case "stack":
      return `${node.at}[${node.items.map((item) => nodeLine(plan, item)).join(",")}]`;
    case "tabs":
    case "drawer": {
      const lanes = lanesInOrder(plan, node).map((id) => (id === node.active ? "*" : "") + nodeLine(plan, node.lanes[id] as Node));
      return `${node.at}{${lanes.join(",")}}${node.kind === "drawer" && node.open ? "!" : ""}`;
    }
  }
}

/** The lanes that exist, in the order of the container's members; lanes of no member come last. */
export function lanesInOrder(plan: Plan, node: LaneNode): string[] {
  const members = plan.containers.get(node.at)?.members ?? [];
  const ordered = members.filter((id) => Object.hasOwn(node.lanes, id));
  for (const id of Object.keys(node.lanes)) if (!members.includes(id)) ordered.push(id);
  return ordered;
}

/** Whether two states have the same line; with `openMarks` false, open drawers count as closed. */
export function sameLine(plan: Plan, a: State, b: State, openMarks = true): boolean {
  if (a === b) return true;
  if (a.layers.length !== b.layers.length || !sameNode(plan, a.base, b.base, openMarks)) return false;
  return a.layers.every((layer, i) => {
    const other = b.layers[i];
    return other !== undefined && layer.at === other.at && sameNode(plan, layer.content, other.content, openMarks);
  });
}

function sameNode(plan: Plan, a: Node, b: Node, openMarks: boolean): boolean {
  if (a === b) return true;
  if (a.at !== b.at) return false;
  if (a.kind === "shown" || b.kind === "shown") return a.kind === b.kind;
  if (a.kind === "stack")
    return b.kind === "stack" && a.items.length === b.items.length && a.items.every((item, i) => sameNode(plan, item, b.items[i] as Node, openMarks));
  if (b.kind === "stack" || (openMarks && a.kind === "drawer" && b.kind === "drawer" && a.open !== b.open)) return false;
  // A line names what lanes show and not the lanes: one in which something else took the place of its screen reads as that.
  const [these, those] = [lanesInOrder(plan, a), lanesInOrder(plan, b)];
  const same = (id: string, other: string) =>
    (id === a.active) === (other === b.active) && sameNode(plan, a.lanes[id] as Node, b.lanes[other] as Node, openMarks);
  return these.length === those.length && these.every((id, i) => same(id, those[i] as string));
}
