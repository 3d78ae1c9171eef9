import type { Edit } from "../../model/edits/edit.ts";
import { applyEdit, deletes } from "../../model/edits/kinds.ts";
import { sameValue } from "../../model/json.ts";
import type { Project } from "../../model/schema.ts";
import type { Finding } from "../finding.ts";
import { kindOf } from "../findings/all.ts";

/**
 * The fixes that are offered for a finding: the one that most people want first, one that deletes something last.
 * A fix that would change nothing is not offered.
 */
export function fixesFor(project: Project, { code, subjects }: Pick<Finding, "code" | "subjects">): Edit[] {
  const useful = (kindOf(code)?.fixes?.(project, subjects) ?? []).filter((edit) => !sameValue(applyEdit(project, edit), project));
  return [...useful.filter((edit) => !deletes(edit)), ...useful.filter(deletes)];
}
