import type { Container, Project } from "../model/schema.ts";

/** Members in the map's own order where the document gives one. */
export function ordered(project: Project, container: Container): string[] {
  const wanted = project.mapOrder?.[container.id]?.filter((id) => container.members.includes(id)) ?? [];
  return [...wanted, ...container.members.filter((id) => !wanted.includes(id))];
}
