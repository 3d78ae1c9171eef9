import { create } from "zustand";
import type { Edit } from "../../core/model/edits/edit.ts";
import { lossesOf, removeElement, removeEntrance, removeLegs, removePlaces } from "../../core/model/edits/remove.ts";
import { elementIdOf, lookup, nameOf } from "../../core/model/lookup.ts";
import type { Project } from "../../core/model/schema.ts";
import type { Selection } from "../store/selection.ts";

interface DeletionState {
  /** What is to be deleted, until that is confirmed or not. */
  asked: NonNullable<Selection> | undefined;
  ask: (what: NonNullable<Selection>) => void;
  close: () => void;
}
export const useDeletion = create<DeletionState>((set) => ({ asked: undefined, ask: (asked) => set({ asked }), close: () => set({ asked: undefined }) }));

/** The edit that deletes something, and what else goes with it, in words. */
export function deletionOf(project: Project, what: NonNullable<Selection>): { edit: Edit; alsoGoes: string[] } {
  switch (what.kind) {
    case "leg":
      return { edit: removeLegs(project, [what.id]), alsoGoes: [] };
    case "entrance":
      return { edit: removeEntrance(project, what.id), alsoGoes: [] };
    case "element": {
      const legs = (lookup(project).legsFrom.get(what.place) ?? []).filter((leg) => elementIdOf(leg) === what.id);
      return { edit: removeElement(project, what.place, what.id), alsoGoes: legs.map((leg) => `the leg ${leg.id}`) };
    }
    case "place": {
      const losses = lossesOf(project, [what.id]);
      const places = losses.places.filter((id) => id !== what.id).map((id) => `“${nameOf(project, id)}”`);
      const legs = losses.legs.length > 0 ? [`${losses.legs.length} ${losses.legs.length === 1 ? "leg" : "legs"} from or to what goes`] : [];
      return { edit: removePlaces(project, [what.id]), alsoGoes: [...places, ...legs, ...losses.entrances.map((id) => `the way in “${nameOf(project, id)}”`)] };
    }
  }
}
