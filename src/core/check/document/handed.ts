import { comparePatterns, segmentsOf } from "../../model/address.ts";
import { fits, valueType } from "../../model/expression.ts";
import { entranceExpressions, type Located, legExpressions, placeExpressions } from "../../model/expressions.ts";
import { firstScreen, lookup, nameOf, passTarget, upTarget } from "../../model/lookup.ts";
import type { Entrance, Leg, Param, Project, Screen } from "../../model/schema.ts";
import { patternVariables } from "../../model/template.ts";
import type { Found } from "./rule.ts";

const quote = (project: Project, id: string) => `"${nameOf(project, id)}"`;
const needed = (screen: Screen): Param[] => screen.params.filter((p) => p.required && p.default === undefined);

/** Required parameters that a leg, or an entrance without a pattern, does not pass. */
export function missingArgument(project: Project): Found[] {
  const legs = project.legs.flatMap((leg) => {
    const screen = shownBy(project, leg);
    const pass = leg.move && "pass" in leg.move ? leg.move.pass : undefined;
    return screen && screen.params.length > 0 ? missing(project, leg.id, `The leg from ${quote(project, leg.from)}`, screen, pass) : [];
  });
  const entrances = project.entrances.flatMap((e) => {
    const screen = e.pattern === undefined ? lookup(project).screens.get(e.to) : undefined;
    return screen ? missing(project, e.id, `The way in ${quote(project, e.id)}`, screen, e.pass) : [];
  });
  return [...legs, ...entrances];
}

/** The screen that a leg's move makes anew, and so has to serve with arguments. */
function shownBy(project: Project, leg: Leg): Screen | undefined {
  if (leg.move?.kind === "return" && leg.move.orElse === "nothing") return undefined;
  const target = passTarget(project, leg);
  return target === undefined ? undefined : firstScreen(project, target);
}

function missing(project: Project, id: string, who: string, screen: Screen, pass: Record<string, string> | undefined): Found[] {
  return needed(screen)
    .filter((p) => pass?.[p.name] === undefined)
    .map((p) => ({ subjects: [id, screen.id, p.name], message: `${who} leads to ${quote(project, screen.id)} without the "${p.name}" that it needs.` }));
}

/** Expressions of another type than is wanted, that do not parse, or that name something not there. */
export function wrongType(project: Project): Found[] {
  const { facts, places } = lookup(project);
  const legs = project.legs.flatMap((leg) => {
    const expressions = legExpressions(project, leg);
    if (expressions.length === 0) return [];
    const target = passTarget(project, leg);
    const params = (target === undefined ? undefined : firstScreen(project, target))?.params ?? [];
    const wrong = expressions.map((e) => problem(e, params, facts)).find((p) => p !== undefined);
    return wrong === undefined ? [] : [{ subjects: [leg.id], message: `The leg from ${quote(project, leg.from)} never works: ${wrong}.` }];
  });
  const entrances = project.entrances.flatMap((entrance) => {
    const params = firstScreen(project, entrance.to)?.params ?? [];
    const wrong = entranceExpressions(project, entrance)
      .map((e) => problem(e, params, facts))
      .find((p) => p !== undefined);
    return wrong === undefined ? [] : [{ subjects: [entrance.id], message: `The way in ${quote(project, entrance.id)} does not work as written: ${wrong}.` }];
  });
  const elements = [...places.keys()].flatMap((id) =>
    placeExpressions(project, id).flatMap((e) =>
      e.compiled.ok || e.element === undefined || e.role === "template"
        ? []
        : [
            {
              subjects: [id, e.element],
              message: `"${e.role}" of ${e.element} on ${quote(project, id)} counts as true: in "${e.source}", ${e.compiled.error.message}.`,
            },
          ],
    ),
  );
  return [...legs, ...entrances, ...elements];
}

function problem(e: Located, params: readonly Param[], facts: ReturnType<typeof lookup>["facts"]): string | undefined {
  if (!e.compiled.ok) return `in "${e.source}", ${e.compiled.error.message}`;
  if (e.role === "pass") {
    const param = params.find((p) => p.name === e.name);
    return param && !fits(e.compiled.type, valueType(param.type))
      ? `"${e.source}" is of type ${e.compiled.type}, and "${param.name}" wants ${param.type}`
      : undefined;
  }
  if (e.role !== "set") return undefined;
  const fact = facts.get(e.name ?? "");
  if (!fact) return `it sets "${e.name}", which is no fact of the project`;
  if (e.compiled.type !== (fact.type === "boolean" ? "boolean" : "text")) return `it sets the fact "${fact.id}" to a value of type ${e.compiled.type}`;
  const { ast } = e.compiled;
  return fact.type === "choice" && ast.op === "value" && !fact.values?.includes(String(ast.args))
    ? `"${String(ast.args)}" is none of the values of the fact "${fact.id}"`
    : undefined;
}

/** Patterns that bind no variable for a required parameter, and parameters of a record type behind a link. */
export function linkArguments(project: Project): Found[] {
  return project.entrances.flatMap((entrance) => {
    const screen = lookup(project).screens.get(entrance.to);
    if (!screen || (entrance.pattern === undefined && entrance.kind !== "link")) return [];
    return [...unbound(project, entrance, screen), ...records(project, entrance, screen)];
  });
}

function unbound(project: Project, entrance: Entrance, screen: Screen): Found[] {
  if (entrance.pattern === undefined) return [];
  const given = entrance.pass ? Object.keys(entrance.pass) : patternVariables(entrance.pattern);
  return needed(screen)
    .filter((p) => !given.includes(p.name) && lookup(project).types.get(p.type) === undefined)
    .map((p) => ({
      subjects: [entrance.id, p.name],
      message: `The address ${entrance.pattern} says nothing of the "${p.name}" that ${quote(project, screen.id)} needs.`,
    }));
}

function records(project: Project, entrance: Entrance, screen: Screen): Found[] {
  return screen.params
    .filter((p) => lookup(project).types.has(p.type))
    .map((p) => ({
      subjects: [entrance.id, p.name],
      message: `${quote(project, screen.id)} wants a whole ${p.type} as "${p.name}", which no address can carry.`,
    }));
}

/** Pairs of entrances whose patterns match one and the same address. */
export function linkClash(project: Project): Found[] {
  const links = project.entrances.filter((e) => e.pattern !== undefined);
  return links.flatMap((a, i) =>
    links
      .slice(i + 1)
      .filter((b) => comparePatterns(a.pattern ?? "", b.pattern ?? "") === 0 && clash(a.pattern ?? "", b.pattern ?? ""))
      .map((b) => ({
        subjects: [a.id, b.id],
        message: `The addresses ${a.pattern} and ${b.pattern} can be one and the same; which way in is meant can not be told.`,
      })),
  );
}

function clash(a: string, b: string): boolean {
  const [x, y] = [segmentsOf(a), segmentsOf(b)];
  for (let i = 0; ; i++) {
    const [p, q] = [x[i], y[i]];
    if (p === undefined || q === undefined) return p === q;
    if (p.includes("{+")) return meet(p.replace("{+", "{"), q);
    if (q.includes("{+")) return meet(p, q.replace("{+", "{"));
    if (!meet(p, q)) return false;
  }
}

/** Whether two segments, each with at most one variable, can be the same text. */
function meet(p: string, q: string): boolean {
  const [a, b] = [around(p), around(q)];
  if (!a && !b) return p === q;
  if (!a || !b) {
    const [fixed, open] = a ? [q, a] : [p, b as [string, string]];
    return fixed.length > open[0].length + open[1].length && fixed.startsWith(open[0]) && fixed.endsWith(open[1]);
  }
  const prefix = a[0].startsWith(b[0]) || b[0].startsWith(a[0]);
  return prefix && (a[1].endsWith(b[1]) || b[1].endsWith(a[1]));
}

function around(segment: string): [string, string] | undefined {
  const match = /^([^{]*)\{[^}]*\}(.*)$/.exec(segment);
  return match ? [match[1] ?? "", match[2] ?? ""] : undefined;
}

/** Legs to the same screen by a neighbour that push instead of replacing. */
export function pagesPush(project: Project): Found[] {
  return project.legs.flatMap((leg) =>
    leg.move?.kind === "push" && leg.move.to === leg.from && usesNeighbour(project, leg).size > 0
      ? [
          {
            subjects: [leg.id],
            message: `The leg to the neighbour of ${quote(project, leg.from)} goes on top each time, so paging piles copies up; it should replace.`,
          },
        ]
      : [],
  );
}

/** Legs that use a neighbour without asking in their condition whether there is one. */
export function pastTheEnd(project: Project): Found[] {
  return project.legs.flatMap((leg) => {
    const unasked = [...usesNeighbour(project, leg)].filter((name) => !new RegExp(`\\bhas\\(\\s*${name}\\.`).test(leg.when ?? ""));
    return unasked.length === 0
      ? []
      : [
          {
            subjects: [leg.id],
            message: `The leg from ${quote(project, leg.from)} uses "${unasked[0]}" without asking has(${unasked[0]}.…): at the end there is none.`,
          },
        ];
  });
}

const NONE: ReadonlySet<string> = new Set();

function usesNeighbour(project: Project, leg: Leg): ReadonlySet<string> {
  const expressions = legExpressions(project, leg);
  if (expressions.length === 0) return NONE;
  const reads = expressions.flatMap((e) => (e.role !== "when" && e.compiled.ok ? e.compiled.reads : []));
  return new Set(reads.map((r) => r.name).filter((name) => name === "next" || name === "prev"));
}

/** Parameters that nothing on their screen reads or shows. */
export function unusedParameter(project: Project): Found[] {
  const { legsFrom, containers } = lookup(project);
  const shared = [...containers.keys()].flatMap((id) => [
    ...placeExpressions(project, id),
    ...(legsFrom.get(id) ?? []).flatMap((leg) => legExpressions(project, leg)),
  ]);
  const everywhere = new Set(readNames(shared, "param"));
  return project.screens.flatMap((screen) => {
    if (screen.params.length === 0) return [];
    const read = new Set(
      readNames([...placeExpressions(project, screen.id), ...(legsFrom.get(screen.id) ?? []).flatMap((leg) => legExpressions(project, leg))], "param"),
    );
    if (screen.pages) read.add(screen.pages.by);
    for (const name of patternVariables(screen.path ?? "")) read.add(name);
    const up = upTarget(project, screen.id);
    for (const p of (up === undefined ? undefined : firstScreen(project, up))?.params ?? []) read.add(p.name);
    return screen.params
      .filter((p) => !read.has(p.name) && !everywhere.has(p.name))
      .map((p) => ({ subjects: [screen.id, p.name], message: `${quote(project, screen.id)} is handed "${p.name}" and neither shows nor uses it.` }));
  });
}

/** Facts that nothing reads or shows. */
export function unusedFact(project: Project): Found[] {
  const { places } = lookup(project);
  const all = [
    ...[...places.keys()].flatMap((id) => placeExpressions(project, id)),
    ...project.legs.flatMap((leg) => legExpressions(project, leg)),
    ...project.entrances.flatMap((e) => entranceExpressions(project, e)),
  ];
  const read = new Set(readNames(all, "fact"));
  return project.facts.filter((f) => !read.has(f.id)).map((f) => ({ subjects: [f.id], message: `The fact "${f.name ?? f.id}" is never asked or shown.` }));
}

function readNames(expressions: Located[], bag: string): string[] {
  return expressions.flatMap((e) => (e.compiled.ok ? e.compiled.reads.flatMap((r) => (r.name === bag && r.field !== undefined ? [r.field] : [])) : []));
}
