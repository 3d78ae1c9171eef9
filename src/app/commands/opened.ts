import { create } from "zustand";

export type Sheet = "palette" | "keys" | "facts" | "whatIf";

/** The one sheet that lies over the page, if any. */
export const useOpened = create<{ sheet: Sheet | undefined; open: (sheet: Sheet) => void; close: () => void }>((set) => ({
  sheet: undefined,
  open: (sheet) => set({ sheet }),
  close: () => set({ sheet: undefined }),
}));
