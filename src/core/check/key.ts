import { stateLine } from "../engine/line.ts";
import type { Node, State } from "../engine/state.ts";
import { lookup } from "../model/lookup.ts";
import type { Project } from "../model/schema.ts";
import { isHidden } from "./lanes.ts";

/** What tells two states apart: the line, and beside it only what can make a difference later. */
export function stateKey(project: Project, state: State): string {
  const extra: unknown[] = [];
  const visit = (node: Node) => {
    switch (node.kind) {
      case "shown":
        if (node.spent) extra.push([...node.spent].sort());
        return;
      case "stack":
        node.items.forEach(visit);
        return;
      case "tabs":
      case "drawer": {
        const container = lookup(project).containers.get(node.at);
        if (container?.kind === "tabs" && container.onBack === "previous") extra.push(node.visited);
        for (const id of Object.keys(node.lanes).sort()) {
          const lane = node.lanes[id] as Node;
          // A replaced lane shows in the line under the name of what it holds, not under its own.
          if (lane.at !== id && !isHidden(lane)) extra.push([node.at, id]);
          visit(lane);
        }
      }
    }
  };
  visit(state.base);
  for (const layer of state.layers) visit(layer.content);
  return JSON.stringify([stateLine(project, state), state.facts, state.waiting?.entrance, state.held, extra]);
}
