import type { Edit } from "../../model/edits/edit.ts";
import type { Project } from "../../model/schema.ts";
import type { Finding } from "../finding.ts";
import { fixesFor } from "./repairs.ts";

type Found = Pick<Finding, "code" | "subjects">;

/** The first mend of each of some findings, one after another, as one edit; undefined where fewer than two can be mended. */
export function mendAll(project: Project, findings: readonly (Found & Parameters<typeof fixesFor>[1])[]): Edit | undefined {
  const mendable = findings.filter((finding) => fixesFor(project, finding).length > 0);
  const [first] = mendable;
  if (!first || mendable.length < 2) return undefined;
  return {
    name: `Mend all ${mendable.length} of ${first.code}`,
    // Each mend is worked out anew, for the one before may have changed what it is about.
    apply: (p) => mendable.reduce((now, finding) => fixesFor(now, finding)[0]?.apply(now) ?? now, p),
  };
}
