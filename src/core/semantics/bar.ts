import type { BarPlan, Width } from "../plan/data.ts";
import type { Plan } from "../plan/plan.ts";
import { branchNode, isDrawer, isStack, nearest, visiblePath } from "./state.ts";
import type { State } from "./types.ts";

const DEFAULT_BAR: BarPlan = { show: true, lead: "auto" };

/** Whether a drawer always shows its members at a width. */
export function isPinnedAt(plan: Plan, drawer: string, width: Width): boolean {
  return plan.containers.get(drawer)?.pinnedAt?.includes(width) === true;
}

/** The bar of a branch's current screen: its own, else that of the nearest container around it, its layer's modal last. */
export function barOf(plan: Plan, state: State, branch: number): BarPlan {
  const path = visiblePath(branchNode(state, branch));
  for (const [i, { at }] of [...path.entries()].reverse()) {
    const bar = i === path.length - 1 ? plan.screens.get(at)?.bar : plan.containers.get(at)?.bar;
    if (bar) return bar;
  }
  const layer = state.layers[branch - 1];
  return (layer && plan.containers.get(layer.at)?.bar) ?? DEFAULT_BAR;
}

/** What the control at the start of the bar is; "idle" is drawn but does nothing. */
export type Lead = "back" | "up" | "menu" | "idle" | "none";

/** The lead of the bar on a branch's current screen. */
export function leadOf(plan: Plan, state: State, branch: number): Lead {
  const bar = barOf(plan, state, branch);
  if (!bar.show) return "none";
  const path = visiblePath(branchNode(state, branch));
  const stack = path[nearest(path, isStack)];
  const canPop = stack?.kind === "stack" && stack.items.length > 1;
  const up = branch === 0 && plan.screens.get(path[path.length - 1]?.at ?? "")?.up !== undefined;
  switch (bar.lead) {
    case "auto":
      return canPop ? "back" : up ? "up" : "none";
    case "back":
      return canPop ? "back" : "none";
    case "up":
      return branch === 0 ? (up ? "up" : "idle") : canPop ? "back" : "idle";
    case "menu": {
      const drawer = path[nearest(path, isDrawer)];
      return drawer === undefined ? "idle" : isPinnedAt(plan, drawer.at, state.width) ? "none" : "menu";
    }
    case "none":
      return "none";
  }
}
