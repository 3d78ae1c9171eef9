import type { Project } from "../../model/schema.ts";
import { planHash } from "../../plan/planOf.ts";
import { asLine } from "../../text/line.ts";
import { literal } from "./literal.ts";

/** The first line of a file: which document and which design it is of, and not to edit it. */
export function madeBy(project: Project): string {
  const source = oneLine(project.name);
  return `// Made by Etape from "${source}", design ${planHash(project)}. Do not edit: change the design and make this file again.`;
}

/** By record type the name of its type in code. */
export type Rows = ReadonlyMap<string, string>;

/** A name in a comment: one line that does not end the comment. */
export function oneLine(name: string): string {
  return asLine(name).replaceAll("*/", "* /");
}

/** The type in code of a type in the document. */
export function typeOf(type: string, rows: Rows): string {
  switch (type) {
    case "text":
    case "date":
      return "string";
    case "integer":
    case "number":
      return "number";
    case "boolean":
      return "boolean";
    default:
      return rows.get(type) ?? "Args";
  }
}

/** Some ids as a type: each of them, or none. */
export function anyOf(ids: readonly string[]): string {
  return [...new Set(ids)].map((id) => literal(id)).join(" | ") || "never";
}
