import { createReadStream } from "node:fs";
import type { Logged } from "../core/following/entry.ts";
import { walkFromLog } from "../core/following/keep.ts";
import { LogReader } from "../core/following/read.ts";
import { type Departed, type FollowReport, Tally } from "../core/following/tally.ts";
import { applyEdit } from "../core/model/edits/kinds.ts";
import { addsWalk } from "../core/model/edits/walks.ts";
import { nameOf } from "../core/model/lookup.ts";
import { ruleSentence } from "../core/model/ruleWords.ts";
import type { Project } from "../core/model/schema.ts";
import { writeProject } from "../core/model/write.ts";
import { escaped } from "../core/text/xml.ts";
import { readDesign, Unusable, writeOut } from "./files.ts";
import { progress } from "./progress.ts";

/** Lines that cannot be read and are named, at most. */
const MOST_NAMED = 100;

export interface FollowOptions {
  log: string;
  format: "text" | "json" | "junit";
  keep?: string;
  until?: string;
  out?: string;
}

/** `etape follow`: holds what a running app did against its design; 0 where it follows it, 1 where it departs. */
export async function followCommand(file: string, options: FollowOptions): Promise<number> {
  if (file === "-" && options.log === "-") throw new Unusable("etape follow: FILE and --log can not both be standard input");
  const { project } = await readDesign(file);
  if (options.keep !== undefined) return keep(project, options.keep, options);
  const report = await followFile(project, options.log);
  process.stdout.write(told(project, options.log, report, options.format));
  return report.departed > 0 || report.rules.some(({ unsure }) => !unsure) ? 1 : 0;
}

/** Follows a log from its first line to its last. */
export async function followFile(project: Project, log: string): Promise<FollowReport> {
  const tally = new Tally(project);
  const telling = progress(log, "entries");
  for await (const some of entriesOf(log))
    for (const logged of some) {
      tally.take(logged);
      telling.asked();
    }
  telling.done();
  return tally.report;
}

/** Keeps the walk of one run in the document. */
async function keep(project: Project, run: string, { log, until, out = "-" }: FollowOptions): Promise<number> {
  if (until !== undefined && !/^[1-9]\d*$/.test(until)) throw new Unusable(`etape follow: --until ${until}: expected the number of a line of the log`);
  const entries: Logged[] = [];
  for await (const some of entriesOf(log)) entries.push(...some.filter(({ entry }) => entry.run === run));
  const kept = walkFromLog(project, entries, run, until === undefined ? undefined : Number(until));
  if (!kept.ok) throw new Unusable(`${log}: no walk: ${kept.why}`);
  await writeOut(out, writeProject(applyEdit(project, addsWalk.make(`Keep the walk “${kept.walk.name}”`, { walk: kept.walk }))));
  return 0;
}

/** The entries of a log, some at a time, so that a log may be as long as it likes; all lines that cannot be read are named in the end. */
async function* entriesOf(log: string): AsyncGenerator<Logged[]> {
  const problems: string[] = [];
  const reader = new LogReader();
  let row = 0;
  for await (const lines of linesOf(log)) {
    const some: Logged[] = [];
    for (const line of lines) {
      row += 1;
      const read = reader.read(line);
      if ("problem" in read) {
        if (problems.length < MOST_NAMED) problems.push(`${log}: line ${row}: ${read.problem}\n`);
      } else for (const entry of read.entries) some.push({ entry, row });
    }
    yield some;
  }
  if (problems.length > 0) throw new Unusable(problems.join(""));
}

async function* linesOf(log: string): AsyncGenerator<string[]> {
  const stream = log === "-" ? process.stdin : createReadStream(log);
  const decoder = new TextDecoder("utf-8", { fatal: true });
  let rest = "";
  try {
    for await (const chunk of stream) {
      const lines = (rest + decoder.decode(chunk as Buffer, { stream: true })).split("\n");
      rest = lines.pop() ?? "";
      yield lines;
    }
    rest += decoder.decode();
  } catch (error) {
    if (error instanceof TypeError) throw new Unusable(`${log}: can not be read as UTF-8; expected a log of JSON, one object a line`);
    throw new Unusable(`etape: ${log}: can not be read (${(error as NodeJS.ErrnoException).code ?? String(error)}); expected a log`);
  }
  if (rest !== "") yield [rest];
}

function told(project: Project, log: string, report: FollowReport, format: FollowOptions["format"]): string {
  switch (format) {
    case "json":
      return `${JSON.stringify(report, null, 2)}\n`;
    case "junit":
      return junit(project, log, report);
    case "text":
      return text(project, log, report);
  }
}

function text(project: Project, log: string, report: FollowReport): string {
  const name = (id: string) => nameOf(project, id);
  const list = (ids: readonly string[], of: (id: string) => string) =>
    `${ids.slice(0, 12).map(of).join(", ")}${ids.length > 12 ? ` and ${ids.length - 12} more` : ""}`;
  const counts = (of: Record<string, number>, says: (id: string) => string) => list(Object.keys(of), (id) => `${says(id)} ${of[id]}`);
  const lines = [
    ...report.departures.map((one) => `${where(log, one)}: ${perhaps(one)}${one.sentence}${often(one)}`),
    ...report.rules.map((one) => `${where(log, one)}: ${perhaps(one)}the rule “${one.name}” is broken${often(one)}: ${sentenceOf(project, one.rule)}`),
    ...(report.unlisted > 0 ? [`and ${report.unlisted} more departures of other kinds`] : []),
    ...(Object.keys(report.screens).length > 0 ? [`Screens: ${counts(report.screens, name)}`] : []),
    ...(Object.keys(report.legs).length > 0 ? [`Legs: ${counts(report.legs, (id) => id)}`] : []),
    ...(report.unclear > 0 ? [`Moves that more than one leg makes: ${report.unclear}`] : []),
    ...(report.neverScreens.length > 0 ? [`Never shown: ${list(report.neverScreens, name)}`] : []),
    ...(report.neverLegs.length > 0 ? [`Never used: ${list(report.neverLegs, (id) => id)}`] : []),
    ...(report.idle.length > 0
      ? [
          `Did nothing: ${report.idle
            .slice(0, 12)
            .map(({ did, screen, count }) => `${did} on ${name(screen)} ${count}`)
            .join(", ")}`,
        ]
      : []),
    ...(Object.keys(report.backs).length > 0
      ? [
          `Back at a stretch: ${Object.entries(report.backs)
            .map(([far, count]) => `${far} ${far === "1" ? "screen" : "screens"} ${count}`)
            .join(", ")}`,
        ]
      : []),
    ...(Object.keys(report.controls).length > 0 ? [`Controls that the design does not have: ${counts(report.controls, (id) => id)}`] : []),
    `${log}: ${report.entries} ${report.entries === 1 ? "entry" : "entries"} in ${report.runs} ${report.runs === 1 ? "run" : "runs"}; ${report.departed === 0 ? "the app follows the design" : `the app departs from the design ${times(report.departed)}`}`,
  ];
  return `${lines.join("\n")}\n`;
}

const sentenceOf = (project: Project, id: string) => {
  const rule = project.rules?.find((one) => one.id === id);
  return rule ? ruleSentence(project, rule) : "";
};
const times = (count: number) => (count === 1 ? "once" : `${count} times`);
const perhaps = ({ unsure }: Pick<Departed, "unsure">) => (unsure ? "perhaps (too much was possible to be sure): " : "");
const often = ({ count }: Pick<Departed, "count">) => (count > 1 ? ` (${count} times in all)` : "");
const where = (log: string, { row, run, at }: Pick<Departed, "row" | "run" | "at">) =>
  `${log}:${row}${run === "" ? "" : `: run ${run}`}${at === undefined ? "" : ` at ${at}`}`;

function junit(project: Project, log: string, report: FollowReport): string {
  const cases = report.departures
    .filter(({ unsure }) => !unsure)
    .map((one) => {
      const says = escaped(`${where(log, one)}: ${one.sentence}${often(one)}`);
      return `    <testcase classname="follow" name="${escaped(one.did ?? `shows ${one.shows ?? ""}`)}" time="0"><failure message="${says}">${says}</failure></testcase>`;
    });
  const departed = cases.length;
  if (departed === 0) cases.push(`    <testcase classname="follow" name="the app follows the design" time="0"></testcase>`);
  // Rules of the kind "within" are no matter of one run.
  const watched = (project.rules ?? []).filter(({ kind }) => kind !== "within");
  const broken = new Map(report.rules.flatMap((one) => (one.unsure ? [] : [[one.rule, one] as const])));
  for (const rule of watched) {
    const found = broken.get(rule.id);
    const says = found ? escaped(`${where(log, found)}: ${ruleSentence(project, rule)}${often(found)}`) : "";
    cases.push(
      `    <testcase classname="rule" name="${escaped(rule.name)}" time="0">${found ? `<failure message="${says}">${says}</failure>` : ""}</testcase>`,
    );
  }
  const failures = departed + watched.filter(({ id }) => broken.has(id)).length;
  const attributes = `tests="${cases.length}" failures="${failures}" errors="0" time="0"`;
  return `<?xml version="1.0" encoding="UTF-8"?>\n<testsuites ${attributes}>\n  <testsuite name="${escaped(log)}" ${attributes}>\n${cases.join("\n")}\n  </testsuite>\n</testsuites>\n`;
}
