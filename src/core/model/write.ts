import * as z from "zod";
import { type Project, ProjectSchema } from "./schema.ts";

/**
 * The canonical text of a project: keys in the order of the format, two-space
 * indent, one trailing newline. Reading this text and writing it again gives the same bytes.
 */
export function writeProject(project: Project): string {
  return `${JSON.stringify(ProjectSchema.parse(project), null, 2)}\n`;
}

/** The JSON Schema (draft 2020-12) of the document format, made from the Zod schema. */
export function projectJsonSchema(): object {
  return {
    ...z.toJSONSchema(ProjectSchema, { target: "draft-2020-12", reused: "ref", io: "input" }),
    title: "Etape project, format etape/1",
  };
}
