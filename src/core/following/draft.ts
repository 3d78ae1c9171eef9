import { freshId } from "../model/edits/edit.ts";
import { problemLine, readProjectData } from "../model/read.ts";
import { type Json, NAME_PATTERN, type Project } from "../model/schema.ts";
import type { Entry } from "./entry.ts";
import { readLog } from "./read.ts";

/** A first draft of a project, and what a log could not tell; or why there is none. */
export type Draft = { ok: true; project: Project; lost: string[] } | { ok: false; problems: Array<{ line?: number; message: string }> };

/** How one screen led to another: on top of it, or to where it lay beneath. */
interface Way {
  from: string;
  to: string;
  label: string;
  onTop: boolean;
  beneath: boolean;
}

/**
 * A first draft of a project from a log alone. Each screen that shows is one; each time another one follows, the first leads to it, unless
 * it lay right beneath: then it was Back. All stand in one stack, because a log does not tell tabs, sheets or what was replaced.
 */
export function fromLog(text: string, name = "Imported"): Draft {
  const { log, problems } = readLog(text);
  if (problems.length > 0) return { ok: false, problems: problems.map(({ row, problem }) => ({ line: row, message: problem })) };
  const seen = new Seen();
  for (const { entry } of log) seen.take(entry);
  if (seen.screens.size === 0)
    return { ok: false, problems: [{ message: 'no entry says which screen shows; expected "shows", as in {"run":"a1","shows":"home"}' }] };
  const read = readProjectData(seen.document(name));
  if (!read.ok) return { ok: false, problems: read.problems.map((problem) => ({ message: problemLine(problem) })) };
  return { ok: true, project: read.project, lost: seen.lost() };
}

/** What a log has told so far. */
class Seen {
  readonly screens = new Map<string, { id: string; shows: string; params: Map<string, string> }>();
  private readonly ways = new Map<string, Way>();
  private readonly firsts = new Map<string, number>();
  /** By run the screens that lie on one another, as far as one can think, and the control that was used last. */
  private readonly stacks = new Map<string, { stack: string[]; used: string | undefined }>();

  take({ run, shows, args, event, used }: Entry) {
    const known = this.stacks.get(run);
    const at = known ?? { stack: [], used: undefined };
    this.stacks.set(run, at);
    if (event?.do === "launch") at.stack = [];
    const control = used ?? (event?.do === "leg" ? event.leg : undefined);
    if (control !== undefined) at.used = control;
    if (shows === undefined) return;
    const id = this.screen(shows, args ?? {});
    if (at.stack.length === 0) this.firsts.set(id, (this.firsts.get(id) ?? 0) + 1);
    this.go(at, id, shows);
    at.used = undefined;
  }

  private screen(shows: string, args: Readonly<Record<string, Json>>): string {
    const known = this.screens.get(shows);
    const screen = known ?? {
      id: idOf(
        shows,
        [...this.screens.values()].map(({ id }) => id),
      ),
      shows,
      params: new Map<string, string>(),
    };
    this.screens.set(shows, screen);
    for (const [param, value] of Object.entries(args)) {
      if (!NAME_PATTERN.test(param) || value === null) continue;
      const type = typeOf(value);
      const before = screen.params.get(param);
      screen.params.set(param, before === undefined || before === type ? type : "text");
    }
    return screen.id;
  }

  private go(at: { stack: string[]; used: string | undefined }, id: string, shows: string) {
    const { stack } = at;
    const top = stack.at(-1);
    if (top === id) return;
    const under = stack.lastIndexOf(id);
    if (top !== undefined && (under < 0 || under !== stack.length - 2)) {
      const key = `${top} ${id}`;
      const way = this.ways.get(key) ?? { from: top, to: id, label: at.used ?? words(shows), onTop: false, beneath: false };
      if (under < 0) way.onTop = true;
      else way.beneath = true;
      this.ways.set(key, way);
    }
    at.stack = under < 0 ? [...stack, id] : stack.slice(0, under + 1);
  }

  document(name: string): unknown {
    const [[root] = [""]] = [...this.firsts].sort((a, b) => b[1] - a[1]);
    const ids = [...this.screens.values()].map(({ id }) => id);
    const stack = idOf("main", ids);
    const legIds: string[] = [...ids, stack];
    const fresh = (text: string) => {
      const id = idOf(text, legIds);
      legIds.push(id);
      return id;
    };
    const ways = [...this.ways.values()].map((way) => ({ ...way, id: fresh(`${way.from} to ${way.to}`) }));
    return {
      format: "etape/1",
      name,
      root: stack,
      facts: [],
      types: [],
      containers: [{ id: stack, kind: "stack", name: "Main", start: root, members: [root, ...ids.filter((id) => id !== root)] }],
      screens: [...this.screens.values()].map(({ id, shows, params }) => ({
        id,
        name: words(shows),
        params: [...params].map(([param, type]) => ({ name: param, type, required: false })),
        up: "auto",
        ...(id === root ? { hub: true } : {}),
        elements: ways.filter(({ from }) => from === id).map((way) => ({ id: way.id, kind: "button", label: way.label })),
      })),
      legs: ways.map(({ id, from, to, onTop, beneath }) => ({
        id,
        from,
        on: { kind: "tap", element: id },
        move: onTop ? { kind: "push", to, ...(beneath ? { repeat: "rewind" } : {}) } : { kind: "return", to },
      })),
      entrances: [...this.firsts.keys()]
        .filter((id) => id !== root)
        .map((to) => ({ id: fresh(`start at ${to}`), name: `Start at ${this.nameOf(to)}`, kind: "shortcut", to, warm: "rebuild" })),
      walks: [],
    };
  }

  lost(): string[] {
    const passed = [...this.screens.values()].flatMap(({ shows, params }) => [...params.keys()].map((param) => `${words(shows)}: where ${param} comes from`));
    return ["which screens are tabs, sheets or in a drawer, and which way takes the place of a screen: all stand in one stack", ...passed];
  }

  private nameOf(id: string): string {
    return words([...this.screens.values()].find((screen) => screen.id === id)?.shows ?? id);
  }
}

function typeOf(value: Json): string {
  if (typeof value === "number") return Number.isInteger(value) ? "integer" : "number";
  return typeof value === "boolean" ? "boolean" : "text";
}

/** An id that is not taken yet: `hive-detail` becomes hiveDetail; of an address, without its variables. */
function idOf(text: string, taken: Iterable<string>): string {
  return freshId(text.replace(/\{[^}]*\}/g, ""), new Set(taken), "screen");
}

/** A name as people say it: `hiveDetail` becomes Hive detail. */
function words(shows: string): string {
  const spaced = shows
    .replace(/([a-z0-9])([A-Z])/g, "$1 $2")
    .replace(/[-_./]+/g, " ")
    .trim()
    .toLowerCase();
  return (spaced === "" ? shows : spaced.charAt(0).toUpperCase() + spaced.slice(1)).slice(0, 200);
}
