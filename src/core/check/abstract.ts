/**
 * The project as the checker follows it: the app's own facts and the width are known,
 * everything else a condition asks (outside facts, arguments, rows, typed text, addresses)
 * may go either way. The engine itself runs; only its conditions and values are exchanged
 * for ones that ask a chooser, and every way of choosing is gone through.
 *
 * Within one event a question has one answer: `fact.online` and `!fact.online` never both hold.
 */

import { type CompiledElement, type CompiledLeg, type CompiledProject, type Condition, compiled, register } from "../engine/compiled.ts";
import { type Node, type Refusal, type Shown, type State, shownIn } from "../engine/state.ts";
import { type ASTNode, sameValue, type Values } from "../model/expression.ts";
import { lookup } from "../model/lookup.ts";
import type { Json, Project } from "../model/schema.ts";
import { isHidden, isRest, markOf } from "./lanes.ts";

/** Questions answered while one event ran: what was asked and which answer was taken. */
export interface Choice {
  question: string;
  answer: unknown;
}

/** Answers questions by a script, and goes through all scripts. */
export class Chooser {
  private script: number[] = [];
  private taken: Array<{ question: string; options: readonly unknown[]; pick: number }> = [];
  private answers = new Map<string, unknown>();
  /** Some event had more ways of turning out than were gone through. */
  truncated = false;

  choose<T>(question: string, options: readonly T[]): T {
    const known = this.answers.get(question);
    if (known !== undefined) return known as T;
    const pick = this.script[this.taken.length] ?? 0;
    const answer = options[pick] as T;
    this.taken.push({ question, options, pick });
    this.answers.set(question, answer);
    return answer;
  }

  /** Runs once for every way in which the questions can be answered; at most `limit` ways. */
  each<T>(run: () => T, limit = 512): Array<{ result: T; choices: Choice[] }> {
    const out: Array<{ result: T; choices: Choice[] }> = [];
    this.script = [];
    for (let count = 0; count < limit; count++) {
      this.taken = [];
      this.answers = new Map();
      const result = run();
      out.push({ result, choices: this.taken.map(({ question, options, pick }) => ({ question, answer: options[pick] })) });
      const next = this.taken.findLastIndex(({ options, pick }) => pick + 1 < options.length);
      if (next < 0) return out;
      this.script = this.taken.slice(0, next + 1).map(({ pick }, i) => (i === next ? pick + 1 : pick));
    }
    this.truncated = true;
    return out;
  }
}

/** A leg that fired and could not do what it says. */
export interface RefusedLeg {
  leg: string;
  why: Refusal;
}

/** A leg that put a second copy of a place into a stack. */
export interface CopyMade {
  leg: string;
  place: string;
}

export interface AbstractProject {
  /** To run the engine on: no arguments, no outside facts. */
  project: Project;
  original: Project;
  chooser: Chooser;
  /** Legs refused since it was emptied last, on whatever trigger. */
  refusals: RefusedLeg[];
  /** Screens that arrive legs led on from since it was emptied last. */
  passed: State[];
  /** Legs fired since it was emptied last, in order. */
  fired: string[];
  /** Second copies that legs put into a stack since it was emptied last. */
  copies: CopyMade[];
  /** What lanes held when they were left, by lane and facts. */
  lanes: Map<string, Node[]>;
  /** Hidden lanes that were looked into since it was emptied last. */
  looked: Set<string>;
}

export function abstractProject(original: Project): AbstractProject {
  const project: Project = {
    ...original,
    facts: original.facts.filter((fact) => fact.source === "app"),
    screens: original.screens.map((screen) => (screen.params.length > 0 ? { ...screen, params: [] } : screen)),
  };
  const chooser = new Chooser();
  const out: AbstractProject = { project, original, chooser, refusals: [], passed: [], fired: [], copies: [], lanes: new Map(), looked: new Set() };
  register(project, abstractCompiled(out, compiled(original)));
  return out;
}

function abstractCompiled(abstract: AbstractProject, concrete: CompiledProject): CompiledProject {
  const known = new Map<CompiledLeg, CompiledLeg>();
  const condition = (c: Condition | undefined): Condition | undefined => c && { ast: c.ast, run: (values) => truth(abstract, c.ast, values) };
  const element = (e: CompiledLeg["element"]): CompiledLeg["element"] =>
    e === undefined || e === "missing" ? e : ({ ...e, shown: condition(e.shown), enabled: condition(e.enabled) } satisfies CompiledElement);
  const leg = (entry: CompiledLeg): CompiledLeg => {
    const made = known.get(entry);
    if (made) return made;
    const next: CompiledLeg = {
      ...entry,
      when: condition(entry.when),
      element: element(entry.element),
      pass: [],
      set: entry.set
        .filter(({ fact }) => lookup(abstract.project).facts.has(fact))
        .map((s) => ({ ...s, run: (values) => valueForFact(abstract, s.fact, s.ast, values) })),
      earlier: [],
    };
    known.set(entry, next);
    next.earlier = entry.earlier.map(leg);
    return next;
  };
  return {
    hasDepart: concrete.hasDepart,
    legs: new Map([...concrete.legs].map(([id, entry]) => [id, leg(entry)])),
    from: new Map(
      [...concrete.from].map(([id, group]) => [id, { events: group.events.map(leg), arrive: group.arrive.map(leg), depart: group.depart.map(leg) }]),
    ),
    entrances: new Map(
      [...concrete.entrances].map(([id, entry]) => [id, { ...entry, pass: [], when: entry.when === "never" ? "never" : condition(entry.when) }]),
    ),
    sameArguments: (screenId) => {
      const declared = lookup(abstract.original).screens.get(screenId);
      return declared === undefined || declared.params.length === 0 || abstract.chooser.choose(`same arguments on ${screenId}`, [true, false]) === true;
    },
    reveal: (node, why) => (isHidden(node) ? contentOf(abstract, markOf(node), node, why) : node),
    rests: {
      isHidden: isRest,
      cut: (hidden, find) => oneOf(abstract, hidden, cuts(abstract, markOf(hidden as Shown), find, new Set())),
      lowest: (hidden) => oneOf(abstract, hidden, lowests(abstract, markOf(hidden as Shown), new Set())) ?? [hidden],
      uncover: (hidden) => uncovered(abstract, hidden as Shown),
    },
    watch: {
      fired: (id) => abstract.fired.push(id),
      refused: (id, why) => abstract.refusals.push({ leg: id, why }),
      copied: (place) => abstract.copies.push({ leg: abstract.fired.at(-1) ?? "", place }),
      passed: (state) => abstract.passed.push(state),
    },
  };
}

/**
 * What a hidden lane holds. To look into it, any of what it held when it was left; to show it,
 * only what an arrive leg leads on from at once: the rest stays hidden behind the portal.
 */
function contentOf(abstract: AbstractProject, mark: string, hidden: Node, why: "search" | "show"): Node {
  abstract.looked.add(mark);
  const contents = abstract.lanes.get(mark) ?? [hidden];
  if (why === "search") return abstract.chooser.choose(`lane ${mark}`, contents);
  const arriving = contents.filter((content) => arrives(abstract.project, content));
  if (arriving.length === 0) return hidden;
  return abstract.chooser.choose(`lane ${mark} shown`, arriving.length < contents.length ? [hidden, ...arriving] : arriving);
}

type Items = readonly Node[];

/** What a hidden rest holds, as far as it is known. */
function restsOf(abstract: AbstractProject, mark: string): Items[] {
  abstract.looked.add(mark);
  return (abstract.lanes.get(mark) ?? []).flatMap((content) => (content.kind === "stack" ? [content.items] : []));
}

/** All that a cut in a hidden rest can come to: the items up to what is found, or undefined where nothing is. */
function cuts(abstract: AbstractProject, mark: string, find: (item: Node) => Node | undefined, seen: Set<string>): Array<Items | undefined> {
  if (seen.has(mark)) return [];
  seen.add(mark);
  return restsOf(abstract, mark).flatMap((items) => {
    for (let i = items.length - 1; i >= 0; i--) {
      const item = items[i] as Node;
      if (isRest(item)) return cuts(abstract, markOf(item), find, seen);
      const found = find(item);
      if (found) return [[...items.slice(0, i), found]];
    }
    return [undefined];
  });
}

function lowests(abstract: AbstractProject, mark: string, seen: Set<string>): Items[] {
  if (seen.has(mark)) return [];
  seen.add(mark);
  return restsOf(abstract, mark).flatMap((items) => {
    const first = items[0] as Node;
    return isRest(first) ? lowests(abstract, markOf(first), seen) : [[first]];
  });
}

function oneOf(abstract: AbstractProject, hidden: Node, ways: Array<Items | undefined>): Items | undefined {
  const different = new Map(ways.map((way) => [JSON.stringify(way) ?? "", way]));
  if (different.size < 2) return ways[0];
  return abstract.chooser.choose(
    `lane ${hidden.at} ${[...different.keys()].join(" ")}`,
    [...different.values()].map((way) => ({ way })),
  ).way;
}

/** The items when the top has gone: hidden behind a portal, but for what an arrive leg leads on from at once. */
function uncovered(abstract: AbstractProject, hidden: Shown): Items {
  const rests = restsOf(abstract, markOf(hidden));
  const arriving = rests.filter((items) => arrives(abstract.project, items[items.length - 1] as Node));
  if (arriving.length === 0) return [hidden];
  const options = arriving.length < rests.length ? [[hidden], ...arriving] : arriving;
  return abstract.chooser.choose(`lane ${hidden.at} shown`, options);
}

/** What shows of the content of a lane, or lies next beneath of a rest. */
export function topOf(content: Node): Node {
  return content.kind === "stack" ? (content.items[content.items.length - 1] as Node) : content;
}

/** Whether the screen that a node shows has arrive legs. */
export function arrives(project: Project, node: Node): boolean {
  return !isHidden(node) && (compiled(project).from.get(shownIn(node).at)?.arrive.length ?? 0) > 0;
}

const unknown = Symbol("unknown");
type Known = Json | typeof unknown;

function truth(abstract: AbstractProject, ast: ASTNode, values: Values): boolean {
  const value = evaluate(abstract, ast, values);
  return value === unknown ? ask(abstract, ast, values, [true, false]) === true : value === true;
}

function valueForFact(abstract: AbstractProject, factId: string, ast: ASTNode, values: Values): Json {
  const value = evaluate(abstract, ast, values);
  if (value !== unknown) return value;
  const fact = lookup(abstract.project).facts.get(factId);
  return ask(abstract, ast, values, fact?.type === "choice" ? (fact.values ?? []) : [true, false]);
}

/** The value of an expression as far as it is known; conditions within it are decided by the chooser where they are not. */
function evaluate(abstract: AbstractProject, ast: ASTNode, values: Values): Known {
  switch (ast.op) {
    case "value":
      return typeof ast.args === "bigint" ? Number(ast.args) : (ast.args as Json);
    case "id":
      return ast.args === "width" ? (values.width as Json) : unknown;
    case ".":
      return ast.args[0].op === "id" && ast.args[0].args === "fact" ? factValue(abstract, ast.args[1], values) : unknown;
    case "!_":
      return !truth(abstract, ast.args, values);
    case "&&":
      return truth(abstract, ast.args[0], values) && truth(abstract, ast.args[1], values);
    case "||":
      return truth(abstract, ast.args[0], values) || truth(abstract, ast.args[1], values);
    case "?:":
      return evaluate(abstract, truth(abstract, ast.args[0], values) ? ast.args[1] : ast.args[2], values);
    case "==":
    case "!=": {
      const [a, b] = [evaluate(abstract, ast.args[0], values), evaluate(abstract, ast.args[1], values)];
      if (a !== unknown && b !== unknown) return sameValue(a, b) === (ast.op === "==");
      const same = abstract.chooser.choose(`${text(ast.args[0])} == ${text(ast.args[1])} on ${screenOf(values)}`, [true, false]) === true;
      return same === (ast.op === "==");
    }
    case "<":
    case "<=":
    case ">":
    case ">=": {
      const [a, b] = [evaluate(abstract, ast.args[0], values), evaluate(abstract, ast.args[1], values)];
      if (a === unknown || b === unknown || a === null || b === null) return unknown;
      return inOrder(ast.op, a as Json, b as Json);
    }
    case "+": {
      const [a, b] = [evaluate(abstract, ast.args[0], values), evaluate(abstract, ast.args[1], values)];
      return a === unknown || b === unknown ? unknown : (a as number) + (b as number);
    }
    default:
      return unknown;
  }
}

function inOrder(op: "<" | "<=" | ">" | ">=", a: Json, b: Json): boolean {
  const [x, y] = [a as number, b as number];
  return op === "<" ? x < y : op === "<=" ? x <= y : op === ">" ? x > y : x >= y;
}

function factValue(abstract: AbstractProject, id: string, values: Values): Known {
  const facts = values.fact as Record<string, Json>;
  if (Object.hasOwn(facts, id)) return facts[id] as Json;
  const fact = lookup(abstract.original).facts.get(id);
  return fact ? abstract.chooser.choose<Json>(`fact.${id}`, fact.type === "boolean" ? [true, false] : (fact.values ?? [])) : unknown;
}

function ask(abstract: AbstractProject, ast: ASTNode, values: Values, options: readonly Json[]): Json {
  return abstract.chooser.choose(`${text(ast)} on ${screenOf(values)}`, options);
}

function text(ast: ASTNode): string {
  return ast.input.slice(ast.start, ast.end);
}

function screenOf(values: Values): string {
  return String(values.screen ?? "");
}
