import { createStore, type StoreApi } from "zustand";
import { emptyProject } from "../../core/model/edits/add.ts";
import type { Edit } from "../../core/model/edits/edit.ts";
import type { Project } from "../../core/model/schema.ts";
import { Keeping, type Kept } from "./keeping.ts";
import { db, type EtapeDb } from "./storage/db.ts";
import type { Loaded } from "./storage/projects.ts";

export interface DocumentState extends Omit<Kept, "project"> {
  project: Project;
  apply: (edit: Edit) => void;
  undo: () => void;
  redo: () => void;
  /** Stores what is shown, where it is not stored. */
  again: () => void;
}

/** The document of an open project as the page shows it, and what ends it: what is queued is still saved. */
export function createDocument(id: string, loaded: Loaded | undefined, store: EtapeDb = db): { store: StoreApi<DocumentState>; close: () => Promise<void> } {
  const document = createStore<DocumentState>(() => ({
    project: loaded?.project ?? emptyProject(""),
    status: "loading",
    saving: false,
    unsaved: undefined,
    error: undefined,
    undoName: undefined,
    redoName: undefined,
    apply: (edit) => keeping.apply(edit),
    undo: () => keeping.undo(),
    redo: () => keeping.redo(),
    again: () => keeping.again(),
  }));
  const show = ({ project, ...state }: Kept) => document.setState({ ...state, ...(project ? { project } : {}) });
  const keeping = new Keeping(id, show, store, loaded);
  show(keeping.state);
  return { store: document, close: () => keeping.close() };
}
