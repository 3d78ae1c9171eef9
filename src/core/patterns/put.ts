import type { Edit } from "../model/edits/edit.ts";
import { difference } from "../model/edits/revise.ts";
import { sameName } from "../model/names.ts";
import type { Project } from "../model/schema.ts";
import { listed, Making } from "./making.ts";
import type { Ask, Pattern } from "./pattern.ts";

/** What a pattern makes of a project; or, by what was asked, what is wrong with the names that were given. */
export type PutResult = { ok: true; edit: Edit; project: Project } | { ok: false; problems: ReadonlyMap<string, string> };

/** Names to begin with: the usual ones, with a number where something in the project is called that already. */
export function usualNames(project: Project, pattern: Pattern): Record<string, string> {
  const taken = namesOf(project);
  const free = (name: string) => {
    let now = name;
    for (let i = 2; taken.has(now.toLowerCase()); i++) now = `${name} ${i}`;
    taken.add(now.toLowerCase());
    return now;
  };
  const usual = ({ of, usual }: Ask) => (of === "place" || of === "places" ? listed(usual).map(free).join(", ") : usual);
  return Object.fromEntries(pattern.asks.map((ask) => [ask.id, usual(ask)]));
}

/** Puts a pattern into a project at a place, with the names that are given; a name that is not is the usual one. One edit. */
export function putPattern(project: Project, pattern: Pattern, place: string, given: Readonly<Record<string, string>> = {}): PutResult {
  const names = { ...usualNames(project, pattern), ...given };
  const problems = problemsOf(project, pattern, names);
  if (problems.size > 0) return { ok: false, problems };
  const making = new Making(project, place, names);
  pattern.put(making);
  const edit = difference(project, making.project, `Put in “${pattern.name}”`);
  return { ok: true, edit, project: making.project };
}

function problemsOf(project: Project, { asks }: Pattern, names: Readonly<Record<string, string>>): Map<string, string> {
  const taken = namesOf(project);
  const problems = new Map<string, string>();
  for (const { id, of } of asks) {
    const text = (names[id] ?? "").trim();
    const all = of === "places" ? listed(text) : [text];
    if (all.every((name) => name === "")) problems.set(id, of === "places" ? "Names are expected, with commas between." : "A name is expected.");
    if (of !== "place" && of !== "places") continue;
    const double = all.find((name, i) => taken.has(name.toLowerCase()) || all.some((other, j) => j < i && sameName(other, name)));
    if (double !== undefined) problems.set(id, `There is a “${double}” already; another name is expected.`);
    for (const name of all) taken.add(name.toLowerCase());
  }
  return problems;
}

function namesOf({ screens, containers }: Project): Set<string> {
  return new Set([...screens, ...containers].map(({ name }) => name.toLowerCase()));
}
