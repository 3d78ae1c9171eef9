import { create } from "zustand";
import type { Focus } from "../../core/map/focus.ts";

/** What the map shows alone, if anything. */
export const useFocus = create<{ focus: Focus | undefined; show: (focus: Focus | undefined) => void }>((set) => ({
  focus: undefined,
  show: (focus) => set({ focus }),
}));
