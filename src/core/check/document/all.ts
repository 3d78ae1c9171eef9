import type { Project } from "../../model/schema.ts";
import type { Finding } from "../finding.ts";
import { ambiguous, carryMismatch, idleElement, noMenuControl, noWayUp, oneOutcome, sameName, selfLeg, unusedElement } from "./controls.ts";
import { linkArguments, linkClash, missingArgument, pagesPush, pastTheEnd, unusedFact, unusedParameter, wrongType } from "./handed.ts";
import type { Rule } from "./rule.ts";
import { brokenTarget, noOutside, noOwner, noStart, tabCount, upArguments, upCycle } from "./structure.ts";

/** The findings about the document itself, in the order in which they are listed. */
const RULES: readonly Rule[] = [
  { code: "broken-target", severity: "blocker", find: brokenTarget },
  { code: "no-owner", severity: "blocker", find: noOwner },
  { code: "no-start", severity: "blocker", find: noStart },
  { code: "missing-argument", severity: "blocker", find: missingArgument },
  { code: "wrong-type", severity: "blocker", find: wrongType },
  { code: "ambiguous", severity: "blocker", find: ambiguous },
  { code: "up-cycle", severity: "blocker", find: upCycle },
  { code: "up-arguments", severity: "blocker", find: upArguments },
  { code: "link-clash", severity: "blocker", find: linkClash },
  { code: "link-arguments", severity: "blocker", find: linkArguments },
  { code: "no-way-up", severity: "warning", find: noWayUp },
  { code: "idle-element", severity: "warning", find: idleElement },
  { code: "carry-mismatch", severity: "warning", find: carryMismatch },
  { code: "tab-count", severity: "warning", find: tabCount },
  { code: "no-menu-control", severity: "warning", find: noMenuControl },
  { code: "pages-push", severity: "warning", find: pagesPush },
  { code: "past-the-end", severity: "warning", find: pastTheEnd },
  { code: "no-outside", severity: "warning", find: noOutside },
  { code: "one-outcome", severity: "warning", find: oneOutcome },
  { code: "same-name", severity: "note", find: sameName },
  { code: "self-leg", severity: "note", find: selfLeg },
  { code: "unused-parameter", severity: "note", find: unusedParameter },
  { code: "unused-fact", severity: "note", find: unusedFact },
  { code: "unused-element", severity: "note", find: unusedElement },
];

/** All findings that can be read off the document; one for each code and list of subjects. */
export function documentFindings(project: Project, hubs: ReadonlySet<string>): Finding[] {
  return RULES.flatMap(({ code, severity, find }) => {
    const seen = new Set<string>();
    return find(project, hubs)
      .filter(({ subjects }) => !seen.has(subjects.join("\n")) && seen.add(subjects.join("\n")))
      .map((found): Finding => ({ code, severity, ...found, certainty: "certain", fixes: [] }));
  });
}
