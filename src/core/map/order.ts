import { lookup } from "../model/lookup.ts";
import type { Container, Project } from "../model/schema.ts";

/** Members in the map's own order where the document gives one. */
export function ordered(project: Project, container: Container): string[] {
  const wanted = project.mapOrder?.[container.id]?.filter((id) => container.members.includes(id)) ?? [];
  return [...wanted, ...container.members.filter((id) => !wanted.includes(id))];
}

/** How many levels of containers are drawn around a place's screens. */
export function depthOf(project: Project, id: string, seen: Set<string>): number {
  const container = lookup(project).containers.get(id);
  if (!container || seen.has(id)) return 0;
  const within = new Set([...seen, id]);
  const nested = Math.max(0, ...container.members.map((member) => depthOf(project, member, within)));
  const draws = container.kind !== "stack" || container.members.some((member) => lookup(project).containers.has(member));
  return nested + (draws ? 1 : 0);
}
