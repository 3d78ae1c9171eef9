import * as z from "zod";
import { firstScreen, lookup, nameOf, ownersAround, targetOf, treeOf } from "../lookup.ts";
import type { Container, Project } from "../schema.ts";
import { freshPlaceId, newContainer } from "./add.ts";
import { type Edit, editKind, quoted } from "./edit.ts";
import { type Repointed, repoint, standIn } from "./repoint.ts";
import { spreadAll } from "./share.ts";

export const movesInto = editKind(
  "moveInto",
  z.strictObject({ places: z.array(z.string()), container: z.string(), index: z.number().optional(), before: z.string().optional() }),
  (project, { places, container, index, before }) =>
    places.reduce((now, id) => {
      if (before === undefined || places.includes(before)) return movedInto(now, id, container, index);
      const others = (lookup(now).containers.get(container)?.members ?? []).filter((member) => member !== id);
      const at = others.indexOf(before);
      return movedInto(now, id, container, at < 0 ? undefined : at);
    }, project),
);

function movedInto(p: Project, placeId: string, containerId: string, index: number | undefined): Project {
  if (treeOf(p, placeId).includes(containerId) || lookup(p).containers.get(placeId)?.kind === "modal") return p;
  const containers = p.containers.map((c) => (c.id === containerId ? withMember(c, placeId, index) : withoutMember(c, placeId)));
  const root = p.root === placeId ? (lookup(p).owners.has(containerId) ? p.root : containerId) : p.root;
  return repoint(p, { ...p, root, containers }).project;
}

/** Moves a place into a container, before the member at an index (default: last). A place never moves into its own tree; legs follow. */
export function moveInto(project: Project, place: string, container: string, index?: number): Edit {
  return movesInto.make(`Move ${quoted(nameOf(project, place))} to ${quoted(nameOf(project, container))}`, { places: [place], container, index });
}

/** Moves several places into a container, one after another in their order, before the member that is named (default: last). */
export function moveAllInto(project: Project, places: readonly string[], container: string, before?: string): Edit {
  const [only] = places;
  const what = places.length === 1 && only !== undefined ? quoted(nameOf(project, only)) : `${places.length} places`;
  return movesInto.make(`Move ${what} to ${quoted(nameOf(project, container))}`, { places: [...places], container, before });
}

function withMember(container: Container, placeId: string, index: number | undefined): Container {
  const others = container.members.filter((id) => id !== placeId);
  const at = index === undefined ? others.length : Math.max(0, Math.min(index, others.length));
  const members = [...others.slice(0, at), placeId, ...others.slice(at)];
  return { ...container, members, start: container.members.length === 0 ? placeId : container.start };
}

function withoutMember(container: Container, placeId: string): Container {
  if (!container.members.includes(placeId)) return container;
  const members = container.members.filter((id) => id !== placeId);
  return { ...container, members, start: container.start === placeId ? (members[0] ?? container.start) : container.start };
}

export const ordersOnMap = editKind("orderOnMap", z.strictObject({ container: z.string(), order: z.array(z.string()) }), (p, { container, order }) => {
  const members = lookup(p).containers.get(container)?.members ?? [];
  const { [container]: _, ...others } = p.mapOrder ?? {};
  const { mapOrder: __, ...rest } = p;
  const mapOrder = order.join() === members.join() ? others : { ...others, [container]: order };
  return Object.keys(mapOrder).length > 0 ? { ...rest, mapOrder } : rest;
});
/** Puts the members of a container into another order on the map only; what the app does stays the same. */
export function orderOnMap(project: Project, container: string, order: string[]): Edit {
  return ordersOnMap.make(`Order ${quoted(nameOf(project, container))} on the map`, { container, order });
}

/** Why places can not be put into a new container, as a sentence; undefined where they can. */
export function wrapProblem(project: Project, placeIds: string[], kind: Container["kind"]): string | undefined {
  const { owners, containers } = lookup(project);
  if (placeIds.length === 0) return "Choose what is to be put into it.";
  if (new Set(placeIds.map((id) => owners.get(id)?.id)).size > 1) return "They are not in the same container.";
  if (placeIds.some((id) => containers.get(id)?.kind === "modal")) return "A modal is in no container.";
  if (kind === "modal" && placeIds.includes(project.root)) return "The app starts here, and a modal only comes up over something.";
  if (placeIds.length > 1 && placeIds.includes(project.root)) return "The root is in no container, and the others are.";
  return undefined;
}

export interface Arranged extends Repointed {
  /** The container that was made or, on unwrapping, the one that went. */
  id: string;
}

/** What putting places into a new container gives: see {@link wrap}. The container has the id that is wanted, where that is free. */
export function wrapped(project: Project, placeIds: string[], kind: Container["kind"], name: string, wanted?: string): Arranged {
  const id = wanted !== undefined && !lookup(project).places.has(wanted) ? wanted : freshPlaceId(project, name);
  if (wrapProblem(project, placeIds, kind) !== undefined) return { id, project, changed: [], lost: [] };
  const owner = lookup(project).owners.get(placeIds[0] ?? "");
  const inner = withHistories({ ...project, containers: [...project.containers, newContainer(kind, id, name, placeIds)] }, kind, placeIds);
  const container = newContainer(kind, id, name, inner.members);
  const containers = project.containers.map((c) => (c.id === owner?.id ? replaceMembers(c, placeIds, kind === "modal" ? [] : [id]) : c));
  const root = placeIds.includes(project.root) && kind !== "modal" ? id : project.root;
  return { id, ...repoint(project, { ...project, root, containers: [...containers, container, ...inner.stacks] }) };
}

/**
 * Tabs and the members of a drawer keep a history each, so every screen put into new ones gets a
 * stack of its own; several screens in one modal get one stack together.
 */
function withHistories(project: Project, kind: Container["kind"], placeIds: string[]): { members: string[]; stacks: Container[] } {
  const { screens } = lookup(project);
  if (kind === "modal" && placeIds.length > 1) {
    const id = freshPlaceId(project, `${nameOf(project, placeIds[0] ?? "")} steps`);
    return { members: [id], stacks: [newContainer("stack", id, "Steps", placeIds)] };
  }
  if (kind !== "tabs" && kind !== "drawer") return { members: placeIds, stacks: [] };
  let grown = project;
  const stacks: Container[] = [];
  const members = placeIds.map((screenId) => {
    const screen = screens.get(screenId);
    if (!screen) return screenId;
    const id = freshPlaceId(grown, `${screen.name || screenId} tab`);
    const stack = newContainer("stack", id, screen.name, [screenId]);
    grown = { ...grown, containers: [...grown.containers, stack] };
    stacks.push(stack);
    return id;
  });
  return { members, stacks };
}

export const wraps = editKind(
  "wrap",
  z.strictObject({ places: z.array(z.string()), as: z.enum(["stack", "tabs", "drawer", "modal"]), called: z.string(), id: z.string() }),
  (p, { places, as, called, id }) => wrapped(p, places, as, called, id).project,
);
/** Puts places that have one owner (or none) into a new container that takes their place in it; legs are kept right. */
export function wrap(project: Project, places: string[], kind: Container["kind"], called: string, id = freshPlaceId(project, called)): Edit {
  const what = places.length === 1 ? quoted(nameOf(project, places[0] ?? "")) : `${places.length} places`;
  return wraps.make(`Put ${what} into a ${kind === "tabs" ? "tab set" : kind}`, { places, as: kind, called, id });
}

function replaceMembers(container: Container, gone: string[], put: string[]): Container {
  const at = container.members.findIndex((id) => gone.includes(id));
  const members = container.members.filter((id) => !gone.includes(id));
  members.splice(at < 0 ? members.length : at, 0, ...put);
  return { ...container, members, start: gone.includes(container.start) ? (put[0] ?? members[0] ?? container.start) : container.start };
}

/**
 * What taking a container away gives: its members stand where it stood, or, of a modal, beside
 * what opens it; what it shared is put on each screen; legs to it lead to what it showed first.
 */
export function unwrapped(project: Project, containerId: string): Arranged {
  const gone = lookup(project).containers.get(containerId);
  if (!gone) return { id: containerId, project, changed: [], lost: [] };
  const spread = spreadAll(project, containerId);
  const members = gone.members.length > 0 ? gone.members : [gone.start];
  const host = gone.kind === "modal" ? hostOf(project, gone) : undefined;
  const containers = spread.containers
    .filter((c) => c.id !== containerId)
    .map((c) => (c.members.includes(containerId) ? replaceWith(c, gone) : c.id === host?.id ? { ...c, members: [...c.members, ...members] } : c));
  const { [containerId]: _, ...mapOrder } = spread.mapOrder ?? {};
  const after: Project = { ...spread, root: spread.root === containerId ? gone.start : spread.root, containers };
  const instead = { first: standIn(project, containerId), stack: ownersAround(project, containerId).find((c) => c.kind === "stack")?.id };
  const made = repoint(project, spread.mapOrder ? { ...after, mapOrder } : after, instead);
  return { id: containerId, ...made };
}

/** The stack in which a modal's screens go on: that of the first place that opens it, else the root where that is a container. */
function hostOf(project: Project, modal: Container): Container | undefined {
  const opener = project.legs.find((leg) => leg.move?.kind === "open" && targetOf(leg) === modal.id && !treeOf(project, modal.id).includes(leg.from));
  const around = opener ? ownersAround(project, opener.from) : [];
  const root = lookup(project).containers.get(project.root);
  return around.find((c) => c.kind === "stack") ?? (root?.kind === "stack" ? root : undefined) ?? around[0] ?? root;
}

export const unwraps = editKind("unwrap", z.strictObject({ container: z.string() }), (p, { container }) => unwrapped(p, container).project);
/** Takes a container away and keeps what is in it. */
export function unwrap(project: Project, container: string): Edit {
  return unwraps.make(`Take away ${quoted(nameOf(project, container))} and keep what is in it`, { container });
}

function replaceWith(owner: Container, gone: Container): Container {
  const members = owner.members.flatMap((id) => (id === gone.id ? gone.members : [id]));
  return { ...owner, members, start: owner.start === gone.id ? gone.start : owner.start };
}

/** Whether a place may be taken apart: the root only where what it shows first can take its place. */
export function unwrapProblem(project: Project, containerId: string): string | undefined {
  const container = lookup(project).containers.get(containerId);
  if (!container) return "Only a container can be taken away and its members kept.";
  if (containerId === project.root && container.members.length > 1) return "It is the root and holds several places; one of them would have to be the root.";
  if (firstScreen(project, containerId) === undefined && container.members.length === 0) return "It is empty. Delete it instead.";
  return undefined;
}
