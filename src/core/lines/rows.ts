import { freshId } from "../model/edits/edit.ts";
import type { RecordType } from "../model/schema.ts";
import { singular } from "../text/singular.ts";
import type { ElementNode, Lines, PlaceNode } from "./ast.ts";

/** Rows that a list is given where lines do not say of what it is. */
const SAMPLES = 3;

/**
 * Record types for lists that hand on a field of their row and do not say what their rows are: called as the list is, with the fields
 * that are handed on and a few rows. By the node of each list, the type that it is of; and the types that are new.
 */
export function rowsOfLists(lines: Lines): { of: ReadonlyMap<ElementNode, string>; types: RecordType[] } {
  const of = new Map<ElementNode, string>();
  const types = new Map<string, RecordType>();
  const named = new Set(lines.rows.map(({ id }) => id));
  const visit = (place: PlaceNode) => {
    for (const element of place.elements) {
      const isList = element.kind === "list" || element.options.some(({ text }) => text === "list");
      const fields = isList && !element.options.some(({ text }) => text.startsWith("of ")) ? fieldsOf(element) : [];
      if (fields.length === 0) continue;
      const id = freshId(singular(element.label.replace(/\s*\b(list|rows)$/i, "") || place.name), new Set(), "row");
      of.set(element, id);
      if (named.has(id)) continue;
      const known = types.get(id)?.fields.map(({ name }) => name) ?? [];
      types.set(id, typeWith(id, [...new Set([...known, ...fields])]));
    }
    for (const member of place.members) visit(member);
  };
  for (const place of lines.places) visit(place);
  return { of, types: [...types.values()] };
}

/** The fields of its row that a list hands on. */
function fieldsOf(element: ElementNode): string[] {
  const expressions = element.legs.flatMap(({ args = {}, options }) => [...Object.values(args), ...options.map(({ text }) => text)]);
  return [...new Set(expressions.flatMap((text) => [...text.matchAll(/\bitem\.([A-Za-z_]\w*)/g)].map(([, field = ""]) => field)))];
}

function typeWith(id: string, fields: readonly string[]): RecordType {
  const cell = (field: string, row: number) => (/^id$|Id$/.test(field) ? `${id}${row}` : `${field.charAt(0).toUpperCase()}${field.slice(1)} ${row}`);
  return {
    id,
    fields: fields.map((name) => ({ name, type: "text" })),
    samples: Array.from({ length: SAMPLES }, (_, i) => Object.fromEntries(fields.map((field) => [field, cell(field, i + 1)]))),
  };
}
