import { once } from "./once.ts";
import type { Container, Drawer, Element, Entrance, Fact, Leg, Modal, Project, RecordType, Screen, Stack, Tabs, Width } from "./schema.ts";

export type Place = { kind: "screen"; id: string; screen: Screen } | { kind: "container"; id: string; container: Container };

/** Everything that is looked up by id in one project; made once for each project object. */
export interface Lookup {
  places: Map<string, Place>;
  screens: Map<string, Screen>;
  containers: Map<string, Container>;
  /** The container that lists the place as a member; the first in document order where there are two. */
  owners: Map<string, Container>;
  facts: Map<string, Fact>;
  types: Map<string, RecordType>;
  legs: Map<string, Leg>;
  entrances: Map<string, Entrance>;
  /** Legs by the place that they start from, in document order. */
  legsFrom: Map<string, Leg[]>;
}

/** The lookup tables of a project. A project is never changed in place, so they are kept with it. */
export function lookup(project: Project): Lookup {
  return once(project, makeLookup);
}

function makeLookup(project: Project): Lookup {
  const places = new Map<string, Place>();
  for (const container of project.containers) places.set(container.id, { kind: "container", id: container.id, container });
  for (const screen of project.screens) places.set(screen.id, { kind: "screen", id: screen.id, screen });
  const owners = new Map<string, Container>();
  for (const container of project.containers) for (const member of container.members) if (!owners.has(member)) owners.set(member, container);
  const legsFrom = new Map<string, Leg[]>();
  for (const leg of project.legs) {
    const list = legsFrom.get(leg.from);
    if (list) list.push(leg);
    else legsFrom.set(leg.from, [leg]);
  }
  return {
    places,
    screens: byId(project.screens),
    containers: byId(project.containers),
    owners,
    facts: byId(project.facts),
    types: byId(project.types),
    legs: byId(project.legs),
    entrances: byId(project.entrances),
    legsFrom,
  };
}

function byId<T extends { id: string }>(list: T[]): Map<string, T> {
  return new Map(list.map((entry) => [entry.id, entry]));
}

export function containerOf<K extends Container["kind"]>(project: Project, id: string, kind: K): Extract<Container, { kind: K }> | undefined {
  const container = lookup(project).containers.get(id);
  return container?.kind === kind ? (container as Extract<Container, { kind: K }>) : undefined;
}

export const stackOf = (project: Project, id: string): Stack | undefined => containerOf(project, id, "stack");
export const tabsOf = (project: Project, id: string): Tabs | undefined => containerOf(project, id, "tabs");
export const drawerOf = (project: Project, id: string): Drawer | undefined => containerOf(project, id, "drawer");
export const modalOf = (project: Project, id: string): Modal | undefined => containerOf(project, id, "modal");

/** The containers around a place by ownership, innermost first. Stops where ownership runs in a circle. */
export function ownersAround(project: Project, placeId: string): Container[] {
  const { owners } = lookup(project);
  const out: Container[] = [];
  const seen = new Set<string>([placeId]);
  for (let owner = owners.get(placeId); owner && !seen.has(owner.id); owner = owners.get(owner.id)) {
    seen.add(owner.id);
    out.push(owner);
  }
  return out;
}

/** All places in a container's tree, itself first; members and start alike, each once. */
export function treeOf(project: Project, placeId: string): string[] {
  const { containers } = lookup(project);
  const seen = new Set<string>();
  const visit = (id: string) => {
    if (seen.has(id)) return;
    seen.add(id);
    const container = containers.get(id);
    if (!container) return;
    for (const member of container.members) visit(member);
    visit(container.start);
  };
  visit(placeId);
  return [...seen];
}

/** The screen that a place shows first when it is made, or undefined where the starts lead to none. */
export function firstScreen(project: Project, placeId: string): Screen | undefined {
  const { places } = lookup(project);
  const seen = new Set<string>();
  let id = placeId;
  while (!seen.has(id)) {
    seen.add(id);
    const place = places.get(id);
    if (!place) return undefined;
    if (place.kind === "screen") return place.screen;
    id = place.container.start;
  }
  return undefined;
}

/** The display name of a place, fact, leg or entrance; the id where it has none. */
export function nameOf(project: Project, id: string): string {
  const { places, entrances } = lookup(project);
  const place = places.get(id);
  if (place) return (place.kind === "screen" ? place.screen.name : place.container.name) || id;
  return entrances.get(id)?.name || id;
}

/** The elements that stand on a place itself; none where there is no such place. */
export function elementsOf(project: Project, placeId: string): Element[] {
  const place = lookup(project).places.get(placeId);
  return (place?.kind === "screen" ? place.screen.elements : place?.container.elements) ?? [];
}

/** An element of a place, or undefined. */
export function elementOf(project: Project, placeId: string, elementId: string): Element | undefined {
  return elementsOf(project, placeId).find((e) => e.id === elementId);
}

/** The element that a leg's trigger names, or undefined for triggers without one. */
export function elementIdOf(leg: Leg): string | undefined {
  return "element" in leg.on ? leg.on.element : undefined;
}

/** The place that a leg's move names, if its move has a target. */
export function targetOf(leg: Leg): string | undefined {
  return leg.move && "to" in leg.move ? leg.move.to : undefined;
}

/** The display name of a record type: its id where it has none. */
export function typeLabel(type: RecordType): string {
  return type.name || type.id;
}

/** The display name of a fact: its id where it has none. */
export function factLabel(fact: Fact): string {
  return fact.name || fact.id;
}

/** The place that Up leads to from a screen, or undefined where there is none. `auto` is the start of the stack that owns it. */
export function upTarget(project: Project, screenId: string): string | undefined {
  const { screens, owners } = lookup(project);
  const up = screens.get(screenId)?.up ?? "none";
  if (up === "none") return undefined;
  if (up !== "auto") return up;
  const owner = owners.get(screenId);
  return owner?.kind === "stack" && owner.start !== screenId ? owner.start : undefined;
}

/** The place whose first screen gets the arguments of a leg: for `open`, what the modal shows. */
export function passTarget(project: Project, leg: Leg): string | undefined {
  if (leg.move?.kind !== "open") return targetOf(leg);
  return leg.move.show ?? lookup(project).containers.get(leg.move.to)?.start;
}

/** Whether a parameter has to be passed: it is required, and has no default. */
export function mustBePassed(param: Screen["params"][number]): boolean {
  return param.required && param.default === undefined;
}

/** What a leg passes, by the names of parameters. */
export function passOf(leg: Leg | undefined): Record<string, string> | undefined {
  return leg?.move && "pass" in leg.move ? leg.move.pass : undefined;
}

/** What a leg hands back, by the names of parameters. */
export function giveOf(leg: Leg | undefined): Record<string, string> | undefined {
  return leg?.move && "give" in leg.move ? leg.move.give : undefined;
}

/** The parameters of the screen that a place shows first: those that a move to the place must serve. */
export function parametersOf(project: Project, placeId: string): Screen["params"] {
  return firstScreen(project, placeId)?.params ?? [];
}

/** The record type of the rows that a leg's element lists, or undefined. */
export function rowTypeOf(project: Project, leg: Leg): RecordType | undefined {
  const elementId = elementIdOf(leg);
  const of = elementId === undefined ? undefined : elementOf(project, leg.from, elementId)?.of;
  return of === undefined ? undefined : lookup(project).types.get(of);
}

/** The key of a record type is its first field. */
export function keyField(type: RecordType): string {
  return type.fields[0]?.name ?? "";
}

/** Whether a drawer always shows its members at a width. */
export function isPinned(drawer: Drawer | undefined, width: Width): boolean {
  return drawer !== undefined && drawer.pinnedFrom !== "never" && WIDTHS.indexOf(width) >= WIDTHS.indexOf(drawer.pinnedFrom);
}

/** Narrowest first. */
export const WIDTHS: readonly Width[] = ["narrow", "middle", "wide"];
