import type { Chosen } from "../../core/model/edits/clip.ts";
import type { Edit } from "../../core/model/edits/edit.ts";
import type { Project } from "../../core/model/schema.ts";
import { useDocument } from "../store/document.ts";
import { allChosen, placesChosen, useSelection } from "../store/selection.ts";

/** What a command works on. */
export interface Context {
  project: Project;
  selected: Chosen | undefined;
  chosen: Chosen[];
  /** Places chosen, and places on which something is chosen. */
  places: string[];
  apply: (edit: Edit) => void;
}

export function contextNow(): Context {
  const { project, apply } = useDocument.getState();
  const selection = useSelection.getState();
  const chosen = allChosen(selection);
  return { project, apply, selected: selection.selected, chosen, places: placesChosen(chosen) };
}

/** Something that can be done by key or by name. */
export interface Command {
  name: string;
  /** The key, as the key binding takes it; several are alternatives. */
  keys?: string[];
  /** The key as people read it. */
  shown?: string;
  group: "Make" | "Arrange" | "Look" | "Walk" | "Document";
  /** Whether it can be done now. */
  can?: (context: Context) => boolean;
  run: (context: Context) => void;
}
