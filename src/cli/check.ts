import { type CheckResult, type Finding, SEVERITIES, type Severity } from "../core/check/finding.ts";
import { proofText } from "../core/check/proof.ts";
import { junitReport } from "../core/check/report/junit.ts";
import { sarifReport } from "../core/check/report/sarif.ts";
import { eventText } from "../core/insight/explain.ts";
import type { Project } from "../core/model/schema.ts";
import { checked } from "./checked.ts";
import { readDocument } from "./files.ts";

interface Options {
  format: "text" | "json" | "sarif" | "junit";
  failOn: Severity;
}

/** `etape check`: 0 where no finding is at or above the level, 1 where one is. */
export async function checkCommand(file: string, options: Options): Promise<number> {
  const { project, text } = await readDocument(file);
  const started = performance.now();
  const result = checked(project);
  const ms = Math.round(performance.now() - started);
  process.stdout.write(report(project, file, text, result, ms, options.format));
  const level = SEVERITIES.indexOf(options.failOn);
  return result.findings.some((finding) => SEVERITIES.indexOf(finding.severity) <= level) ? 1 : 0;
}

function report(project: Project, file: string, text: string, result: CheckResult, ms: number, format: Options["format"]): string {
  switch (format) {
    case "json":
      return `${JSON.stringify({ findings: result.findings.map(plain), accepted: result.accepted.map((f) => ({ ...plain(f), reason: f.reason })), proof: result.proof, ms }, null, 2)}\n`;
    case "sarif":
      return `${JSON.stringify(sarifReport(file, text, project, result), null, 2)}\n`;
    case "junit":
      return junitReport(project, file, result, ms);
    case "text":
      return textReport(project, file, result);
  }
}

/** A finding as data: fixes by their names. */
function plain(finding: Finding) {
  return { ...finding, fixes: finding.fixes.map((fix) => ({ name: fix.name })) };
}

function textReport(project: Project, file: string, { findings, accepted, proof }: CheckResult): string {
  const colour = process.stdout.isTTY ? { blocker: "\u001b[31m", warning: "\u001b[33m", note: "\u001b[2m" } : undefined;
  const lines = findings.flatMap((finding) => {
    const mark = colour ? `${colour[finding.severity]}${finding.severity}\u001b[0m` : finding.severity;
    return [
      `${mark} ${finding.code} ${finding.subjects.join(" ")}`,
      `  ${finding.message}`,
      ...(finding.walk ? [`  Walk: ${["launch", ...finding.walk.map((event) => eventText(project, event))].join(" > ")}`] : []),
      ...finding.fixes.map((fix) => `  Mend: ${fix.name}`),
    ];
  });
  const count = (severity: Severity) => findings.filter((f) => f.severity === severity).length;
  const counts = `${file}: ${count("blocker")} blockers, ${count("warning")} warnings, ${count("note")} notes${accepted.length > 0 ? `, ${accepted.length} accepted` : ""}`;
  return `${[...lines, counts, proofText(proof)].join("\n")}\n`;
}
