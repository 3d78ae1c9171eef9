import { lookup, modalOf, treeOf, upTarget } from "../../model/lookup.ts";
import { once } from "../../model/once.ts";
import type { Container, Project } from "../../model/schema.ts";
import type { Route, Template } from "../data.ts";

/**
 * Make(place): what a place looks like when it is made. A place that does not exist, a modal, or starts that lead round give an
 * empty screen of that id.
 */
export function templateOf(project: Project, placeId: string): Template {
  const known = once(project, templatesOf);
  let made = known.get(placeId);
  if (made === undefined) {
    made = makeTemplate(project, placeId, []);
    known.set(placeId, made);
  }
  return made;
}

const templatesOf = (_: Project) => new Map<string, Template>();

function makeTemplate(project: Project, placeId: string, around: readonly string[]): Template {
  const container = lookup(project).containers.get(placeId);
  if (!container || container.kind === "modal" || around.includes(placeId)) return placeId;
  return inside(container, container.start, makeTemplate(project, container.start, [...around, placeId]));
}

/** A container with one child. */
function inside(container: Container, child: string, shows: Template): Template {
  switch (container.kind) {
    case "stack":
      return { stack: container.id, items: [shows] };
    case "tabs":
    case "drawer":
      return { lanes: container.id, kind: container.kind, active: child, shows };
    case "modal":
      return shows;
  }
}

/**
 * Trail(screen): the screen, before it its up target, and so on as long as they have the same owner. An up target met again ends it.
 */
export function trailOf(project: Project, placeId: string): Template[] {
  const { owners, places } = lookup(project);
  const owner = owners.get(placeId);
  const ids = [placeId];
  for (let up = upTarget(project, placeId); up !== undefined; up = upTarget(project, up)) {
    if (ids.includes(up) || !places.has(up) || owners.get(up) !== owner) break;
    ids.unshift(up);
  }
  return ids.map((id) => templateOf(project, id));
}

/**
 * The route to a place: the containers from the root to it, each stack with the one child on the way, the owning stack with the
 * trail. A place in a modal's tree opens that modal over the launched app. Undefined where there is no such place.
 */
export function routeTo(project: Project, placeId: string): Route | undefined {
  if (!lookup(project).places.has(placeId)) return undefined;
  const modal = modalOf(project, placeId);
  if (modal) return { over: placeId, shows: templateOf(project, modal.start) };
  const chain = ownerChain(project, placeId);
  const [outermost, ...inner] = chain;
  if (outermost?.kind === "modal") return { over: outermost.id, shows: alongChain(project, inner, placeId) };
  return { base: alongChain(project, chain, placeId) };
}

/** The containers that own a place, outermost first; ends at a modal. */
function ownerChain(project: Project, placeId: string): Container[] {
  const { owners } = lookup(project);
  const chain: Container[] = [];
  for (let owner = owners.get(placeId); owner && !chain.includes(owner); owner = owners.get(owner.id)) {
    chain.unshift(owner);
    if (owner.kind === "modal" || owner.id === project.root) break;
  }
  return chain;
}

function alongChain(project: Project, chain: readonly Container[], placeId: string): Template {
  const [container, ...rest] = chain;
  if (!container) return templateOf(project, placeId);
  if (container.kind === "stack" && rest.length === 0) return { stack: container.id, items: trailOf(project, placeId) };
  return inside(container, rest[0]?.id ?? placeId, alongChain(project, rest, placeId));
}

/** The containers in a place's tree, itself among them. */
export function holdsOf(project: Project, placeId: string): string[] {
  const { containers } = lookup(project);
  return treeOf(project, placeId).filter((id) => containers.has(id));
}
