import type { Project } from "../../model/schema.ts";

/** A project made from something else, and everything that could not be kept, a sentence each. */
export interface Imported {
  project: Project;
  lost: string[];
}
/** What an import gives: a project with what was lost, or why there is none, with the line where that is known. */
export type ImportResult = ({ ok: true } & Imported) | { ok: false; problems: Array<{ line?: number; message: string }> };
