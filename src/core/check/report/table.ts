import { SEVERITIES } from "../finding.ts";
import { FINDINGS } from "../findings/all.ts";

/** The kinds of findings as a Markdown table for each severity: code, what it says, what its subjects are, what it means. */
export function findingsTable(): string {
  return SEVERITIES.map((severity) => {
    const rows = FINDINGS.filter((kind) => kind.severity === severity).map(
      ({ code, says, subjects, help, fixes }) => `| \`${code}\`${fixes ? " ⚒" : ""} | ${says} | ${subjects} | ${help} |`,
    );
    const title = `${severity.charAt(0).toUpperCase()}${severity.slice(1)}s`;
    return [`### ${title}`, "", "| code | says | subjects | what it means |", "| --- | --- | --- | --- |", ...rows].join("\n");
  }).join("\n\n");
}
