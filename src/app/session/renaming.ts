import { createStore, type StoreApi } from "zustand";

/** The key under which the project's own name is being written. */
export const PROJECT_NAME = "the project";

export interface RenamingState {
  /** The key of the row whose name is being written. */
  key: string | undefined;
  begin: (key: string) => void;
  end: () => void;
}

/** Renaming in place: in the outline, and of the project in the head. */
export const createRenaming = (): StoreApi<RenamingState> =>
  createStore<RenamingState>((set) => ({ key: undefined, begin: (key) => set({ key }), end: () => set({ key: undefined }) }));
