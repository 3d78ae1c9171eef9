import type { Finding } from "../core/check/finding.ts";
import { type Change, compareProjects } from "../core/compare/compare.ts";
import { checked } from "./checked.ts";
import { readDocument } from "./files.ts";

interface Difference {
  changes: Change[];
  came: Finding[];
  went: Finding[];
}

/** `etape diff`: what changed, by place and leg, and which findings came and went; 0 the same, 1 different. */
export async function diffCommand(older: string, newer: string, options: { format: "text" | "json" | "markdown" }): Promise<number> {
  const [{ project: was }, { project: is }] = [await readDocument(older), await readDocument(newer)];
  const changes = compareProjects(was, is);
  const [before, after] = [checked(was).findings, checked(is).findings];
  const difference = { changes, came: without(after, before), went: without(before, after) };
  process.stdout.write(written(difference, options.format));
  return changes.length === 0 ? 0 : 1;
}

function without(list: Finding[], others: Finding[]): Finding[] {
  const key = (f: Finding) => [f.code, ...f.subjects].join(" ");
  const known = new Set(others.map(key));
  return list.filter((f) => !known.has(key(f)));
}

function written({ changes, came, went }: Difference, format: "text" | "json" | "markdown"): string {
  const plain = (f: Finding) => ({ code: f.code, severity: f.severity, subjects: f.subjects, message: f.message });
  if (format === "json") return `${JSON.stringify({ changes, came: came.map(plain), went: went.map(plain) }, null, 2)}\n`;
  const bullet = format === "markdown" ? "- " : "";
  const heading = (text: string) => (format === "markdown" ? `\n## ${text}\n\n` : "");
  const lines = changes.flatMap((c) => [
    `${bullet}${c.what} ${c.kind} ${c.id} (${c.name})`,
    ...c.fields.map((f) => `${format === "markdown" ? "  - " : "  "}${f.field}: ${f.from} → ${f.to}`),
  ]);
  const findings = [
    ...came.map((f) => `${bullet}finding came: ${f.severity} ${f.code}: ${f.message}`),
    ...went.map((f) => `${bullet}finding went: ${f.severity} ${f.code}: ${f.message}`),
  ];
  if (lines.length + findings.length === 0) return "";
  return `${heading("Changes").trimStart()}${lines.map((line) => `${line}\n`).join("")}${findings.length > 0 ? heading("Findings") : ""}${findings.map((line) => `${line}\n`).join("")}`;
}
