import { fromSomeAddresses } from "../../../core/handoff/in/addresses.ts";
import { linesInto } from "../../../core/lines/into.ts";
import { isUntouched } from "../../../core/lines/isLines.ts";
import { difference } from "../../../core/model/edits/revise.ts";
import type { Session } from "../../session/session.ts";

/**
 * Builds what some lines say as one edit, and chooses the first screen that they name; gives whether they could be read. Problems with addresses are
 * said, those with lines are for whoever shows the lines.
 */
export function buildLines(session: Session, text: string, beside: string | undefined): boolean {
  const { project, apply } = session.document.getState();
  if (mayBeAddresses(session, text)) return buildAddresses(session, text);
  const made = linesInto(project, text, beside);
  if (!made.ok) return false;
  apply(made.edit);
  if (made.last !== undefined) session.selection.getState().select({ kind: "place", id: made.last });
  return true;
}

/** Whether a text is read as addresses, from which a project is started. */
export function mayBeAddresses(session: Session, text: string): boolean {
  return isAddresses(text) && isUntouched(session.document.getState().project);
}

/** A list of addresses, one a line; a few lines that are none do not make it anything else. */
function isAddresses(text: string): boolean {
  const lines = text.split(/\r?\n/).filter((line) => line.trim() !== "" && !line.trim().startsWith("#"));
  const some = lines.filter((line) => /^\s*(https?:\/\/|\/)\S*\s*$/.test(line));
  return some.length > 1 && some.length > lines.length / 2;
}

/** Starts a project from addresses; what could not be kept is said. */
function buildAddresses(session: Session, text: string): boolean {
  const { project, apply } = session.document.getState();
  const say = session.notices.getState().say;
  const made = fromSomeAddresses(text, project.name);
  if (!made.ok) {
    say(
      "These addresses were not built:",
      made.problems.slice(0, 8).map(({ line, message }) => (line === undefined ? message : `line ${line}: ${message}`)),
    );
    return false;
  }
  apply(difference(project, made.project, "Build from addresses"));
  if (made.lost.length > 0) say("Not kept:", made.lost);
  return true;
}
