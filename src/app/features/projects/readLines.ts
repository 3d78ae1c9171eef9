import type { ImportResult } from "../../../core/handoff/in/imported.ts";
import { fromLines } from "../../../core/lines/build.ts";

/** A project from a file of quick lines. */
export function readLines(text: string, name: string): ImportResult {
  const made = fromLines(text, name);
  if (made.ok) return { ok: true, project: made.project, lost: [] };
  return { ok: false, problems: made.problems.map(({ line, column, message }) => ({ line, message: `column ${column}: ${message}` })) };
}
