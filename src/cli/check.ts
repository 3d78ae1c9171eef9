import { type CheckResult, type Finding, SEVERITIES, type Severity } from "../core/check/finding.ts";
import { proofText } from "../core/check/proof.ts";
import { dotOf } from "../core/check/report/dot.ts";
import { junitReport } from "../core/check/report/junit.ts";
import { sarifReport } from "../core/check/report/sarif.ts";
import type { Exploration } from "../core/check/system/exploration.ts";
import { eventText } from "../core/insight/explain.ts";
import { ruleSentence } from "../core/model/ruleWords.ts";
import type { Project } from "../core/model/schema.ts";
import { checked } from "./checked.ts";
import { type Document, readDesign, writeOut } from "./files.ts";
import { filesOf, picturesBeside } from "./pictures.ts";

interface Options {
  format: "text" | "json" | "sarif" | "junit";
  failOn: Severity;
  /** Leave open ends out of the exit status. */
  allowOpen?: boolean;
  /** Taps from launch beyond which a screen is far. */
  far: number;
  /** Say on standard error what the checker looks at. */
  trace?: boolean;
  /** Where to write the states that were looked at, as a graph. */
  dot?: string;
}

/** `etape check`: 0 where no finding is at or above the level, 1 where one is. */
export async function checkCommand(file: string, options: Options): Promise<number> {
  const { project, at } = await readDesign(file);
  const started = performance.now();
  let looked: readonly Exploration[] = [];
  const pictures = await picturesBeside(file, project);
  const result = checked(project, {
    far: options.far,
    ...(pictures ? { pictures: filesOf(pictures) } : {}),
    ...(options.trace ? { trace: (line: string) => process.stderr.write(`${line}\n`) } : {}),
    explored: (searches) => {
      looked = searches;
    },
  });
  const ms = Math.round(performance.now() - started);
  if (options.dot !== undefined) await writeOut(options.dot, dotOf(looked));
  process.stdout.write(report(project, file, at, result, ms, options.format));
  const level = SEVERITIES.indexOf(options.failOn);
  return result.findings.some((finding) => !(options.allowOpen && finding.open) && SEVERITIES.indexOf(finding.severity) <= level) ? 1 : 0;
}

function report(project: Project, file: string, at: Document["at"], result: CheckResult, ms: number, format: Options["format"]): string {
  switch (format) {
    case "json":
      return `${JSON.stringify({ findings: result.findings.map(plain), accepted: result.accepted.map((f) => ({ ...plain(f), reason: f.reason })), proof: result.proof, ms }, null, 2)}\n`;
    case "sarif":
      return `${JSON.stringify(sarifReport(file, at(), project, result), null, 2)}\n`;
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
      `${mark} ${finding.code} ${finding.subjects.join(" ")}${finding.open ? " (open end)" : ""}`,
      `  ${finding.message}`,
      ...(finding.walk ? [`  Walk: ${["launch", ...finding.walk.map((event) => eventText(project, event))].join(" > ")}`] : []),
      ...finding.fixes.map((fix) => `  Fix: ${fix.name}`),
    ];
  });
  const count = (severity: Severity) => findings.filter((f) => f.severity === severity).length;
  const open = findings.filter((finding) => finding.open).length;
  const ends = open > 0 ? ` (${open} of them open ends)` : "";
  const counts = `${file}: ${count("blocker")} blockers, ${count("warning")} warnings, ${count("note")} notes${ends}${accepted.length > 0 ? `, ${accepted.length} accepted` : ""}`;
  const rules = (proof.rules ?? []).map((standing) => {
    const rule = project.rules?.find(({ id }) => id === standing.rule);
    return rule ? `rule ${rule.id} ${standing.standing}: ${ruleSentence(project, rule)}` : "";
  });
  return `${[...lines, ...rules, counts, proofText(proof)].join("\n")}\n`;
}
