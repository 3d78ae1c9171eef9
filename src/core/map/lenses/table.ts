import type { Project } from "../../model/schema.ts";
import { CHANGED } from "./changed.ts";
import { DATA } from "./data.ts";
import { FINDINGS } from "./findings.ts";
import type { Lens, LensChoice, LensGiven, LensView } from "./lens.ts";
import { REACH } from "./reach.ts";
import { WALKED } from "./walked.ts";

/** All lenses, in the order in which they are offered; a new one is a file and a line here. */
export const LENSES: readonly Lens[] = [FINDINGS, REACH, WALKED, CHANGED, DATA];

/** What a lens answers. */
export function lensView(project: Project, choice: LensChoice, given: LensGiven = {}): LensView {
  const lens = LENSES.find(({ id }) => id === choice.lens) ?? FINDINGS;
  return lens.view(project, choice, given);
}
