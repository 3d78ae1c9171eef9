import type { Args, Json, Template } from "../plan/data.ts";
import type { Plan } from "../plan/plan.ts";
import type { Node } from "./types.ts";

/** Makes what a template says. Each screen in it gets the arguments that it declares. */
export function make(plan: Plan, template: Template, args: Args = {}): Node {
  if (typeof template === "string") return { kind: "shown", at: template, args: ownArguments(plan, template, args) };
  if ("stack" in template) return { kind: "stack", at: template.stack, items: template.items.map((item) => make(plan, item, args)) };
  const { lanes: at, kind, active } = template;
  const common = { at, active, lanes: { [active]: make(plan, template.shows, args) }, visited: [active] };
  return kind === "tabs" ? { kind, ...common } : { kind, ...common, open: false };
}

/** Make of a member of tabs or a drawer. */
export function makeLane(plan: Plan, id: string): Node {
  return make(plan, plan.lanes.get(id) ?? id);
}

/** The arguments that a screen declares, in its order, declared defaults filled in; others are dropped. */
export function ownArguments(plan: Plan, screen: string, args: Args): Args {
  const own: Record<string, Json> = {};
  for (const param of plan.screens.get(screen)?.params ?? []) {
    const value = Object.hasOwn(args, param.name) ? args[param.name] : param.default;
    if (value !== undefined) own[param.name] = value;
  }
  return own;
}
