import { lookup, nameOf } from "../lookup.ts";
import type { Container, Element, Entrance, Leg, Project, Screen } from "../schema.ts";
import { type Edit, fitting, freshId, quoted } from "./edit.ts";

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

/** Adds a screen; to a container where one is named. */
export function addScreen(screen: Screen, owner?: string): Edit {
  return {
    name: `Add screen ${quoted(screen.name)}`,
    apply: (project) => withMember({ ...project, screens: [...project.screens, screen] }, owner, screen.id),
  };
}

export function addContainer(container: Container, owner?: string): Edit {
  return {
    name: `Add ${container.kind} ${quoted(container.name)}`,
    apply: (project) => withMember({ ...project, containers: [...project.containers, container] }, owner, container.id),
  };
}

function withMember(project: Project, owner: string | undefined, id: string): Project {
  if (owner === undefined) return project;
  return { ...project, containers: project.containers.map((c) => (c.id === owner ? { ...c, members: [...c.members, id] } : c)) };
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

/** Adds an element to a screen or, shown on every screen inside, to a container. */
export function addElement(placeId: string, element: Element): Edit {
  return {
    name: `Add ${element.kind} ${quoted(element.label)}`,
    apply: (project) => ({
      ...project,
      screens: project.screens.map((s) => (s.id === placeId ? { ...s, elements: [...s.elements, element] } : s)),
      containers: project.containers.map((c) => (c.id === placeId ? { ...c, elements: [...(c.elements ?? []), element] } : c)),
    }),
  };
}

export function addLeg(project: Project, leg: Leg): Edit {
  const target = leg.move && "to" in leg.move ? ` to ${quoted(nameOf(project, leg.move.to))}` : "";
  return { name: `Add leg from ${quoted(nameOf(project, leg.from))}${target}`, apply: (p) => ({ ...p, legs: [...p.legs, leg] }) };
}

export function addEntrance(entrance: Entrance): Edit {
  return { name: `Add way in ${quoted(entrance.name)}`, apply: (project) => ({ ...project, entrances: [...project.entrances, entrance] }) };
}

/** Several edits as one, undone together. */
export function together(name: string, edits: Edit[]): Edit {
  return {
    name,
    ...(edits.some((edit) => edit.deletes) ? { deletes: true } : {}),
    apply: (project) => edits.reduce((p, edit) => edit.apply(p), project),
  };
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
