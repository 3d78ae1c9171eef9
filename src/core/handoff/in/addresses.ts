import { emptyProject, newScreen } from "../../model/edits/add.ts";
import { freshId } from "../../model/edits/edit.ts";
import type { Param, Project, Screen } from "../../model/schema.ts";
import type { ImportResult } from "./imported.ts";

/** Most addresses that are taken. */
const MOST = 5000;

/**
 * A project from a list of addresses, one a line, variables as `{id}` or `:id`: a screen for each,
 * its parameters from the variables, and legs from each address to those right below it.
 */
export function fromAddresses(text: string, name = "Imported"): ImportResult {
  const lines = text.split(/\r\n|\r|\n/);
  const problems: Array<{ line: number; message: string }> = [];
  const lost: string[] = [];
  const paths = new Map<string, string[]>();
  lines.forEach((raw, i) => {
    const line = raw.trim();
    if (line === "" || line.startsWith("#")) return;
    const path = pathOf(line);
    if (path === undefined) {
      problems.push({ line: i + 1, message: `“${line.slice(0, 60)}” is no address; expected one like /hives/{id} or /hives/:id` });
      return;
    }
    if (/[?#]/.test(line)) lost.push(`line ${i + 1}: the part after ? or # of ${line}`);
    const key = `/${path.join("/")}`;
    if (paths.has(key)) lost.push(`line ${i + 1}: ${line}, which is there already`);
    else paths.set(key, path);
  });
  if (paths.size > MOST) problems.push({ line: lines.length, message: `${paths.size} addresses; at most ${MOST} are expected` });
  if (problems.length > 0) return { ok: false, problems };
  if (paths.size === 0) return { ok: false, problems: [{ message: "There is no address in it; expected one a line." }] };
  return { ok: true, project: projectOf(paths, name), lost };
}

/** The segments of an address with variables as `{name}`, or undefined where it is none. */
export function pathOf(line: string): string[] | undefined {
  const path = line.replace(/^[a-z][a-z0-9+.-]*:\/\/[^/]*/i, "").replace(/[?#].*$/, "");
  if (!path.startsWith("/") || /\s/.test(path)) return undefined;
  const segments = path.split("/").filter((segment) => segment !== "");
  const named = segments.map((segment) =>
    segment.replace(/^:([A-Za-z_]\w*)$/, "{$1}").replace(/^\*([A-Za-z_]\w*)?$/, (_, rest: string | undefined) => `{+${rest ?? "rest"}}`),
  );
  return named.every((segment) => /^[^{}]*(\{\+?[A-Za-z_]\w*\}[^{}]*)?$/.test(segment)) ? named : undefined;
}

function projectOf(paths: Map<string, string[]>, name: string): Project {
  const sorted = [...paths].sort(([, a], [, b]) => a.length - b.length);
  const taken = new Set(["main"]);
  const ids = new Map<string, string>();
  const screens: Screen[] = [];
  const first = sorted[0]?.[0] ?? "/";
  for (const [path, segments] of sorted) {
    const title = titleOf(segments);
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
  for (const [path, segments] of sorted) addLegTo(project, ids, paths, path, segments, first);
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
function addLegTo(project: Project, ids: Map<string, string>, paths: Map<string, string[]>, path: string, segments: string[], first: string): void {
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
  const pass = Object.fromEntries(to.params.map((p) => [p.name, from.params.some((q) => q.name === p.name) ? `param.${p.name}` : '"1"']));
  project.legs.push({
    id: element,
    from: from.id,
    on: { kind: "tap", element },
    move: { kind: "push", to: to.id, ...(to.params.length > 0 ? { pass } : {}) },
  });
  to.up = from.id;
}

function titleOf(segments: string[]): string {
  const words = segments.filter((segment) => !segment.includes("{"));
  const last = segments.at(-1);
  if (last === undefined) return "Home";
  const base =
    words
      .at(-1)
      ?.replace(/[-_.]+/g, " ")
      .trim() || "Page";
  const title = base.charAt(0).toUpperCase() + base.slice(1);
  return last.includes("{") ? `${title}: one` : title;
}
