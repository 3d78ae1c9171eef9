import { giveOf, lookup, rowTypeOf } from "../lookup.ts";
import { withGive } from "../moves.ts";
import type { Param, Project } from "../schema.ts";
import { changeLeg, changeScreen } from "./change.ts";
import type { Edit } from "./edit.ts";
import { together } from "./kinds.ts";

/**
 * Lets a leg hand a value back by a name that nothing there takes yet: the screens that it comes back to declare it. It begins as the
 * row that is used, by its key, or else as an empty text.
 */
export function handBack(project: Project, legId: string, takers: readonly string[], name: string): Edit {
  const leg = lookup(project).legs.get(legId);
  const row = leg && rowTypeOf(project, leg);
  const key = row?.fields[0];
  const param: Param = { name, type: key?.type ?? "text", required: false };
  const edits = takers.flatMap((id) => {
    const screen = lookup(project).screens.get(id);
    return screen && !screen.params.some((one) => one.name === name) ? [changeScreen(project, id, { params: [...screen.params, param] })] : [];
  });
  const given = leg?.move ? [changeLeg(project, leg, { move: withGive(leg.move, { ...giveOf(leg), [name]: key ? `item.${key.name}` : '""' }) })] : [];
  return together(`Hand back ${name}`, [...edits, ...given]);
}
