import { createStore, type StoreApi } from "zustand";
import type { Chosen } from "../../core/model/edits/clip.ts";
import type { Edit } from "../../core/model/edits/edit.ts";

/** What can lie over the page, with what it is about. Patterns lie over the map alone, which shows what they would make. */
export type Sheet =
  | { is: "palette" | "keys" | "facts" | "whatIf" | "into" }
  | { is: "patterns"; first?: string }
  | { is: "delete"; asked: readonly Chosen[] }
  | { is: "fix"; fix: Edit };

export interface SheetState {
  /** The one sheet that lies over the page, if any. */
  sheet: Sheet | undefined;
  open: (sheet: Sheet) => void;
  close: () => void;
}

export const createSheets = (): StoreApi<SheetState> =>
  createStore<SheetState>((set) => ({ sheet: undefined, open: (sheet) => set({ sheet }), close: () => set({ sheet: undefined }) }));
