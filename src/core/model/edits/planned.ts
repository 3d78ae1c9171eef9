import * as z from "zod";
import type { Project } from "../schema.ts";
import { type Edit, editKind } from "./edit.ts";

type Marked = { id: string; planned?: boolean | undefined };

export const setsPlanned = editKind(
  "setPlanned",
  z.strictObject({ screens: z.array(z.string()), legs: z.array(z.string()), planned: z.boolean() }),
  (project, { screens, legs, planned }) => {
    const mark = <T extends Marked>(list: T[], chosen: string[]): T[] =>
      list.map((entry) => {
        if (!chosen.includes(entry.id) || (entry.planned === true) === planned) return entry;
        const { planned: _, ...rest } = entry;
        return (planned ? { ...entry, planned: true } : rest) as T;
      });
    return { ...project, screens: mark(project.screens, screens), legs: mark(project.legs, legs) };
  },
);
/** Marks screens and legs as stand-ins, or as real ones, all at once. */
export function setPlanned(ids: { screens: string[]; legs: string[] }, planned: boolean): Edit {
  const count = ids.screens.length + ids.legs.length;
  return setsPlanned.make(`${planned ? "Only plan" : "Make real"} ${count === 1 ? "it" : `${count} of them`}`, { ...ids, planned });
}

/** How many stand-ins a document has. */
export function plannedIn(project: Project): { screens: string[]; legs: string[] } {
  return { screens: project.screens.filter((s) => s.planned).map((s) => s.id), legs: project.legs.filter((l) => l.planned).map((l) => l.id) };
}
