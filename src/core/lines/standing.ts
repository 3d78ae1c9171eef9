import { lookup, nameOf, ownersAround } from "../model/lookup.ts";
import { sameName } from "../model/names.ts";
import type { Project } from "../model/schema.ts";

/** A name in lines that stands for a place of a project, whatever that is called; nobody types its first letter. */
export const standsFor = (id: string): string => `\uE000${id}`;

/** The id that such a name stands for. */
export const standingFor = (name: string): string | undefined => (name.startsWith("\uE000") ? name.slice(1) : undefined);

/** What each such name stands for. */
export function standing(project: Project): ReadonlyMap<string, string> {
  return new Map([...lookup(project).places.keys()].map((id) => [standsFor(id), id]));
}

/** The place of a project that has a path such as `Yard/Rota`: its name, with those of containers around it before it. Screens go first. */
export function placeAt(project: Project, path: readonly string[]): string | undefined {
  const [name = "", ...around] = [...path].reverse();
  const fits = (id: string) => {
    const owners = ownersAround(project, id);
    return sameName(nameOf(project, id), name) && around.every((wanted, i) => sameName(owners[i]?.name ?? "", wanted));
  };
  return [...project.screens, ...project.containers].map(({ id }) => id).find(fits);
}
