import { giveOf, lookup, passOf } from "../model/lookup.ts";
import { once } from "../model/once.ts";
import type { Leg, NavEvent, Project } from "../model/schema.ts";
import { patternVariables } from "../model/template.ts";

const NONE: ReadonlySet<string> = new Set();

/**
 * The arguments of the screen that shows after an event which come from what a log may leave out: the row, the fields, the neighbouring
 * rows that the app has, the variables of an address. Those that came with the event itself are not among them.
 *
 * @param given the event as the log tells it; undefined where it is a guess
 * @param fired the legs that fired, in order: arguments go on from one to the next
 */
export function freeArguments(project: Project, event: NavEvent, given: NavEvent | undefined, fired: readonly string[]): ReadonlySet<string> {
  let free: ReadonlySet<string> = event.do === "enter" && (given?.do !== "enter" || given.args === undefined) ? linkVariables(project, event.entrance) : NONE;
  for (const [i, id] of fired.entries()) {
    const leg = lookup(project).legs.get(id);
    if (!leg) continue;
    const unknown = new Set(["next", "prev"]);
    if (i > 0 || given?.do !== "leg" || typeof given.item !== "object") unknown.add("item");
    if (i > 0 || given?.do !== "leg" || given.fields === undefined) unknown.add("field");
    free = goingOn(project, leg, unknown, free);
  }
  return free;
}

function linkVariables(project: Project, id: string): ReadonlySet<string> {
  const entrance = lookup(project).entrances.get(id);
  if (!entrance) return NONE;
  return new Set(entrance.pass ? Object.keys(entrance.pass) : entrance.pattern === undefined ? [] : patternVariables(entrance.pattern));
}

function goingOn(project: Project, leg: Leg, unknown: ReadonlySet<string>, before: ReadonlySet<string>): ReadonlySet<string> {
  const reads = readsOf(project, leg);
  if (reads.length === 0) return NONE;
  return new Set(reads.flatMap(({ name, bags, params }) => (bags.some((bag) => unknown.has(bag)) || params.some((param) => before.has(param)) ? [name] : [])));
}

interface Reads {
  name: string;
  bags: string[];
  params: string[];
}

const known = (_: Project) => new Map<string, Reads[]>();

const withoutTexts = (source: string) => source.replace(/"(?:[^"\\]|\\.)*"|'(?:[^'\\]|\\.)*'/g, '""');
const paramsIn = (source: string) => [...withoutTexts(source).matchAll(/(?<![\w.])param\.(\w+)/g)].map((match) => match[1] ?? "");

/** What each argument that a leg passes on or hands back reads. */
function readsOf(project: Project, leg: Leg): Reads[] {
  const all = once(project, known);
  let found = all.get(leg.id);
  if (!found) {
    found = [passOf(leg), giveOf(leg)].flatMap((values) =>
      Object.entries(values ?? {}).map(([name, source]) => {
        const bags = [...withoutTexts(source).matchAll(/(?<![\w.])(item|field|next|prev)\b/g)].map((match) => match[1] ?? "");
        return { name, bags, params: paramsIn(source) };
      }),
    );
    all.set(leg.id, found);
  }
  return found;
}

/** The names of the parameters that decide something: that a condition or a fact goes by, or what is passed on to such a one. */
export function decisiveParameters(project: Project): ReadonlySet<string> {
  return once(project, findDecisive);
}

function findDecisive(project: Project): ReadonlySet<string> {
  const elements = [...project.screens, ...project.containers].flatMap((place) => place.elements ?? []);
  const sources = [
    ...project.legs.flatMap(({ when, set }) => [when, ...Object.values(set ?? {})]),
    ...elements.flatMap(({ shown, enabled }) => [shown, enabled]),
  ];
  const out = new Set(sources.flatMap((source) => (source === undefined ? [] : paramsIn(source))));
  const passed = project.legs.flatMap((leg) => readsOf(project, leg));
  for (let before = -1; before !== out.size; ) {
    before = out.size;
    for (const { name, params } of passed) if (out.has(name)) for (const param of params) out.add(param);
  }
  return out;
}
