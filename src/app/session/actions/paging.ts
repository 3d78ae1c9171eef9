import { changeElement } from "../../../core/model/edits/change.ts";
import type { Edit } from "../../../core/model/edits/edit.ts";
import { applyEdit, together } from "../../../core/model/edits/kinds.ts";
import { addNamedType, addPaging, listsLeadingTo, pagedType } from "../../../core/model/edits/paging.ts";
import { nameOf } from "../../../core/model/lookup.ts";
import type { Context } from "../context.ts";

/** Makes a screen page through the record type that its lists and arguments are of, if there is one. */
export const pageThroughUsual = (context: Context, screenId: string) => pageThrough(context, screenId, pagedType(context.project, screenId));

/** Makes a screen page through the rows of a record type; without one, a type is made that is called as the screen and fills the lists that lead here. */
export function pageThrough({ session, project, apply }: Context, screenId: string, typeId: string | undefined) {
  const edits: Edit[] = [];
  let type = typeId;
  if (type === undefined) {
    const made = addNamedType(project, nameOf(project, screenId));
    type = made.id;
    edits.push(made.edit);
    for (const { place, element } of listsLeadingTo(project, screenId)) edits.push(changeElement(project, place, element.id, { of: type }));
  }
  const paging = addPaging(edits.reduce(applyEdit, project), screenId, type);
  apply(together(paging.name, [...edits, paging]));
  session.selection.getState().select({ kind: "place", id: screenId });
  session.notices.getState().say(`“${nameOf(project, screenId)}” pages now: Previous and Next, and swipes, each off where there is no neighbor.`);
}
