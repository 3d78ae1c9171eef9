import { createStore, type StoreApi } from "zustand";
import { usualMotion } from "../../core/insight/motion.ts";
import { changeLeg } from "../../core/model/edits/change.ts";
import { motionWith } from "../../core/model/edits/motionWith.ts";
import { lookup } from "../../core/model/lookup.ts";
import type { DocumentState } from "./document.ts";

interface Pointing {
  leg: string;
  /** The screen that the leg starts from, and the one that it shows. */
  place: string;
  target: string;
  /** The element on the first, once it was pointed at. */
  from?: string;
}
export interface PointingState {
  pointing: Pointing | undefined;
  begin: (pointing: Pointing) => void;
  end: () => void;
  /** Takes an element that was clicked; says whether it was wanted. */
  take: (place: string, element: string) => boolean;
}

/** Pointing at two elements on the map: what a motion carries over, and where it arrives. */
export const createPointing = (document: StoreApi<DocumentState>): StoreApi<PointingState> =>
  createStore<PointingState>((set, get) => ({
    pointing: undefined,
    begin: (pointing) => set({ pointing }),
    end: () => set({ pointing: undefined }),
    take: (place, element) => {
      const { pointing } = get();
      if (!pointing) return false;
      if (pointing.from === undefined) {
        if (place === pointing.place) set({ pointing: { ...pointing, from: element } });
        return true;
      }
      if (place !== pointing.target) return true;
      const { project, apply } = document.getState();
      const leg = lookup(project).legs.get(pointing.leg);
      if (leg) {
        const carries = [...(leg.motion?.carries ?? []).filter((one) => one.from !== pointing.from), { from: pointing.from, to: element }];
        apply(changeLeg(project, leg, { motion: motionWith(leg, usualMotion(project, leg), carries) }, "Motion"));
      }
      set({ pointing: undefined });
      return true;
    },
  }));
