import { elementOf, lookup } from "../lookup.ts";
import { ID_PATTERN, type Project } from "../schema.ts";
import type { Edit } from "./edit.ts";
import { type Renames, renamed } from "./references.ts";

/** What has an id that can be changed. */
export type Named =
  | { kind: "place" | "leg" | "entrance" | "fact" | "type"; id: string }
  | { kind: "element"; place: string; id: string }
  | { kind: "param"; screen: string; id: string };

const RESERVED = ["auto", "none", "beneath", "text", "integer", "number", "boolean", "date"];

/** Why an id can not be taken, as a sentence; undefined where it can. */
export function idProblem(project: Project, what: Named, next: string): string | undefined {
  const pattern = what.kind === "param" ? /^[A-Za-z_][A-Za-z0-9_]{0,63}$/ : ID_PATTERN;
  if (!pattern.test(next)) return "A small letter first, then letters and digits, at most 64.";
  if ((what.kind === "place" || what.kind === "type") && RESERVED.includes(next)) return `“${next}” means something else already.`;
  return next !== what.id && taken(project, what, next) ? `“${next}” is taken.` : undefined;
}

function taken(project: Project, what: Named, id: string): boolean {
  const known = lookup(project);
  switch (what.kind) {
    case "place":
      return known.places.has(id);
    case "leg":
      return known.legs.has(id);
    case "entrance":
      return known.entrances.has(id);
    case "fact":
      return known.facts.has(id);
    case "type":
      return known.types.has(id);
    case "element":
      return elementOf(project, what.place, id) !== undefined;
    case "param":
      return known.screens.get(what.screen)?.params.some((p) => p.name === id) ?? false;
  }
}

/** Gives something another id, which follows everywhere: in legs, expressions, walks and what is accepted. */
export function renameId(what: Named, next: string): Edit {
  return {
    name: `Change the id ${what.id} to ${next}`,
    apply: (project) => (idProblem(project, what, next) === undefined ? renamed(project, renames(what, next)) : project),
  };
}

function renames(what: Named, next: string): Renames {
  const ids = new Map([[what.id, next]]);
  switch (what.kind) {
    case "place":
      return { places: ids };
    case "leg":
      return { legs: ids };
    case "entrance":
      return { entrances: ids };
    case "fact":
      return { facts: ids };
    case "type":
      return { types: ids };
    case "element":
      return { elements: new Map([[what.place, ids]]) };
    case "param":
      return { params: new Map([[what.screen, ids]]) };
  }
}
