import type { Edit } from "../../model/edits/edit.ts";
import { applyEdit, together } from "../../model/edits/kinds.ts";
import type { Project } from "../../model/schema.ts";
import type { Finding } from "../finding.ts";
import { kindOf } from "../findings/all.ts";
import { fixesFor } from "./fixes.ts";

type Found = Pick<Finding, "code" | "subjects">;

/** How many of some findings can be fixed one after another; 0 where fewer than two can. */
export function fixable(project: Project, findings: readonly Found[]): number {
  const count = findings.filter((finding) => fixesFor(project, finding).length > 0).length;
  return count < 2 ? 0 : count;
}

/** The first fix of each of some findings, one after another, as one edit; undefined where fewer than two can be fixed. */
export function fixAll(project: Project, findings: readonly Found[]): Edit | undefined {
  const count = fixable(project, findings);
  const [first] = findings;
  if (!first || count === 0) return undefined;
  const edits: Edit[] = [];
  let now = project;
  // Each fix is worked out again, for the one before may have changed what it is about.
  for (const finding of findings) {
    const [fix] = fixesFor(now, finding);
    if (!fix) continue;
    edits.push(fix);
    now = applyEdit(now, fix);
  }
  return together(`Fix all ${count}: ${kindOf(first.code)?.says ?? first.code}`, edits);
}
