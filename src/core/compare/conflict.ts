import type { Project } from "../model/schema.ts";

/** Something that both sides changed, and differently; the merged document has what is said. */
export interface Conflict {
  /** Where it is, as people read it: `screen “Plot” (plot)`. */
  where: string;
  /** The field, with dots between: `move.to`; empty where it is about the whole. */
  field: string;
  /** What happened on each side, and what the merged document has, as a sentence. */
  says: string;
}

/** The document that two others make which began as the same one, and what both changed differently. */
export interface Merged {
  project: Project;
  conflicts: Conflict[];
}
