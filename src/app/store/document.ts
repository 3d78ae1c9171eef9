import { create } from "zustand";
import { emptyProject } from "../../core/model/edits/add.ts";
import type { Edit } from "../../core/model/edits/edit.ts";
import type { Project } from "../../core/model/schema.ts";
import { Session, type SessionState } from "./session.ts";

interface DocumentState extends SessionState {
  project: Project;
  session: Session | undefined;
  /** Opens a project; gives what closes it. */
  open: (id: string) => () => void;
  apply: (edit: Edit) => void;
  undo: () => void;
  redo: () => void;
}

const nothing = emptyProject("");

/** The open document: what its session says. */
export const useDocument = create<DocumentState>((set, get) => ({
  project: nothing,
  status: "loading",
  saving: false,
  error: undefined,
  undoName: undefined,
  redoName: undefined,
  session: undefined,
  open: (id) => {
    get().session?.close();
    const session = new Session(id, (state) => get().session === session && set({ ...state, project: state.project ?? nothing }));
    set({ ...session.state, project: nothing, session });
    return () => {
      session.close();
      if (get().session === session) set({ session: undefined, project: nothing, status: "loading" });
    };
  },
  apply: (edit) => get().session?.apply(edit),
  undo: () => get().session?.undo(),
  redo: () => get().session?.redo(),
}));
