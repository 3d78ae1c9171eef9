import { once } from "../../model/once.ts";
import type { Plan } from "../../plan/plan.ts";
import type { LaneNode, Node, Shown, State } from "../../semantics/types.ts";

/** What stands in a key for a node that makes no difference. */
export const IRRELEVANT = "=";

/** A node that makes no difference, and how often it was met. */
export interface Irrelevant {
  node: Node;
  met: number;
}

/**
 * What tells two states of a project apart: where everything stands, and beside it only what can make a
 * difference later. Arguments, the width and what is in `irrelevant` are left out.
 */
export function stateKey(plan: Plan, state: State, irrelevant?: Irrelevant): string {
  let key = nodeKey(plan, state.base, irrelevant);
  for (const layer of state.layers) key += ` + ${layer.at}(${nodeKey(plan, layer.content, irrelevant)})`;
  key += ` ${factsKey(state.facts)}`;
  if (state.waiting) key += ` waiting ${state.waiting.entrance}`;
  if (state.held) key += ` held ${JSON.stringify(state.held)}`;
  return key;
}

/** The same for one node. */
export function nodeKey(plan: Plan, node: Node, irrelevant?: Irrelevant): string {
  if (irrelevant && node === irrelevant.node) {
    irrelevant.met += 1;
    return IRRELEVANT;
  }
  switch (node.kind) {
    case "shown":
      return `${node.at}${missingOn(plan, node)}${node.spent ? `!${[...node.spent].sort()}` : ""}`;
    case "stack": {
      let key = `${node.at}[`;
      for (const item of node.items) key += `${nodeKey(plan, item, irrelevant)},`;
      return `${key}]`;
    }
    case "tabs":
    case "drawer": {
      const container = plan.containers.get(node.at);
      const members = container?.members ?? NONE;
      let key = `${node.at}{${node.active}`;
      for (const id of members) {
        const lane = node.lanes[id];
        if (lane) key += ` ${id}=${nodeKey(plan, lane, irrelevant)}`;
      }
      for (const id of othersIn(node.lanes, members)) key += ` ${id}=${nodeKey(plan, node.lanes[id] as Node, irrelevant)}`;
      if (node.kind === "drawer" && node.open) key += "!";
      return container?.kind === "tabs" && container.onBack === "previous" ? `${key}<${node.visited}}` : `${key}}`;
    }
  }
}

/** The parameters that are followed and missing on a screen, as part of its key. */
export function missingOn(plan: Plan, { at, args }: Shown): string {
  const params = plan.screens.get(at)?.params ?? NO_PARAMS;
  if (params.length === 0) return "";
  const missing = params.filter(({ name }) => !Object.hasOwn(args, name)).map(({ name }) => name);
  return missing.length > 0 ? `?${missing}` : "";
}

const NO_PARAMS: ReadonlyArray<{ readonly name: string }> = [];
const NONE: readonly string[] = [];

/** Lanes that are no members, in order. */
function othersIn(lanes: LaneNode["lanes"], members: readonly string[]): readonly string[] {
  let out: string[] | undefined;
  for (const id in lanes) {
    if (members.includes(id)) continue;
    out ??= [];
    out.push(id);
  }
  return out?.sort() ?? NONE;
}

/** A key without how far rules have come that are followed. */
export function withoutRules(key: string): string {
  return key.includes('"@rule.') ? key.replace(/,?"@rule\.\w+":\d+/g, "").replace("{,", "{") : key;
}

/** The values of facts as text. */
export function factsKey(values: State["facts"]): string {
  return once(values, textOf);
}

const textOf = (values: State["facts"]) => JSON.stringify(values);
