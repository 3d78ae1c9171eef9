import { lookup, nameOf } from "../lookup.ts";
import type { Project } from "../schema.ts";
import { freshPlaceId } from "./add.ts";
import { moveAllInto, wrap } from "./arrange.ts";
import type { Edit } from "./edit.ts";
import { applyEdit, together } from "./kinds.ts";

/**
 * Moves places into a container that is there, before the member that is named (default: last). Tabs and drawers keep a history for
 * each member, so a screen goes into them with a stack of its own.
 */
export function moveHere(project: Project, places: readonly string[], container: string, before?: string): Edit {
  const { containers, screens } = lookup(project);
  const kind = containers.get(container)?.kind;
  const bare = kind === "tabs" || kind === "drawer" ? places.filter((id) => screens.has(id) && !containers.get(container)?.members.includes(id)) : [];
  if (bare.length === 0) return moveAllInto(project, places, container, before);
  const edits: Edit[] = [];
  const stacks = new Map<string, string>();
  let now = project;
  for (const id of bare) {
    const stack = freshPlaceId(now, `${nameOf(project, id)} ${kind === "tabs" ? "tab" : "steps"}`);
    const edit = wrap(now, [id], "stack", nameOf(project, id), stack);
    edits.push(edit);
    stacks.set(id, stack);
    now = applyEdit(now, edit);
  }
  const move = moveAllInto(
    project,
    places.map((id) => stacks.get(id) ?? id),
    container,
    before,
  );
  return together(moveAllInto(project, places, container).name, [...edits, move]);
}
