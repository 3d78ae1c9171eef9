import { create } from "zustand";

export type Selection =
  | { kind: "place"; id: string }
  | { kind: "element"; place: string; id: string }
  | { kind: "leg"; id: string }
  | { kind: "entrance"; id: string }
  | undefined;

interface SelectionState {
  selected: Selection;
  /** The element for which a target is being picked. */
  linking: { place: string; element: string } | undefined;
  select: (selected: Selection) => void;
  link: (from: { place: string; element: string } | undefined) => void;
}

/** What is selected, on the map and in the outline alike. */
export const useSelection = create<SelectionState>((set) => ({
  selected: undefined,
  linking: undefined,
  select: (selected) => set({ selected }),
  link: (linking) => set({ linking }),
}));
