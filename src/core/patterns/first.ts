import { wrap } from "../model/edits/arrange.ts";
import { changeContainer, changeScreen } from "../model/edits/change.ts";
import { lookup } from "../model/lookup.ts";
import type { Making } from "./making.ts";

/** The stack with which the app starts, which is put around its root where that is none, what it shows first and what is in it. */
export function firstOf(making: Making): { stack: string; start: string; members: readonly string[] } {
  const { root } = making.project;
  const container = lookup(making.project).containers.get(root);
  making.hub(root);
  if (container?.kind !== "stack") making.apply(wrap(making.project, [root], "stack", "App"));
  const start = container?.kind === "stack" ? container.start : root;
  // What comes before is nothing to go up to.
  if (lookup(making.project).screens.get(start)?.up === "auto") making.apply(changeScreen(making.project, start, { up: "none" }));
  const { root: stack } = making.project;
  return { stack, start, members: lookup(making.project).containers.get(stack)?.members ?? [] };
}

/** Has the app start with the first of the places that were put into its stack since; they stand before what was there. */
export function startsWithNew(making: Making, { stack, members: before }: ReturnType<typeof firstOf>) {
  const members = lookup(making.project).containers.get(stack)?.members ?? [];
  const made = members.filter((id) => !before.includes(id));
  const [start] = made;
  if (start !== undefined) making.apply(changeContainer(making.project, stack, { start, members: [...made, ...members.filter((id) => before.includes(id))] }));
}
