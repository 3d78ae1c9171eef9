import * as z from "zod";
import { lookup, nameOf } from "../lookup.ts";
import { type Container, type Element, type Entrance, type Leg, PARTS, type Project, type Screen } from "../schema.ts";
import { changed, type Edit, editKind, fitting, freshId, quoted } from "./edit.ts";

/** A new project: one empty screen, which is where the app starts. */
export function emptyProject(name: string): Project {
  return {
    format: "etape/1",
    name,
    root: "home",
    facts: [],
    types: [],
    containers: [],
    screens: [newScreen("home", "Home")],
    legs: [],
    entrances: [],
    walks: [],
  };
}

export function newScreen(id: string, name: string): Screen {
  return { id, name: fitting(name), params: [], up: "auto", elements: [] };
}

export const addsScreen = editKind("addScreen", z.strictObject({ screen: PARTS.Screen, owner: z.string().optional() }), (project, { screen, owner }) =>
  withMember({ ...project, screens: [...project.screens, screen] }, owner, screen.id),
);
/** Adds a screen; to a container where one is named. */
export function addScreen(screen: Screen, owner?: string): Edit {
  return addsScreen.make(`Add screen ${quoted(screen.name)}`, { screen, owner });
}

export const addsContainer = editKind(
  "addContainer",
  z.strictObject({ container: PARTS.Container, owner: z.string().optional() }),
  (project, { container, owner }) => withMember({ ...project, containers: [...project.containers, container] }, owner, container.id),
);
export function addContainer(container: Container, owner?: string): Edit {
  return addsContainer.make(`Add ${container.kind} ${quoted(container.name)}`, { container, owner });
}

function withMember(project: Project, owner: string | undefined, id: string): Project {
  if (owner === undefined) return project;
  return { ...project, containers: changed(project.containers, owner, (c) => ({ ...c, members: [...c.members, id] })) };
}

/** A container of a kind with everyday settings. */
export function newContainer(kind: Container["kind"], id: string, name: string, members: string[]): Container {
  const common = { id, name: fitting(name), start: members[0] ?? "home", members };
  switch (kind) {
    case "stack":
      return { kind, ...common };
    case "tabs":
      return { kind, ...common, edge: "bottom", onBack: "start", chosenAgain: "root", keeps: true };
    case "drawer":
      return { kind, ...common, side: "left", over: true, pinnedFrom: "never", closeOn: ["outside", "swipe", "back"], onBack: "leave", keeps: true };
    case "modal":
      return { kind, ...common, shape: "sheet", edge: "bottom", blocks: true, dims: true, closeOn: ["outside", "swipe", "button", "back"] };
  }
}

export const addsElement = editKind("addElement", z.strictObject({ place: z.string(), element: PARTS.Element }), (project, { place, element }) => ({
  ...project,
  screens: changed(project.screens, place, (s) => ({ ...s, elements: [...s.elements, element] })),
  containers: changed(project.containers, place, (c) => ({ ...c, elements: [...(c.elements ?? []), element] })),
}));
/** Adds an element to a screen or, shown on every screen inside, to a container. */
export function addElement(place: string, element: Element): Edit {
  return addsElement.make(`Add ${element.kind} ${quoted(element.label)}`, { place, element });
}

export const addsLeg = editKind("addLeg", z.strictObject({ leg: PARTS.Leg }), (project, { leg }) => ({ ...project, legs: [...project.legs, leg] }));
export function addLeg(project: Project, leg: Leg): Edit {
  const target = leg.move && "to" in leg.move ? ` to ${quoted(nameOf(project, leg.move.to))}` : "";
  return addsLeg.make(`Add leg from ${quoted(nameOf(project, leg.from))}${target}`, { leg });
}

export const addsEntrance = editKind("addEntrance", z.strictObject({ entrance: PARTS.Entrance }), (project, { entrance }) => ({
  ...project,
  entrances: [...project.entrances, entrance],
}));
export function addEntrance(entrance: Entrance): Edit {
  return addsEntrance.make(`Add way in ${quoted(entrance.name)}`, { entrance });
}

/** An id for a new place, from its name. */
export const freshPlaceId = (project: Project, name: string): string => freshId(name, lookup(project).places, "place");
export const freshLegId = (project: Project, name: string): string => freshId(name, lookup(project).legs, "leg");

/** An id for a new element of a place. */
export function freshElementId(project: Project, placeId: string, label: string): string {
  const place = lookup(project).places.get(placeId);
  const elements = (place?.kind === "screen" ? place.screen.elements : place?.container.elements) ?? [];
  return freshId(label, new Set(elements.map((e) => e.id)), "element");
}
