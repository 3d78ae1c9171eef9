import { eventText } from "../../insight/explain.ts";
import { ruleSentence } from "../../model/ruleWords.ts";
import type { Project } from "../../model/schema.ts";
import { escaped } from "../../text/xml.ts";
import type { CheckResult } from "../finding.ts";
import { standingText } from "../standingText.ts";

/** A check as JUnit XML: a case for each finding, failed for blockers and warnings; accepted ones are skipped. */
export function junitReport(project: Project, file: string, { findings, accepted, proof }: CheckResult, ms: number): string {
  const cases = findings.map((finding) => {
    const walk = finding.walk ? `\nWalk: ${["launch", ...finding.walk.map((event) => eventText(project, event))].join(" > ")}` : "";
    const body =
      finding.severity === "note"
        ? `<system-out>${escaped(finding.message)}</system-out>`
        : `<failure type="${finding.severity}" message="${escaped(finding.message)}">${escaped(finding.message + walk)}</failure>`;
    return `    <testcase classname="${escaped(finding.code)}" name="${escaped([finding.code, ...finding.subjects].join(" "))}" time="0">${body}</testcase>`;
  });
  const skipped = accepted.map(
    (finding) =>
      `    <testcase classname="${escaped(finding.code)}" name="${escaped([finding.code, ...finding.subjects].join(" "))}" time="0"><skipped message="${escaped(finding.reason)}"/></testcase>`,
  );
  // A rule that holds is a case that passes; one that does not is among the findings.
  const told = new Set([...findings, ...accepted].flatMap(({ code, subjects }) => (code === "broken-rule" || code === "empty-rule" ? [subjects[0]] : [])));
  const rules = (project.rules ?? [])
    .filter(({ id }) => !told.has(id))
    .map((rule) => {
      const standing = proof.rules?.find((one) => one.rule === rule.id);
      const says = escaped(`${ruleSentence(project, rule)} ${standing ? standingText(standing) : ""}`);
      return `    <testcase classname="rule" name="${escaped(rule.name)}" time="0"><system-out>${says}</system-out></testcase>`;
    });
  const passed = cases.length + skipped.length + rules.length === 0 ? ['    <testcase classname="etape" name="no findings" time="0"/>'] : [];
  const failures = findings.filter((finding) => finding.severity !== "note").length;
  const total = cases.length + skipped.length + rules.length + passed.length;
  const attributes = `tests="${total}" failures="${failures}" errors="0" skipped="${skipped.length}" time="${(ms / 1000).toFixed(3)}"`;
  return `<?xml version="1.0" encoding="UTF-8"?>\n<testsuites ${attributes}>\n  <testsuite name="${escaped(file)}" ${attributes}>\n${[...cases, ...skipped, ...rules, ...passed].join("\n")}\n  </testsuite>\n</testsuites>\n`;
}
