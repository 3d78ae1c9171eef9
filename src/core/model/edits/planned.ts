import type { Project } from "../schema.ts";
import type { Edit } from "./edit.ts";

/** Marks screens and legs as stand-ins, or as real ones, all at once. */
export function setPlanned(ids: { screens: string[]; legs: string[] }, planned: boolean): Edit {
  const count = ids.screens.length + ids.legs.length;
  const mark = <T extends { id: string; planned?: boolean | undefined }>(list: T[], chosen: string[]): T[] =>
    list.map((entry) => {
      if (!chosen.includes(entry.id) || (entry.planned === true) === planned) return entry;
      const { planned: _, ...rest } = entry;
      return (planned ? { ...entry, planned: true } : rest) as T;
    });
  return {
    name: `${planned ? "Only plan" : "Make real"} ${count === 1 ? "it" : `${count} of them`}`,
    apply: (p) => ({ ...p, screens: mark(p.screens, ids.screens), legs: mark(p.legs, ids.legs) }),
  };
}

/** How many stand-ins a document has. */
export function plannedIn(project: Project): { screens: string[]; legs: string[] } {
  return { screens: project.screens.filter((s) => s.planned).map((s) => s.id), legs: project.legs.filter((l) => l.planned).map((l) => l.id) };
}
