import { liveQuery } from "dexie";
import { create } from "zustand";
import { emptyProject } from "../../core/model/edits/add.ts";
import type { Edit } from "../../core/model/edits/edit.ts";
import { sameValue } from "../../core/model/expression.ts";
import type { Project } from "../../core/model/schema.ts";
import { db } from "./db.ts";
import { type Loaded, loadProject, moveHead, saveEdit } from "./projects.ts";

interface DocumentState {
  id: string | undefined;
  project: Project;
  status: "loading" | "ready" | "missing" | "failed";
  saving: boolean;
  error: string | undefined;
  undoName: string | undefined;
  redoName: string | undefined;
  open: (id: string) => () => void;
  /** Makes an edit at once and saves it; where another window was faster, it is made on that window's document. */
  apply: (edit: Edit) => void;
  undo: () => void;
  redo: () => void;
}

const nothing = emptyProject("");
let revision = 0;
/** The document of the newest revision that was read or saved here. */
let newest: { revision: number; project: Project } | undefined;
let pending = 0;
let queue: Promise<void> = Promise.resolve();

/** The open document. */
export const useDocument = create<DocumentState>((set, get) => {
  const show = (loaded: Loaded | undefined) => {
    if (!loaded) {
      set({ status: "missing", saving: false });
      return;
    }
    revision = loaded.revision;
    newest = loaded;
    // What was saved is what is shown already, but for edits of another window: then nothing needs drawing or checking again.
    const project = sameValue(get().project, loaded.project) ? get().project : loaded.project;
    set({ project, status: "ready", undoName: loaded.undoName, redoName: loaded.redoName, error: undefined });
  };
  const failed = (error: unknown) =>
    set({ status: get().status === "ready" ? "ready" : "failed", error: error instanceof Error ? error.message : String(error) });
  const inTurn = (work: () => Promise<Loaded | undefined>) => {
    pending += 1;
    set({ saving: true });
    queue = queue
      .then(work)
      .then((loaded) => {
        pending -= 1;
        if (pending === 0) show(loaded);
        else if (loaded) {
          revision = loaded.revision;
          newest = loaded;
        }
      })
      .catch((error) => {
        pending -= 1;
        failed(error);
      })
      .finally(() => set({ saving: pending > 0 }));
  };
  return {
    id: undefined,
    project: nothing,
    status: "loading",
    saving: false,
    error: undefined,
    undoName: undefined,
    redoName: undefined,
    open: (id) => {
      set({ id, project: nothing, status: "loading", undoName: undefined, redoName: undefined, error: undefined });
      loadProject(id).then(show).catch(failed);
      const subscription = liveQuery(() => db.projects.get(id)).subscribe((row) => {
        if (row && pending === 0 && get().id === id && revision !== 0 && row.revision !== revision) loadProject(id).then(show).catch(failed);
      });
      return () => {
        subscription.unsubscribe();
        revision = 0;
        newest = undefined;
      };
    },
    apply: (edit) => {
      const { id, project } = get();
      if (id === undefined) return;
      set({ project: edit.apply(project), undoName: edit.name, redoName: undefined });
      inTurn(() => saveEdit(id, edit, db, newest));
    },
    undo: () => {
      const { id, undoName } = get();
      if (id !== undefined && undoName !== undefined) inTurn(() => moveHead(id, -1));
    },
    redo: () => {
      const { id, redoName } = get();
      if (id !== undefined && redoName !== undefined) inTurn(() => moveHead(id, 1));
    },
  };
});
