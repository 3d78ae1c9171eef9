import type { Project } from "../model/schema.ts";
import type { Checked, HandedFile } from "./handed.ts";
import { TARGETS, targetOf } from "./target.ts";

/**
 * The files of one hand-off, by the id of its target: `typescript`, `kotlin`, `swift`, `spec`, `tests`, … `checked` is what the check
 * says and the page of a prototype, for the targets that tell of it. The same project always gives the same bytes.
 * Throws where there is no such target, naming those that there are, and for `prototype` without a page.
 */
export function generate(project: Project, target: string, checked: Checked = NOT_CHECKED): HandedFile[] {
  const found = targetOf(target);
  if (!found) throw new Error(`generate: there is no target "${target}"; expected one of ${TARGETS.map(({ id }) => id).join(", ")}`);
  return found.files(project, checked);
}

const NOT_CHECKED: Checked = { findings: [], proof: "This was not checked.", frame: "" };
