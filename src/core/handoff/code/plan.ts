/** What generated code says of a project beside its plan: functions for legs and ways in, names of views. */

import { lookup, nameOf } from "../../model/lookup.ts";
import { moveSentence } from "../../model/propose.ts";
import type { Entrance, Leg, Project, Screen } from "../../model/schema.ts";
import { patternVariables } from "../../model/template.ts";

/** A leg that the app uses by name. */
export interface UsableLeg {
  leg: Leg;
  /** What it does, in a few words. */
  says: string;
}

/** The legs that a person or the clock sets off; the others fire by themselves. */
export function usableLegs(project: Project): UsableLeg[] {
  return project.legs
    .filter(({ on }) => on.kind !== "arrive" && on.kind !== "depart")
    .map((leg) => ({ leg, says: `${nameOf(project, leg.from)}: ${leg.move ? moveSentence(project, leg.from, leg.move) : "sets facts"}` }));
}

/** A way in with the variables of its address. */
export interface CodeEntrance {
  entrance: Entrance;
  variables: string[];
  target: Screen | undefined;
}

/** The ways in, in document order. */
export function codeEntrances(project: Project): CodeEntrance[] {
  return project.entrances.map((entrance) => ({
    entrance,
    variables: entrance.pattern === undefined ? [] : patternVariables(entrance.pattern),
    target: lookup(project).screens.get(entrance.to),
  }));
}

/** By screen the name that its view has in code. */
export function viewNames(project: Project): Map<string, string> {
  const code = new Map(project.screens.map((s) => [s.id, s.code ?? s.id]));
  return uniqueNames([...code.keys()], (id) => code.get(id) ?? id);
}

/** Names that are unique even where a language reads capitals alike or puts them first; later ones get a number. */
export function uniqueNames(ids: readonly string[], nameOf: (id: string) => string, taken: readonly string[] = []): Map<string, string> {
  const used = new Set(taken.map((name) => name.toLowerCase()));
  const out = new Map<string, string>();
  for (const id of ids) {
    const wanted = nameOf(id);
    let name = wanted;
    for (let n = 2; used.has(name.toLowerCase()); n++) name = `${wanted}${n}`;
    used.add(name.toLowerCase());
    out.set(id, name);
  }
  return out;
}

export function capital(id: string): string {
  return id.charAt(0).toUpperCase() + id.slice(1);
}

/** Entries in parts of at most so many, for languages that take no endless literals. */
export function chunks<T>(list: readonly T[], size: number): T[][] {
  const out: T[][] = [];
  for (let i = 0; i < list.length; i += size) out.push(list.slice(i, i + size));
  return out;
}
