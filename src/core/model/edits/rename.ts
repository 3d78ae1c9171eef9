import * as z from "zod";
import { elementOf, lookup } from "../lookup.ts";
import { ID_PATTERN, type Project } from "../schema.ts";
import { type Edit, editKind } from "./edit.ts";
import { type Renames, renamed } from "./references.ts";

const NamedSchema = z.discriminatedUnion("kind", [
  z.strictObject({ kind: z.enum(["place", "leg", "entrance", "fact", "type", "rule"]), id: z.string() }),
  z.strictObject({ kind: z.literal("element"), place: z.string(), id: z.string() }),
  z.strictObject({ kind: z.literal("param"), screen: z.string(), id: z.string() }),
]);
/** What has an id that can be changed. */
export type Named = z.infer<typeof NamedSchema>;

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
    case "rule":
      return project.rules?.some((rule) => rule.id === id) ?? false;
    case "element":
      return elementOf(project, what.place, id) !== undefined;
    case "param":
      return known.screens.get(what.screen)?.params.some((p) => p.name === id) ?? false;
  }
}

export const renamesId = editKind("renameId", z.strictObject({ what: NamedSchema, next: z.string() }), (project, { what, next }) =>
  idProblem(project, what, next) === undefined ? renamed(project, renames(what, next)) : project,
);
/** Gives something another id, which follows everywhere: in legs, expressions, walks, rules and what is accepted. */
export function renameId(what: Named, next: string): Edit {
  return renamesId.make(`Change the id ${what.id} to ${next}`, { what, next });
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
    case "rule":
      return { rules: ids };
    case "element":
      return { elements: new Map([[what.place, ids]]) };
    case "param":
      return { params: new Map([[what.screen, ids]]) };
  }
}
