import type { Edit } from "../model/edits/edit.ts";
import { difference } from "../model/edits/revise.ts";
import { elementsOf, lookup, nameOf } from "../model/lookup.ts";
import type { Project } from "../model/schema.ts";
import type { LineProblem } from "./ast.ts";
import { readLines } from "./build.ts";
import { isUntouched } from "./isLines.ts";
import { Merging } from "./merging.ts";
import { standing } from "./standing.ts";

/** What some lines make of a project: one edit, and what it makes in words; or what is wrong with them. */
export type IntoResult = { ok: true; edit: Edit; makes: string[]; last: string | undefined } | { ok: false; problems: LineProblem[] };

/**
 * What quick lines make of a project. In one in which nothing was built they are all of it; else screens and containers are found by
 * their names or added, beside a place where that is given, and what stands on them is added to what is there.
 */
export function linesInto(project: Project, text: string, beside?: string): IntoResult {
  const read = readLines(text, project.name, isUntouched(project) ? undefined : project);
  if (!read.ok) return read;
  if (isUntouched(project)) {
    const next = { ...read.project, name: read.named ? read.project.name : project.name };
    return { ok: true, edit: difference(project, next, "Build from lines"), makes: madeWords(project, next), last: next.screens[0]?.id };
  }
  const merging = new Merging(project, read, { bound: standing(project), byName: true, beside });
  if (merging.problems.length > 0) return { ok: false, problems: merging.problems };
  return { ok: true, edit: difference(project, merging.project, "Build from lines"), makes: madeWords(project, merging.project), last: merging.first };
}

/** What is in a project that was not in another, in words. */
function madeWords(before: Project, after: Project): string[] {
  const known = lookup(before).places;
  const name = (id: string) => `“${nameOf(after, id)}”`;
  const screens = after.screens.filter(({ id }) => !known.has(id)).map(({ id }) => name(id));
  const containers = after.containers.filter(({ id }) => !known.has(id)).map(({ id, kind }) => `${kind} ${name(id)}`);
  const elements = after.screens.flatMap(({ id }) => elementsOf(after, id)).length - before.screens.flatMap(({ id }) => elementsOf(before, id)).length;
  const legs = after.legs.filter((leg) => !lookup(before).legs.has(leg.id));
  const facts = after.facts.filter(({ id }) => !before.facts.some((fact) => fact.id === id)).map(({ id, name: called }) => `fact “${called ?? id}”`);
  const counted = (count: number, what: string) => (count > 0 ? [`${count} ${what}${count === 1 ? "" : "s"}`] : []);
  return [
    ...(screens.length > 0 ? [`screens ${screens.join(", ")}`] : []),
    ...containers,
    ...counted(elements, "element"),
    ...counted(legs.length, "leg"),
    ...facts,
  ];
}
