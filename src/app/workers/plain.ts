import type { CheckResult, Finding } from "../../core/check/finding.ts";

export type PlainFinding = Omit<Finding, "fixes">;
/** A check's result without its fixes, as it crosses from the worker. */
export interface PlainResult {
  findings: PlainFinding[];
  accepted: Array<PlainFinding & { reason: string }>;
  proof: CheckResult["proof"];
}

export function plain(result: CheckResult): PlainResult {
  return { findings: result.findings.map(withoutFixes), accepted: result.accepted.map(withoutFixes), proof: result.proof };
}

function withoutFixes<T extends Finding>(finding: T): Omit<T, "fixes"> {
  const { fixes: _, ...rest } = finding;
  return rest;
}
