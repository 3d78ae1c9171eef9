import { proposal } from "../insight/proposal.ts";
import { emptyProject } from "../model/edits/add.ts";
import { sameName } from "../model/names.ts";
import { inStackMeant, suitedMove, withArguments } from "../model/propose.ts";
import { problemLine, readProjectData } from "../model/read.ts";
import type { Leg, Move, Project } from "../model/schema.ts";
import type { At, FactNode, LineProblem, Lines, RowsNode, RuleNode } from "./ast.ts";
import { Expressions, withConditions } from "./expressions.ts";
import { outlined, withTitle } from "./habits.ts";
import { flagged, Legs, type Loose, passing } from "./legs.ts";
import { parseLines } from "./parse.ts";
import { Places } from "./places.ts";
import { Problems } from "./problems.ts";
import { rowsOfLists } from "./rows.ts";
import { rulesOf } from "./rules.ts";
import { unquoted } from "./scan.ts";
import { withMenus, withoutUp } from "./usual.ts";

export type LinesResult = { ok: true; project: Project } | { ok: false; problems: LineProblem[] };

/** A project as its lines make it, with what they leave open. */
export interface Built {
  ok: true;
  project: Project;
  /** Whether the lines name the project. */
  named: boolean;
  /** The stack that was put around what stands outermost, where that is more than one place. */
  wrapper: string | undefined;
  /** Where each place stands in the lines. */
  at: ReadonlyMap<string, At>;
  /** Where each leg stands in them. */
  legsAt: ReadonlyMap<string, At>;
  /** The rules of the lines, and the place of a path in them. */
  rules: readonly RuleNode[];
  placeOf: (path: readonly string[]) => string | undefined;
  /** By the ids of the legs whose way the lines leave open, what they say of it all the same. */
  loose: ReadonlyMap<string, Pick<Loose, "args" | "flags" | "at">>;
  /** The ids of the legs whose way the lines name, without its stack. */
  stackless: ReadonlySet<string>;
}

/** A project from quick lines, or every problem with its line, its column and what is expected. */
export function fromLines(text: string, name = "App"): LinesResult {
  return readLines(text, name);
}

/**
 * The same, with what the lines leave open. In lines for a project, paths such as `Yard/Rota` may be those of its places. `whole` is false
 * where the lines are a part of something: in which stack a reset is meant is then told by what they go into.
 */
export function readLines(text: string, name: string, known?: Project, whole = known === undefined): Built | Extract<LinesResult, { ok: false }> {
  const { lines, problems } = parseLines(text);
  const found = new Problems();
  const { project, loose, stackless, legsAt, places, rules } = built(lines, name, found, known, whole);
  if (lines.places.length === 0 && lines.ways.length === 0 && (lines.rules.length === 0 || !known) && problems.length === 0)
    problems.push({ line: 1, column: 1, message: "there is no screen in it; expected one a line, such as Home: Plots > Plots" });
  const all = [...problems, ...found.list].sort((a, b) => a.line - b.line || a.column - b.column);
  if (all.length > 0) return { ok: false, problems: all };
  const read = readProjectData(project);
  if (read.ok)
    return {
      ok: true,
      project: read.project,
      named: project.name !== name,
      wrapper: places.wrapper,
      at: new Map(places.made.map(({ id, node: { line, column } }) => [id, { line, column }])),
      legsAt,
      loose: new Map(loose.map((one) => [one.leg.id, one])),
      stackless,
      rules,
      placeOf: (path) => places.find(path)?.id,
    };
  return {
    ok: false,
    problems: read.problems.slice(0, 20).map((problem) => ({ line: 1, column: 1, message: `the lines make no project: ${problemLine(problem)}` })),
  };
}

/** The project of some lines, as far as they can be read, and the legs whose way they leave open. */
function built(
  whatIsRead: Lines,
  name: string,
  problems: Problems,
  known: Project | undefined,
  whole: boolean,
): { project: Project; loose: readonly Loose[]; stackless: ReadonlySet<string>; legsAt: ReadonlyMap<string, At>; places: Places; rules: readonly RuleNode[] } {
  const read = whole && !known ? withTitle(whatIsRead) : whatIsRead;
  const expressions = new Expressions(read, known, problems);
  const isContainer = (one: string) => known?.containers.some(({ name }) => sameName(name, one)) ?? false;
  const outline = whole || known ? outlined(read.places, isContainer) : read.places;
  const lines = withConditions({ ...read, places: outline }, known, expressions);
  const rows = rowsOfLists(lines);
  const places = new Places(problems, expressions, rows.of, known);
  for (const node of lines.places) places.place(node, undefined);
  places.missing(lines.ways);
  const root = places.root();
  for (const one of places.made) places.contents(one);
  const project: Project = {
    ...emptyProject(lines.name ?? name),
    root,
    types: [...lines.rows.map(typeOf), ...rows.types],
    containers: places.made.flatMap(({ container }) => container ?? []),
    screens: places.made.flatMap(({ screen }) => screen ?? []),
  };
  const legs = new Legs(project, places, problems, expressions);
  const told = places.made.flatMap((one) => one.node.elements.flatMap((element, i) => legs.legsOf(one, element, i)));
  const entrances = legs.waysIn(lines.ways);
  const rules = lines.rules.map((rule) => (rule.while === undefined ? rule : { ...rule, while: expressions.value(rule.while, rule, { params: new Set() }) }));
  const facts = [...lines.facts, ...expressions.made].map((fact) => factOf(fact, problems));
  const made = withoutUp(withMenus({ ...project, facts, legs: told, entrances }));
  const led = tried(whole ? settled(made, legs.stackless) : made, legs.loose, problems);
  // In lines for a project that is there, rules may speak of what only that has.
  const ruled = known ? [] : rulesOf(rules, led, (path) => places.find(path)?.id, problems);
  return { project: ruled.length > 0 ? { ...led, rules: ruled } : led, loose: legs.loose, stackless: legs.stackless, legsAt: legs.at, places, rules };
}

/** The project with the ways that lines name in the stacks that are meant. */
function settled(project: Project, stackless: ReadonlySet<string>): Project {
  const inMeant = (leg: Leg): Leg => (leg.move && stackless.has(leg.id) ? { ...leg, move: inStackMeant(project, leg.from, leg.move) } : leg);
  return { ...project, legs: project.legs.map(inMeant) };
}

/** The project with a way for each leg that the lines leave open: the one that works where its element is really met. */
function tried(project: Project, loose: readonly Loose[], problems: Problems): Project {
  const suited = moved(project, loose, ({ leg, to, element }) => withArguments(project, leg.from, element, suitedMove(project, leg.from, to)), new Problems());
  if (problems.list.length > 0 || !readProjectData(suited).ok) return suited;
  const found = moved(
    suited,
    loose,
    ({ leg, to, element }) => proposal(suited, { place: leg.from, element, on: element === undefined ? (leg.on as never) : undefined }, to).move,
    problems,
  );
  const flags = new Map(loose.map((one) => [one.leg.id, one.flags]));
  return {
    ...found,
    legs: found.legs.map((leg) => (leg.move && flags.has(leg.id) ? { ...leg, move: flagged(leg.move, flags.get(leg.id) ?? [], problems) } : leg)),
  };
}

/** A project with other moves for the legs that are left open; arguments that the lines name are passed. */
function moved(project: Project, loose: readonly Loose[], move: (one: Loose) => Move, problems: Problems): Project {
  const moves = new Map(loose.map((one): [string, Move] => [one.leg.id, passing(move(one), one, problems)]));
  const led = (leg: Leg): Leg => {
    const other = moves.get(leg.id);
    return other ? { ...leg, move: other } : leg;
  };
  return { ...project, legs: project.legs.map(led) };
}

function factOf({ id, name, values, options }: FactNode, problems: Problems): Project["facts"][number] {
  const [first = false] = values;
  const boolean = typeof first === "boolean";
  const is = (word: string) => options.some(({ text }) => text === word);
  for (const option of options)
    if (option.text !== "outside" && option.text !== "persists") problems.wrong(option, `found “${option.text}”, expected outside or persists`);
  return {
    id,
    ...(name === undefined ? {} : { name }),
    type: boolean ? "boolean" : "choice",
    ...(boolean ? {} : { values: values.map(String) }),
    initial: boolean ? first : String(first),
    source: is("outside") ? "outside" : "app",
    ...(is("persists") ? { persists: true } : {}),
  };
}

function typeOf({ id, fields, rows }: RowsNode): Project["types"][number] {
  return { id, fields, samples: rows.map((row) => Object.fromEntries(fields.map(({ name, type }, i) => [name, cellOf(row[i] ?? "", type)]))) };
}

function cellOf(text: string, type: string) {
  if (type === "number" || type === "integer") return Number.isFinite(Number(text)) && text !== "" ? Number(text) : unquoted(text);
  if (type === "boolean") return text === "true";
  return unquoted(text);
}
