import * as z from "zod";
import { elementIdOf, elementOf, lookup, nameOf, targetOf, treeOf } from "../lookup.ts";
import { withAreas, withoutControls } from "../pictures.ts";
import { type Ids, withRulesWithout } from "../rules.ts";
import type { Entrance, Leg, Project } from "../schema.ts";
import { changed, type Edit, editKind, quoted } from "./edit.ts";

/** What goes when something is deleted, by id. */
export interface Losses {
  places: string[];
  legs: string[];
  entrances: string[];
  /** Screens whose Up leads to one of the places, and leads as usual afterwards. */
  ups: string[];
  /** Entrances that lead to one of the places where they may not be used, and then do as at a launch. */
  otherwise: string[];
}

/** What else goes with places: their trees, the legs from and to them, and the entrances that lead to them. */
export function lossesOf(project: Project, placeIds: string[]): Losses {
  const places = [...new Set(placeIds.flatMap((id) => treeOf(project, id)))].filter((id) => lookup(project).places.has(id));
  const gone = new Set(places);
  return {
    places,
    legs: project.legs.filter((leg) => gone.has(leg.from) || gone.has(targetOf(leg) ?? "")).map((leg) => leg.id),
    entrances: project.entrances.filter((e) => gone.has(e.to)).map((e) => e.id),
    ups: project.screens.filter((s) => !gone.has(s.id) && gone.has(s.up)).map((s) => s.id),
    otherwise: project.entrances.filter((e) => !gone.has(e.to) && e.otherwise !== undefined && gone.has(e.otherwise)).map((e) => e.id),
  };
}

const NOTHING: Ids = { places: new Set(), legs: new Set(), entrances: new Set() };

export const removesPlaces = editKind(
  "removePlaces",
  z.strictObject({ ids: z.array(z.string()) }),
  (p, { ids }) => {
    const losses = lossesOf(p, ids);
    const gone = new Set(losses.places);
    const legs = new Set(losses.legs);
    const entrances = new Set(losses.entrances);
    const next = {
      ...p,
      screens: p.screens
        .filter((s) => !gone.has(s.id))
        .map((s) => (gone.has(s.up) ? { ...s, up: "auto" } : s))
        .map((s) => withAreas(s, (area) => (gone.has(area.control.split(":")[1] ?? "") ? undefined : area))),
      containers: p.containers.filter((c) => !gone.has(c.id)).map((c) => withoutMembers(c, gone)),
      legs: p.legs.filter((leg) => !legs.has(leg.id)),
      entrances: p.entrances.filter((e) => !entrances.has(e.id)).map((e) => (e.otherwise && gone.has(e.otherwise) ? withoutOtherwise(e) : e)),
    };
    return withRulesWithout(next, { places: gone, legs, entrances });
  },
  true,
);
/** Removes places with all that {@link lossesOf} names; starts and Up targets are re-pointed. */
export function removePlaces(project: Project, ids: string[]): Edit {
  return removesPlaces.make(ids.length === 1 ? `Delete ${quoted(nameOf(project, ids[0] ?? ""))}` : `Delete ${ids.length} places`, { ids });
}

function withoutOtherwise({ otherwise: _, ...entrance }: Entrance): Entrance {
  return entrance;
}

function withoutMembers<C extends Project["containers"][number]>(container: C, gone: Set<string>): C {
  if (!container.members.some((id) => gone.has(id)) && !gone.has(container.start)) return container;
  const members = container.members.filter((id) => !gone.has(id));
  return { ...container, members, start: gone.has(container.start) ? (members[0] ?? container.start) : container.start };
}

export const removesLegs = editKind(
  "removeLegs",
  z.strictObject({ ids: z.array(z.string()) }),
  (p, { ids }) => withRulesWithout({ ...p, legs: p.legs.filter((leg) => !ids.includes(leg.id)) }, { ...NOTHING, legs: new Set(ids) }),
  true,
);
export function removeLegs(project: Project, ids: string[]): Edit {
  const only = ids.length === 1 ? project.legs.find((leg) => leg.id === ids[0]) : undefined;
  return removesLegs.make(only ? `Delete leg ${legName(project, only)}` : `Delete ${ids.length} legs`, { ids });
}

export const removesElement = editKind(
  "removeElement",
  z.strictObject({ place: z.string(), id: z.string() }),
  (p, { place, id }) => {
    const without = <T extends { id: string }>(list: T[]) => list.filter((e) => e.id !== id);
    const legs = new Set(p.legs.filter((leg) => leg.from === place && elementIdOf(leg) === id).map((leg) => leg.id));
    const next = {
      ...p,
      screens: changed(withoutControls(p, place, id), place, (s) => ({ ...s, elements: without(s.elements) })),
      containers: changed(p.containers, place, (c) => (c.elements ? { ...c, elements: without(c.elements) } : c)),
      legs: p.legs.filter((leg) => !legs.has(leg.id)),
    };
    return withRulesWithout(next, { ...NOTHING, legs });
  },
  true,
);
/** Removes an element with the legs that start at it. */
export function removeElement(project: Project, place: string, id: string): Edit {
  const label = elementOf(project, place, id)?.label ?? id;
  return removesElement.make(`Delete ${quoted(label)} from ${quoted(nameOf(project, place))}`, { place, id });
}

export const removesEntrance = editKind(
  "removeEntrance",
  z.strictObject({ id: z.string() }),
  (p, { id }) => withRulesWithout({ ...p, entrances: p.entrances.filter((e) => e.id !== id) }, { ...NOTHING, entrances: new Set([id]) }),
  true,
);
export function removeEntrance(project: Project, id: string): Edit {
  return removesEntrance.make(`Delete way in ${quoted(nameOf(project, id))}`, { id });
}

/** A leg in a few words, for names of edits: `"Hives" to "Hive"`. */
export function legName(project: Project, leg: Leg): string {
  const to = targetOf(leg);
  return to === undefined ? `from ${quoted(nameOf(project, leg.from))}` : `${quoted(nameOf(project, leg.from))} to ${quoted(nameOf(project, to))}`;
}
