import { createStore, type StoreApi } from "zustand";
import type { Chosen } from "../../core/model/edits/clip.ts";
import type { LegStart } from "../../core/model/edits/link.ts";
import { lookup } from "../../core/model/lookup.ts";
import type { Project } from "../../core/model/schema.ts";

export type Selection = Chosen | undefined;

export interface SelectionState {
  /** What the inspector shows. */
  selected: Selection;
  /** What is chosen besides. */
  also: Chosen[];
  /** Where the leg starts for which a target is being picked. */
  linking: LegStart | undefined;
  /** The target that the picker points at just now, for the map to show. */
  aim: string | undefined;
  /** What the last gesture made, as long as Escape may take just that back. */
  fresh: Fresh | undefined;
  select: (selected: Selection) => void;
  /** Chooses several; the last is the one that the inspector shows. */
  selectAll: (chosen: readonly Chosen[]) => void;
  /** Chooses one more, or no longer. */
  toggle: (one: Chosen) => void;
  link: (from: LegStart | undefined) => void;
  aimAt: (place: string | undefined) => void;
  /** Selects a leg that was just made by an edit, which led to a document. */
  made: (leg: string, project: Project) => void;
  /** Notes that the leg that was just made was led another way by one more edit. */
  madeOtherwise: (project: Project) => void;
}

/** A leg that was just made: by how many edits, and the document that they led to. Any other edit makes it one like all others. */
export interface Fresh {
  leg: string;
  edits: number;
  project: Project;
}

/** What is selected, on the map and in the outline alike. */
export const createSelection = (): StoreApi<SelectionState> =>
  createStore<SelectionState>((set, get) => ({
    selected: undefined,
    also: [],
    linking: undefined,
    aim: undefined,
    fresh: undefined,
    select: (selected) => set({ selected, also: [], fresh: undefined }),
    selectAll: (chosen) => set({ selected: chosen.at(-1), also: chosen.slice(0, -1), fresh: undefined }),
    toggle: (one) => {
      const all = allChosen(get());
      const known = all.some((other) => keyOf(other) === keyOf(one));
      get().selectAll(known ? all.filter((other) => keyOf(other) !== keyOf(one)) : [...all, one]);
    },
    link: (linking) => set({ linking, aim: undefined }),
    aimAt: (aim) => set({ aim }),
    made: (leg, project) => set({ selected: { kind: "leg", id: leg }, also: [], linking: undefined, aim: undefined, fresh: { leg, edits: 1, project } }),
    madeOtherwise: (project) => {
      const { fresh } = get();
      if (fresh) set({ fresh: { ...fresh, edits: fresh.edits + 1, project } });
    },
  }));

/** The leg that was just made and is chosen, as long as nothing else was edited since. */
export function freshLeg({ fresh, selected }: Pick<SelectionState, "fresh" | "selected">, project: Project): Fresh | undefined {
  return fresh && fresh.project === project && selected?.kind === "leg" && selected.id === fresh.leg ? fresh : undefined;
}

/** Everything chosen, in the order in which it was. */
export function allChosen({ selected, also }: Pick<SelectionState, "selected" | "also">): Chosen[] {
  return selected ? [...also, selected] : [];
}

/** A key by which two chosen things are the same. */
export function keyOf(one: Chosen): string {
  return one.kind === "element" ? `${one.place} ${one.id}` : one.kind === "place" ? one.id : `${one.kind} ${one.id}`;
}

/** The places of what is chosen: places themselves, and those that chosen elements stand on. */
export function placesChosen(chosen: readonly Chosen[]): string[] {
  return [...new Set(chosen.flatMap((one) => (one.kind === "place" ? [one.id] : one.kind === "element" ? [one.place] : [])))];
}

/** The place that something chosen is, stands on or starts from. */
export function placeOf(project: Project, one: Chosen | undefined): string | undefined {
  if (one?.kind === "leg") return lookup(project).legs.get(one.id)?.from;
  return one?.kind === "element" ? one.place : one?.kind === "place" ? one.id : undefined;
}
