import { wrap } from "../model/edits/arrange.ts";
import { changeScreen } from "../model/edits/change.ts";
import { lookup } from "../model/lookup.ts";
import type { Making } from "./making.ts";

/** The stack with which the app starts, which is put around its root where that is none, and what it shows first. */
export function firstOf(making: Making): { stack: string; start: string } {
  const { root } = making.project;
  const container = lookup(making.project).containers.get(root);
  making.hub(root);
  if (container?.kind !== "stack") making.apply(wrap(making.project, [root], "stack", "App"));
  const start = container?.kind === "stack" ? container.start : root;
  // What comes before is nothing to go up to.
  if (lookup(making.project).screens.get(start)?.up === "auto") making.apply(changeScreen(making.project, start, { up: "none" }));
  return { stack: making.project.root, start };
}
