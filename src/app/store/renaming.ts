import { create } from "zustand";

interface RenamingState {
  /** The key of the row whose name is being written. */
  key: string | undefined;
  begin: (key: string) => void;
  end: () => void;
}

/** Renaming in place, in the outline. */
export const useRenaming = create<RenamingState>((set) => ({ key: undefined, begin: (key) => set({ key }), end: () => set({ key: undefined }) }));
