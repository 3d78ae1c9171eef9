import { since } from "../core/check/compareFindings.ts";
import type { Finding } from "../core/check/finding.ts";
import { breaksOthers } from "../core/compare/breaking.ts";
import { type Change, compareProjects } from "../core/compare/compare.ts";
import { fieldsInWords } from "../core/compare/words.ts";
import { asLine } from "../core/text/line.ts";
import { checked } from "./checked.ts";
import { readDesign } from "./files.ts";

type Told = Change & { /** Each field as a sentence. */ says: string[] /** What of it breaks others: links, calls, stored facts. */; breaks: string[] };

interface Difference {
  changes: Told[];
  came: Finding[];
  went: Finding[];
}

/** `etape diff`: what changed, by place and leg, what of it breaks others, and which findings came and went; 0 the same, 1 different. */
export async function diffCommand(older: string, newer: string, options: { format: "text" | "json" | "markdown" }): Promise<number> {
  const [{ project: was }, { project: is }] = [await readDesign(older), await readDesign(newer)];
  const changes = compareProjects(was, is).map((change): Told => ({ ...change, says: fieldsInWords(was, is, change), breaks: breaksOthers(was, is, change) }));
  const [before, after] = [checked(was).findings, checked(is).findings];
  const difference = { changes, ...since(before, after) };
  process.stdout.write(options.format === "json" ? asJson(difference) : options.format === "markdown" ? asMarkdown(difference) : asText(difference));
  return changes.length === 0 ? 0 : 1;
}

function asJson({ changes, came, went }: Difference): string {
  const plain = (f: Finding) => ({ code: f.code, severity: f.severity, subjects: f.subjects, message: f.message });
  return `${JSON.stringify({ changes, came: came.map(plain), went: went.map(plain) }, null, 2)}\n`;
}

/** A field as it was and is; a list or a part as what is other in it. */
function fieldText({ field, from, to }: Change["fields"][number], says: string): string {
  return /^[[{]/.test(from) || /^[[{]/.test(to) ? `${field}: ${says}` : `${field}: ${from} → ${to}`;
}

function asText({ changes, came, went }: Difference): string {
  const lines = [
    ...changes.flatMap((c) => [
      `${c.what} ${c.kind} ${c.id} (${asLine(c.name)})`,
      ...c.fields.map((field, i) => `  ${asLine(fieldText(field, c.says[i] ?? ""))}`),
      ...c.breaks.map((says) => `  breaks others: ${asLine(says)}`),
    ]),
    ...came.map((f) => `finding came: ${f.severity} ${f.code}: ${asLine(f.message)}`),
    ...went.map((f) => `finding went: ${f.severity} ${f.code}: ${asLine(f.message)}`),
  ];
  return lines.map((line) => `${line}\n`).join("");
}

/** For reviewers: what breaks others first. */
function asMarkdown({ changes, came, went }: Difference): string {
  const section = (title: string, lines: string[]) => (lines.length === 0 ? [] : [`## ${title}\n`, ...lines, ""]);
  const named = (c: Told) => `${c.kind} **${plain(c.name)}** \`${c.id}\``;
  const findings = (list: Finding[]) => list.map((f) => `- ${f.severity} \`${f.code}\`: ${plain(f.message)}`);
  const lines = [
    ...section(
      "Breaks others",
      changes.flatMap((c) => c.breaks.map((says) => `- ${named(c)}: ${plain(says)}`)),
    ),
    ...section(
      "Changes",
      changes.flatMap((c) => [`- ${c.what} ${named(c)}`, ...c.says.map((says) => `  - ${plain(says)}`)]),
    ),
    ...section("Findings that came", findings(came)),
    ...section("Findings that went", findings(went)),
  ];
  return lines.length === 0 ? "" : `${lines.join("\n").trimEnd()}\n`;
}

/** Text in which nothing is read as Markdown or markup. */
function plain(text: string): string {
  return asLine(text).replace(/[\\`*_[\]<>#|~!]/g, (c) => `\\${c}`);
}
