import type { Severity } from "../../core/check/finding.ts";
import { SEVERITIES } from "../../core/check/finding.ts";
import { lookup } from "../../core/model/lookup.ts";
import type { Project } from "../../core/model/schema.ts";
import type { PlainFinding } from "../worker/protocol.ts";

export type Worst = { severity: Severity; count: number };

/** For each place the worst finding about it and how many there are; legs count for where they start, ways in for where they lead. */
export function worstByPlace(project: Project, findings: readonly PlainFinding[]): Map<string, Worst> {
  const out = new Map<string, Worst>();
  for (const finding of findings) {
    const place = placeOfFinding(project, finding);
    if (place === undefined || finding.severity === "note" || finding.open) continue;
    const known = out.get(place);
    const worse = !known || SEVERITIES.indexOf(finding.severity) < SEVERITIES.indexOf(known.severity);
    out.set(place, { severity: worse ? finding.severity : known.severity, count: (known?.count ?? 0) + 1 });
  }
  return out;
}

/** The place that a finding is about; of a rule the screen on which it breaks. */
export function placeOfFinding(project: Project, { subjects: [first = "", second = ""] }: Pick<PlainFinding, "subjects">): string | undefined {
  return placeOfSubject(project, first) ?? (lookup(project).screens.has(second) ? second : undefined);
}

/** The place that a finding's main subject stands on. */
export function placeOfSubject(project: Project, subject: string): string | undefined {
  const { places, legs, entrances } = lookup(project);
  if (places.has(subject)) return subject;
  return legs.get(subject)?.from ?? entrances.get(subject)?.to;
}

/** What is wrong, and what is only not built yet. */
export function parted(findings: readonly PlainFinding[]): { wrong: PlainFinding[]; open: PlainFinding[] } {
  return { wrong: findings.filter((finding) => !finding.open), open: findings.filter((finding) => finding.open) };
}

export function count(findings: readonly PlainFinding[], severity: Severity): number {
  return findings.filter((finding) => finding.severity === severity).length;
}

/** How much is not built yet, in words. */
export const openEnds = (n: number) => `${n} open ${n === 1 ? "end" : "ends"}`;

export const SEVERITY_COLOR: Record<Severity, string> = { blocker: "text-urgent", warning: "text-warm", note: "text-ink-2" };
export const SEVERITY_GROUND: Record<Severity, string> = { blocker: "bg-urgent", warning: "bg-warm", note: "bg-ink-2" };
