import type { Chosen } from "../../core/model/edits/clip.ts";
import type { Edit } from "../../core/model/edits/edit.ts";
import type { Project } from "../../core/model/schema.ts";
import { allChosen, placesChosen } from "./selection.ts";
import type { Session } from "./session.ts";

/** What a command works on. */
export interface Context {
  session: Session;
  project: Project;
  selected: Chosen | undefined;
  chosen: Chosen[];
  /** Places chosen, and places on which something is chosen. */
  places: string[];
  apply: (edit: Edit) => void;
}

export function contextOf(session: Session): Context {
  const { project, apply } = session.document.getState();
  const selection = session.selection.getState();
  const chosen = allChosen(selection);
  return { session, project, apply, selected: selection.selected, chosen, places: placesChosen(chosen) };
}
