import { drawerOf, lookup, modalOf } from "../model/lookup.ts";
import type { Bar, Drawer, Project, Width } from "../model/schema.ts";
import { branchNode, isDrawer, isStack, nearest, type State, visiblePath } from "./state.ts";

const WIDTHS: readonly Width[] = ["narrow", "middle", "wide"];
const DEFAULT_BAR: Bar = { show: true, lead: "auto" };

/** Whether a drawer always shows its members at a width. */
export function isPinned(drawer: Drawer | undefined, width: Width): boolean {
  return drawer !== undefined && drawer.pinnedFrom !== "never" && WIDTHS.indexOf(width) >= WIDTHS.indexOf(drawer.pinnedFrom);
}

/** The bar of a branch's current screen: its own, else that of the nearest container around it, its layer's modal last. */
export function barOf(project: Project, state: State, branch: number): Bar {
  const { screens, containers } = lookup(project);
  const path = visiblePath(branchNode(state, branch));
  for (let i = path.length - 1; i >= 0; i--) {
    const at = (path[i] as { at: string }).at;
    const bar = i === path.length - 1 ? screens.get(at)?.bar : containers.get(at)?.bar;
    if (bar) return bar;
  }
  const layer = state.layers[branch - 1];
  return (layer && modalOf(project, layer.at)?.bar) ?? DEFAULT_BAR;
}

/** What the control at the start of the bar is; "idle" is drawn but does nothing. */
export type Lead = "back" | "up" | "menu" | "idle" | "none";

/** The lead of the bar on a branch's current screen. */
export function leadOf(project: Project, state: State, branch: number): Lead {
  const bar = barOf(project, state, branch);
  if (!bar.show) return "none";
  const path = visiblePath(branchNode(state, branch));
  const stack = path[nearest(path, isStack)];
  const canPop = stack?.kind === "stack" && stack.items.length > 1;
  const screen = (path[path.length - 1] as { at: string }).at;
  const up = branch === 0 && upTarget(project, screen) !== undefined;
  switch (bar.lead) {
    case "auto":
      return canPop ? "back" : up ? "up" : "none";
    case "back":
      return canPop ? "back" : "none";
    case "up":
      return branch === 0 ? (up ? "up" : "idle") : canPop ? "back" : "idle";
    case "menu": {
      const drawer = path[nearest(path, isDrawer)];
      return drawer === undefined ? "idle" : isPinned(drawerOf(project, drawer.at), state.width) ? "none" : "menu";
    }
    case "none":
      return "none";
  }
}

/** The place that Up leads to from a screen, or undefined where there is none. */
export function upTarget(project: Project, screenId: string): string | undefined {
  const { screens, owners } = lookup(project);
  const up = screens.get(screenId)?.up ?? "none";
  if (up === "none") return undefined;
  if (up !== "auto") return up;
  const owner = owners.get(screenId);
  return owner?.kind === "stack" && owner.start !== screenId ? owner.start : undefined;
}
