import { linesInto } from "../../../core/lines/into.ts";
import type { Session } from "../../session/session.ts";

/** Builds what some lines say as one edit, and chooses the first screen that they name; gives whether they could be read. */
export function buildLines(session: Session, text: string, beside: string | undefined): boolean {
  const { project, apply } = session.document.getState();
  const made = linesInto(project, text, beside);
  if (!made.ok) {
    session.notices.getState().say(
      "These lines were not built:",
      made.problems.slice(0, 8).map(({ line, column, message }) => `line ${line}, column ${column}: ${message}`),
    );
    return false;
  }
  apply(made.edit);
  if (made.last !== undefined) session.selection.getState().select({ kind: "place", id: made.last });
  return true;
}
