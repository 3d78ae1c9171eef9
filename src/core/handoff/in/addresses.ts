import { emptyProject, newScreen } from "../../model/edits/add.ts";
import { freshId } from "../../model/edits/edit.ts";
import type { Param, Project, Screen } from "../../model/schema.ts";
import { singular } from "../../text/singular.ts";
import type { ImportResult } from "./imported.ts";

/** Most addresses that are taken. */
const MOST = 5000;

/**
 * A project from a list of addresses, one a line, variables as routers write them (`{id}`, `:id`, `[id]`, `$id`, `<int:id>`): a screen for each,
 * its parameters from the variables, and legs from each address to those right below it. A line that is no address refuses all of them.
 */
export function fromAddresses(text: string, name = "Imported"): ImportResult {
  return read(text, name, false);
}

/** The same, but lines that are no addresses are left out and named, as long as there is one that is. */
export function fromSomeAddresses(text: string, name = "Imported"): ImportResult {
  return read(text, name, true);
}

function read(text: string, name: string, some: boolean): ImportResult {
  const { paths, lost, problems } = pathsOf(text);
  if (some && paths.size > 0) lost.push(...problems.splice(0).map(({ line, message }) => `line ${line}: ${message}`));
  if (problems.length > 0) return { ok: false, problems };
  return projectOfPaths([...paths.values()], new Map(), name, lost);
}

/** The addresses that stand in a text, one a line, by what each is written as; what is left out of them, and lines that are none. */
export function pathsOf(text: string): { paths: Map<string, string[]>; lost: string[]; problems: Array<{ line: number; message: string }> } {
  const problems: Array<{ line: number; message: string }> = [];
  const lost: string[] = [];
  const paths = new Map<string, string[]>();
  text.split(/\r\n|\r|\n/).forEach((raw, i) => {
    const line = raw.trim();
    if (line === "" || line.startsWith("#")) return;
    const path = pathOf(line);
    if (path === undefined) {
      problems.push({
        line: i + 1,
        message: `“${line.slice(0, 60)}” is no address; expected one like /hives/{id}, /hives/:id, /hives/[id], /hives/$id or /hives/<int:id>`,
      });
      return;
    }
    if (/[?#]/.test(line)) lost.push(`line ${i + 1}: the part after ? or # of ${line}`);
    const key = `/${path.join("/")}`;
    if (paths.has(key)) lost.push(`line ${i + 1}: ${line}, which is there already`);
    else paths.set(key, path);
  });
  return { paths, lost, problems };
}

/** A project from addresses by their segments, at most 5,000; `examples` are values of variables, by their names. */
export function projectOfPaths(all: ReadonlyArray<readonly string[]>, examples: ReadonlyMap<string, string>, name: string, lost: string[]): ImportResult {
  if (all.length > MOST) return { ok: false, problems: [{ message: `${all.length} addresses; at most ${MOST} are expected` }] };
  if (all.length === 0) return { ok: false, problems: [{ message: "There is no address in it; expected one a line." }] };
  return { ok: true, project: projectOf(new Map(all.map((segments) => [`/${segments.join("/")}`, [...segments]])), name, examples), lost };
}

/** The segments of an address with variables as `{name}`, or undefined where it is none. */
export function pathOf(line: string): string[] | undefined {
  const path = line.replace(/^[a-z][a-z0-9+.-]*:\/\/[^/]*/i, "").replace(/[?#].*$/, "");
  if (!path.startsWith("/") || /\s/.test(path)) return undefined;
  const named = path
    .split("/")
    .filter((segment) => segment !== "")
    .map(asVariable);
  // What is left of another style is a form that is not known; it is named, and not taken for text.
  return named.every((segment) => /^[^{}[\]<>$:*()]*(\{\+?[A-Za-z_]\w*\}[^{}[\]<>$:*()]*)?$/.test(segment)) ? named : undefined;
}

const NAME = "([A-Za-z_]\\w*)";
/** How routers write a variable, and all the rest of an address; the name stands in the first group that is there. */
const VARIABLES = [`:${NAME}`, `\\[${NAME}\\]`, `\\$${NAME}`, `<(?:\\w+:)?${NAME}>`, `\\{${NAME}(?::\\w+)?\\}`].map((form) => new RegExp(`^${form}$`));
const RESTS = ["\\*([A-Za-z_]\\w*)?", `\\[\\.\\.\\.${NAME}\\]`, `<path:${NAME}>`, "\\$", `\\{${NAME}\\*\\}`].map((form) => new RegExp(`^${form}$`));

function asVariable(segment: string): string {
  const rest = RESTS.map((form) => form.exec(segment)).find((found) => found);
  if (rest) return `{+${rest[1] ?? "rest"}}`;
  const variable = VARIABLES.map((form) => form.exec(segment)).find((found) => found);
  return variable ? `{${variable[1]}}` : segment;
}

function projectOf(paths: Map<string, string[]>, name: string, examples: ReadonlyMap<string, string>): Project {
  const sorted = [...paths].sort(([, a], [, b]) => a.length - b.length);
  const taken = new Set(["main"]);
  const ids = new Map<string, string>();
  const screens: Screen[] = [];
  const first = sorted[0]?.[0] ?? "/";
  const titles = titlesOf(sorted.map(([, segments]) => segments));
  for (const [path, segments] of sorted) {
    const title = titles.get(segments) ?? path;
    const id = freshId(title, taken, "place");
    taken.add(id);
    ids.set(path, id);
    const params = segments.flatMap((segment): Param[] => {
      const variable = /\{\+?(\w+)\}/.exec(segment)?.[1];
      return variable === undefined ? [] : [{ name: variable, type: "text", required: path !== first }];
    });
    const unique = params.filter((param, i) => params.findIndex((p) => p.name === param.name) === i);
    screens.push({ ...newScreen(id, title), params: unique, path });
  }
  const project: Project = {
    ...emptyProject(name),
    root: "main",
    containers: [{ kind: "stack", id: "main", name: "Main", start: ids.get(first) ?? "", members: screens.map((s) => s.id) }],
    screens,
  };
  for (const [path, segments] of sorted) addLegTo(project, { ids, paths, examples, first }, path, segments);
  project.entrances = screens.map((screen) => ({
    id: screen.id,
    name: `Link to ${screen.name}`,
    kind: "link" as const,
    pattern: screen.path ?? "/",
    to: screen.id,
    warm: "rebuild" as const,
  }));
  return project;
}

/** A button on the nearest address above that leads to this one; its parameters are handed on as far as they are known there. */
function addLegTo(
  project: Project,
  {
    ids,
    paths,
    examples,
    first,
  }: { ids: ReadonlyMap<string, string>; paths: ReadonlyMap<string, string[]>; examples: ReadonlyMap<string, string>; first: string },
  path: string,
  segments: string[],
): void {
  const to = project.screens.find((s) => s.id === ids.get(path));
  if (!to || path === first) return;
  let above = first;
  for (let length = segments.length - 1; length > 0; length--) {
    const candidate = `/${segments.slice(0, length).join("/")}`;
    if (paths.has(candidate)) {
      above = candidate;
      break;
    }
  }
  const from = project.screens.find((s) => s.id === ids.get(above));
  if (!from) return;
  const element = `to${to.id.charAt(0).toUpperCase()}${to.id.slice(1)}`.slice(0, 64);
  from.elements.push({ id: element, kind: "button", label: to.name });
  const pass = Object.fromEntries(
    to.params.map((p) => [p.name, from.params.some((q) => q.name === p.name) ? `param.${p.name}` : JSON.stringify(examples.get(p.name) ?? "1")]),
  );
  project.legs.push({
    id: element,
    from: from.id,
    on: { kind: "tap", element },
    move: { kind: "push", to: to.id, ...(to.params.length > 0 ? { pass } : {}) },
  });
  to.up = from.id;
}

/** A name for each address: its last word, with those before it as far as that is needed to tell it from others. */
function titlesOf(paths: ReadonlyArray<readonly string[]>): ReadonlyMap<readonly string[], string> {
  const words = new Map(paths.map((segments) => [segments, wordsOf(segments)]));
  const out = new Map<readonly string[], string>();
  const taken = new Set<string>();
  const counts = (length: number) => {
    const seen = new Map<string, number>();
    for (const list of words.values()) seen.set(joined(list, length), (seen.get(joined(list, length)) ?? 0) + 1);
    return seen;
  };
  const most = Math.max(1, ...[...words.values()].map((list) => list.length));
  const seen = Array.from({ length: most + 1 }, (_, length) => counts(length));
  for (const [segments, list] of words) {
    const length = Array.from({ length: list.length }, (_, i) => i + 1).find((n) => seen[n]?.get(joined(list, n)) === 1) ?? list.length;
    let title = joined(list, length);
    for (let n = 2; taken.has(title.toLowerCase()); n++) title = `${joined(list, length)} ${n}`;
    taken.add(title.toLowerCase());
    out.set(segments, title);
  }
  return out;
}

/** The last words of a name, such as “Order: edit”. */
function joined(words: readonly string[], length: number): string {
  const [first = "", ...rest] = words.slice(-Math.max(1, length));
  return [first, ...rest.map((word) => word.charAt(0).toLowerCase() + word.slice(1))].join(": ");
}

/** What an address is about, word by word: of `/orders/{id}/edit` “Order” and “Edit”. */
function wordsOf(segments: readonly string[]): string[] {
  const words: string[] = [];
  segments.forEach((segment, i) => {
    if (segment.includes("{")) return;
    const text = segment.replace(/[-_.]+/g, " ").trim() || "Page";
    const word = text.charAt(0).toUpperCase() + text.slice(1);
    words.push(segments[i + 1]?.includes("{") ? oneOf(word) : word);
  });
  return words.length > 0 ? words : [segments.length === 0 ? "Home" : "Page"];
}

/** What one of many is called: where that is no other word, it is said. */
function oneOf(word: string): string {
  const one = singular(word);
  return one === word ? `${word}: one` : one;
}
