import { createStore, type StoreApi } from "zustand";
import type { LensView } from "../../core/map/lenses/lens.ts";
import type { Project } from "../../core/model/schema.ts";

/** A project as it would be, which the map shows instead of the one that is there, and what is other in it. */
export interface TryingState {
  trial: { project: Project; places: LensView["places"] } | undefined;
  show: (trial: TryingState["trial"]) => void;
}

export const createTrying = (): StoreApi<TryingState> => createStore<TryingState>((set) => ({ trial: undefined, show: (trial) => set({ trial }) }));
