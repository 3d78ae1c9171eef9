import { createStore, type StoreApi } from "zustand";
import type { Focus } from "../../core/map/focus.ts";

export interface FocusState {
  focus: Focus | undefined;
  show: (focus: Focus | undefined) => void;
}

/** What the map shows alone, if anything. */
export const createFocus = (): StoreApi<FocusState> => createStore<FocusState>((set) => ({ focus: undefined, show: (focus) => set({ focus }) }));
