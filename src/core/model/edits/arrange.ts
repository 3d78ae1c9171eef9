import { lookup, nameOf, treeOf } from "../lookup.ts";
import type { Container, Project } from "../schema.ts";
import { freshPlaceId, newContainer } from "./add.ts";
import { type Edit, quoted } from "./edit.ts";

/** Moves a place into a container, before the member at an index (default: last). A place never moves into its own tree. */
export function moveInto(project: Project, placeId: string, containerId: string, index?: number): Edit {
  return {
    name: `Move ${quoted(nameOf(project, placeId))} to ${quoted(nameOf(project, containerId))}`,
    apply: (p) => {
      if (treeOf(p, placeId).includes(containerId)) return p;
      return { ...p, containers: p.containers.map((c) => (c.id === containerId ? withMember(c, placeId, index) : withoutMember(c, placeId))) };
    },
  };
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

/**
 * Puts places that have one owner (or none) into a new container that takes their place
 * in it; legs stay as they are, since they name places and not positions.
 */
export function wrap(project: Project, placeIds: string[], kind: Container["kind"], name: string): Edit {
  return {
    name: `Put ${placeIds.length === 1 ? quoted(nameOf(project, placeIds[0] ?? "")) : `${placeIds.length} places`} into a ${kind === "tabs" ? "tab set" : kind}`,
    apply: (p) => {
      const id = freshPlaceId(p, name);
      const owner = lookup(p).owners.get(placeIds[0] ?? "");
      const container = newContainer(kind, id, name, placeIds);
      const containers = p.containers.map((c) => (c.id === owner?.id ? replaceMembers(c, placeIds, kind === "modal" ? [] : [id]) : c));
      return { ...p, root: placeIds.includes(p.root) && kind !== "modal" ? id : p.root, containers: [...containers, container] };
    },
  };
}

function replaceMembers(container: Container, gone: string[], put: string[]): Container {
  const at = container.members.findIndex((id) => gone.includes(id));
  const members = container.members.filter((id) => !gone.includes(id));
  members.splice(at < 0 ? members.length : at, 0, ...put);
  return { ...container, members, start: gone.includes(container.start) ? (put[0] ?? members[0] ?? container.start) : container.start };
}

/** Takes a container away and puts its members where it stood. */
export function unwrap(project: Project, containerId: string): Edit {
  return {
    name: `Take away ${quoted(nameOf(project, containerId))} and keep what is in it`,
    apply: (p) => {
      const container = lookup(p).containers.get(containerId);
      if (!container) return p;
      const containers = p.containers.filter((c) => c.id !== containerId).map((c) => (c.members.includes(containerId) ? replaceWith(c, container) : c));
      return { ...p, root: p.root === containerId ? container.start : p.root, containers };
    },
  };
}

function replaceWith(owner: Container, gone: Container): Container {
  const members = owner.members.flatMap((id) => (id === gone.id ? gone.members : [id]));
  return { ...owner, members, start: owner.start === gone.id ? gone.start : owner.start };
}
