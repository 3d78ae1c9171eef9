import type { Edit } from "../../model/edits/edit.ts";
import type { Project } from "../../model/schema.ts";
import type { Finding } from "../finding.ts";
import { kindOf } from "../findings/all.ts";
import { fixesFor } from "./fixes.ts";

type Found = Pick<Finding, "code" | "subjects">;

/** The first fix of each of some findings, one after another, as one edit; undefined where fewer than two can be fixed. */
export function fixAll(project: Project, findings: readonly (Found & Parameters<typeof fixesFor>[1])[]): Edit | undefined {
  const fixable = findings.filter((finding) => fixesFor(project, finding).length > 0);
  const [first] = fixable;
  if (!first || fixable.length < 2) return undefined;
  return {
    name: `Fix all ${fixable.length}: ${kindOf(first.code)?.says ?? first.code}`,
    // Each fix is worked out anew, for the one before may have changed what it is about.
    apply: (p) => fixable.reduce((now, finding) => fixesFor(now, finding)[0]?.apply(now) ?? now, p),
  };
}
