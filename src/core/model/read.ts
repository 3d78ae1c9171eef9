import type * as z from "zod";
import { identityProblems, type Problem } from "./identity.ts";
import { FORMAT, type Project, ProjectSchema } from "./schema.ts";

export type { Problem } from "./identity.ts";
export type ReadResult = { ok: true; project: Project } | { ok: false; problems: Problem[] };

/** Largest document that is read, in bytes of UTF-8 (20 MiB). */
export const SIZE_LIMIT = 20 * 1024 * 1024;

/**
 * Reads the text of a project document.
 * Gives the project, its keys in canonical order, or every problem found, each
 * with the path, what stands there and what is expected. Never throws.
 */
export function readProject(text: string): ReadResult {
  if (text.length > SIZE_LIMIT) return fail("", `a file of ${text.length} characters`, `at most ${SIZE_LIMIT} (20 MiB)`);
  let data: unknown;
  try {
    data = JSON.parse(text.charCodeAt(0) === 0xfeff ? text.slice(1) : text);
  } catch (error) {
    return fail("", `text that is not JSON: ${syntaxPlace(text, String((error as Error).message))}`, "a project document in JSON");
  }
  return readProjectData(data);
}

/** Objects and lists within one another, at most; what goes deeper would not fit on the stack of whoever reads it. */
const DEEPEST = 100;

interface Visited {
  value: object;
  key: PropertyKey;
  above: Visited | undefined;
  depth: number;
}

/** The path of a value that is nested too deep; without a stack of calls, which it could be too deep for. */
function tooDeep(data: object): string | undefined {
  const queue: Visited[] = [{ value: data, key: "", above: undefined, depth: 0 }];
  for (let one = queue.pop(); one; one = queue.pop()) {
    if (one.depth > DEEPEST) {
      const keys: PropertyKey[] = [];
      for (let at: Visited | undefined = one; at?.above; at = at.above) keys.unshift(at.key);
      // Where it begins is what helps; the rest would fill the screen.
      return pathText(keys.slice(0, 6));
    }
    for (const [key, value] of Object.entries(one.value))
      if (typeof value === "object" && value !== null)
        queue.push({ value, key: Array.isArray(one.value) ? Number(key) : key, above: one, depth: one.depth + 1 });
  }
  return undefined;
}

/** As {@link readProject}, for a value that has already been parsed from JSON. */
export function readProjectData(data: unknown): ReadResult {
  if (typeof data !== "object" || data === null || Array.isArray(data)) return fail("", inWords(data), `an object with "format": "${FORMAT}"`);
  const format = (data as Record<string, unknown>).format;
  const newer = typeof format === "string" ? /^etape\/(\d+)$/.exec(format) : null;
  if (newer && Number(newer[1]) > 1)
    return fail("format", JSON.stringify(format), `"${FORMAT}": this document was written by a newer Etape; update this one to open it`);
  const deep = tooDeep(data);
  if (deep !== undefined) return fail(deep, `values nested more than ${DEEPEST} deep`, `at most ${DEEPEST}`);
  const parsed = ProjectSchema.safeParse(data);
  const shape = parsed.success ? [] : parsed.error.issues.flatMap((issue) => problemsOf(issue, data));
  const problems = [...shape, ...identityProblems(data)];
  if (parsed.success && problems.length === 0) return { ok: true, project: parsed.data };
  return { ok: false, problems: withoutRepeats(problems) };
}

/**
 * What keeps the result of an edit from being a document that reads; none where all is well. Only what is another object than
 * before the edit is looked at again, so that this can be asked at every edit of a large project.
 */
export function problemsAfterEdit(before: Project, after: Project): Problem[] {
  const old = before as unknown as Record<string, unknown>;
  const kept = new Map<string, number[]>();
  const changed = Object.fromEntries(
    Object.entries(after).map(([key, value]) => {
      if (!Array.isArray(value) || !Array.isArray(old[key])) return [key, value];
      const known = new Set<unknown>(old[key]);
      const places = value.flatMap((entry, i) => (known.has(entry) ? [] : [i]));
      kept.set(key, places);
      return [key, places.map((i) => value[i])];
    }),
  );
  const parsed = ProjectSchema.safeParse(changed);
  const inPlace = (path: readonly PropertyKey[]) => {
    const at = kept.get(String(path[0]))?.[Number(path[1])];
    return at === undefined ? path : [path[0] as PropertyKey, at, ...path.slice(2)];
  };
  const shape = parsed.success ? [] : parsed.error.issues.flatMap((issue) => problemsOf({ ...issue, path: [...inPlace(issue.path)] }, after));
  return withoutRepeats([...shape, ...identityProblems(after)]);
}

/** One line for a problem: where, what was found, what is expected. */
export function problemLine(problem: Problem): string {
  return `${problem.path || "document"}: found ${problem.found}; expected ${problem.expected}`;
}

function fail(path: string, found: string, expected: string): ReadResult {
  return { ok: false, problems: [{ path, found, expected }] };
}

type Issue = z.core.$ZodIssue;

/** The problems that one schema issue stands for. */
export function problemsOf(issue: Issue, data: unknown): Problem[] {
  const path = pathText(issue.path);
  if (issue.code === "unrecognized_keys")
    return issue.keys.map((key) => ({ path: pathText([...issue.path, key]), found: `the unknown key ${JSON.stringify(key)}`, expected: "no such key" }));
  if (issue.code === "invalid_key")
    return issue.issues.map(() => ({ path, found: `the key ${JSON.stringify(issue.path.at(-1))}`, expected: "a key that is an id" }));
  return [{ path, found: inWords(valueAt(data, issue.path)), expected: expectation(issue) }];
}

function expectation(issue: Issue): string {
  switch (issue.code) {
    case "invalid_type":
      return issue.expected === "record" ? "an object" : `${/^[aeiou]/.test(issue.expected) ? "an" : "a"} ${issue.expected}`;
    case "invalid_value":
      return oneOf(issue.values.map((v) => JSON.stringify(v)));
    case "invalid_format":
      return issue.format === "regex" ? `an id or name matching ${issue.pattern}` : `text in the format ${issue.format}`;
    case "too_small":
      return `at least ${issue.minimum}`;
    case "too_big":
      return `at most ${issue.maximum}`;
    case "invalid_union":
      return discriminants(issue) ?? "a value of one of the forms that may stand here";
    default:
      return issue.message;
  }
}

function discriminants(issue: Issue & { code: "invalid_union" }): string | undefined {
  const options = "options" in issue && Array.isArray(issue.options) ? issue.options : [];
  return options.length > 0 ? oneOf(options.map((o) => JSON.stringify(o))) : undefined;
}

function oneOf(options: string[]): string {
  return options.length === 1 ? `${options[0]}` : `one of ${options.join(", ")}`;
}

function inWords(value: unknown): string {
  if (value === undefined) return "nothing";
  if (value === null) return "null";
  if (Array.isArray(value)) return `a list of ${value.length}`;
  if (typeof value === "object") return "an object";
  const shown = JSON.stringify(value) ?? String(value);
  return shown.length > 80 ? `${shown.slice(0, 77)}… (${shown.length} characters)` : shown;
}

function valueAt(data: unknown, path: readonly PropertyKey[]): unknown {
  let value = data;
  for (const key of path) {
    if (typeof value !== "object" || value === null) return undefined;
    value = (value as Record<PropertyKey, unknown>)[key];
  }
  return value;
}

function pathText(path: readonly PropertyKey[]): string {
  let out = "";
  for (const key of path) out += typeof key === "number" ? `[${key}]` : out === "" ? String(key) : `.${String(key)}`;
  return out;
}

function withoutRepeats(problems: Problem[]): Problem[] {
  const seen = new Set<string>();
  return problems.filter((p) => {
    const line = problemLine(p);
    return !seen.has(line) && seen.add(line);
  });
}

/** Turns the parser's "position N" into line and column, where it names one. */
function syntaxPlace(text: string, message: string): string {
  const at = /position (\d+)/.exec(message);
  if (!at || /line \d+/.test(message)) return message;
  const before = text.slice(0, Number(at[1])).split("\n");
  return `${message} (line ${before.length}, column ${(before.at(-1)?.length ?? 0) + 1})`;
}
