import { changeContainer, changeElement, changeScreen } from "../../../core/model/edits/change.ts";
import type { Edit } from "../../../core/model/edits/edit.ts";
import { lookup } from "../../../core/model/lookup.ts";
import type { Project } from "../../../core/model/schema.ts";
import type { OutlineRow } from "./tree.ts";

/** The edit that gives a row's place or element another name. */
export function renameRow(project: Project, row: OutlineRow, name: string): Edit {
  if (row.element) return changeElement(project, row.place, row.element.id, { label: name });
  return lookup(project).containers.has(row.place) ? changeContainer(project, row.place, { name }) : changeScreen(project, row.place, { name });
}
