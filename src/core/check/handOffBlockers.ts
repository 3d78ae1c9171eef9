import type { Project } from "../model/schema.ts";
import type { Finding } from "./finding.ts";
import { documentFindings } from "./findings/all.ts";

/** The blockers because of which a hand-off would say something that is not so: it names what is not there, or has no beginning. */
export function meaningless(project: Project): Finding[] {
  return documentFindings(project, new Set()).filter((f) => f.code === "no-start" || f.code === "broken-target");
}
