import { createStore, type StoreApi } from "zustand";
import type { Drawing } from "../../core/map/types.ts";

export interface SeeingState {
  drawing: Drawing;
  /** The drawing that is gone back to from names by zooming in. */
  near: Exclude<Drawing, "names">;
  /** Names: all of the app at once, if need be as dots; else every name can be read. */
  far: boolean;
  /** Counts each wish to see the whole of the app. */
  whole: number;
  draw: (drawing: Drawing, far?: boolean) => void;
  seeWhole: () => void;
}

/** How the map of an open project is looked at. */
export const createSeeing = (drawing: Drawing): StoreApi<SeeingState> =>
  createStore<SeeingState>((set, get) => ({
    drawing,
    near: drawing === "names" ? "rows" : drawing,
    far: true,
    whole: 0,
    draw: (next, far = true) => set({ drawing: next, far, near: next === "names" ? get().near : next }),
    seeWhole: () => set({ whole: get().whole + 1 }),
  }));
