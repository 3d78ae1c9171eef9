import { type ASTNode, compile, fits, type Run, type Scope, sameValue, valueType } from "../model/expression.ts";
import { elementIdOf, elementOf, lookup, targetOf } from "../model/lookup.ts";
import type { Element, Entrance, Leg, Project } from "../model/schema.ts";
import { compileCondition, entranceScope, legScope, placeScope } from "../model/scope.ts";
import { patternVariables } from "../model/template.ts";
import { parametersOf } from "./make.ts";
import type { Args, Node, Refusal, State } from "./state.ts";

/** A condition ready to run, with its tree for those who know only some of its values. */
export interface Condition {
  run: Run;
  ast: ASTNode;
}
export interface CompiledLeg {
  leg: Leg;
  /** False where an expression does not parse or is of the wrong type: the leg never fires. */
  wellTyped: boolean;
  when: Condition | undefined;
  pass: Array<{ name: string; run: Run; required: boolean; hasDefault: boolean }>;
  set: Array<{ fact: string; run: Run; ast: ASTNode }>;
  element: CompiledElement | "missing" | undefined;
  /** Earlier legs with the same source and trigger; the first that can fire does. */
  earlier: readonly CompiledLeg[];
}
export interface CompiledElement {
  element: Element;
  shown?: Condition;
  enabled?: Condition;
  except: ReadonlySet<string>;
}
export interface CompiledEntrance {
  entrance: Entrance;
  /** Undefined where there is no condition; "never" where it is ill-typed. */
  when?: Condition | "never";
  pass?: Array<{ name: string; run: Run }>;
  /** The variables of its pattern. */
  variables: readonly string[];
}
export interface CompiledProject {
  legs: Map<string, CompiledLeg>;
  /** By source, in document order: legs for events, and those the app itself takes. */
  from: Map<string, { events: CompiledLeg[]; arrive: CompiledLeg[]; depart: CompiledLeg[] }>;
  entrances: Map<string, CompiledEntrance>;
  hasDepart: boolean;
  /** Whether two made screens have equal arguments; the checker, which knows none, exchanges it. */
  sameArguments: (screenId: string, a: Args, b: Args) => boolean;
  /** What a hidden lane holds, to look into it or to show it; the checker, which hides lanes, fills it in. */
  reveal?: (node: Node, why: "search" | "show") => Node;
  /** What lies beneath the top of stacks, where the checker hides it. */
  rests?: HiddenRests;
  /** Told of what happens inside events; the checker listens. */
  watch?: Watch;
}

/** Answers for items of stacks that stand for all that lies beneath. */
export interface HiddenRests {
  isHidden: (item: Node) => boolean;
  cut: (hidden: Node, find: (item: Node) => Node | undefined) => readonly Node[] | undefined;
  lowest: (hidden: Node) => readonly Node[];
  /** The items that the hidden rest holds. */
  known: (hidden: Node) => readonly Node[];
  /** The items when what lay on the hidden rest has gone. */
  uncover: (hidden: Node) => readonly Node[];
}

/** Listens to what `step` does on the way. */
export interface Watch {
  fired: (legId: string) => void;
  refused: (legId: string, why: Refusal) => void;
  /** A push put a second copy of a place into the same stack. */
  copied: (placeId: string) => void;
  /** A state that an arrive leg is about to lead on from. */
  passed: (state: State) => void;
}

const cache = new WeakMap<Project, CompiledProject>();

/** Gives a project object expressions of another making, before it is used for the first time. */
export function register(project: Project, entry: CompiledProject) {
  cache.set(project, entry);
}

/** The project's expressions, compiled once for each project object. */
export function compiled(project: Project): CompiledProject {
  const known = cache.get(project);
  if (known) return known;
  const made = compileProject(project);
  cache.set(project, made);
  return made;
}

const NONE: readonly CompiledLeg[] = [];

function compileProject(project: Project): CompiledProject {
  const out: CompiledProject = { legs: new Map(), from: new Map(), entrances: new Map(), hasDepart: false, sameArguments: (_, a, b) => sameValue(a, b) };
  const earlier = new Map<string, readonly CompiledLeg[]>();
  for (const leg of project.legs) {
    const key = triggerKey(leg);
    const before = earlier.get(key) ?? NONE;
    const entry = compileLeg(project, leg, before);
    earlier.set(key, before === NONE ? [entry] : [...before, entry]);
    out.legs.set(leg.id, entry);
    let group = out.from.get(leg.from);
    if (!group) {
      group = { events: [], arrive: [], depart: [] };
      out.from.set(leg.from, group);
    }
    const kind = leg.on.kind;
    group[kind === "arrive" || kind === "depart" ? kind : "events"].push(entry);
    if (kind === "depart") out.hasDepart = true;
  }
  for (const entrance of project.entrances) out.entrances.set(entrance.id, compileEntrance(project, entrance));
  return out;
}

/** Legs with one key share source and trigger; `by` of depart legs is looked at when they are asked. */
export function triggerKey({ from, on }: Leg): string {
  switch (on.kind) {
    case "tap":
    case "submit":
    case "hold":
      return `${from} ${on.kind} ${on.element}${on.outcome === undefined ? "" : ` ${on.outcome}`}`;
    case "swipe":
      return `${from} ${on.kind} ${on.to}${on.element === undefined ? "" : ` ${on.element}`}`;
    case "after":
      return `${from} ${on.kind} ${on.ms}`;
    case "arrive":
    case "depart":
      return `${from} ${on.kind}`;
  }
}

function compileLeg(project: Project, leg: Leg, earlier: readonly CompiledLeg[]): CompiledLeg {
  const out: CompiledLeg = { leg, wellTyped: true, when: undefined, pass: [], set: [], element: compiledElementOf(project, leg), earlier };
  const pass = leg.move && "pass" in leg.move ? leg.move.pass : undefined;
  if (leg.when === undefined && pass === undefined && leg.set === undefined) return out;
  const scope = legScope(project, leg);
  if (leg.when !== undefined) {
    const when = compileCondition(leg.when, scope);
    if (when.ok) out.when = when;
    else out.wellTyped = false;
  }
  if (pass) {
    const params = parametersOf(project, passTarget(project, leg) ?? "");
    for (const [name, source] of Object.entries(pass)) {
      const param = params.find((p) => p.name === name);
      const result = compile(source, scope);
      if (!result.ok || (param && !fits(result.type, valueType(param.type)))) out.wellTyped = false;
      else out.pass.push({ name, run: result.run, required: param?.required ?? false, hasDefault: param?.default !== undefined });
    }
  }
  for (const [fact, source] of Object.entries(leg.set ?? {})) {
    const result = compileFactValue(project, fact, source, scope);
    if (result) out.set.push({ fact, run: result.run, ast: result.ast });
    else out.wellTyped = false;
  }
  return out;
}

/** The place whose first screen gets the arguments of a leg: for `open`, what the modal shows. */
export function passTarget(project: Project, leg: Leg): string | undefined {
  if (leg.move?.kind !== "open") return targetOf(leg);
  return leg.move.show ?? lookup(project).containers.get(leg.move.to)?.start;
}

/** Compiles a value for a fact; undefined where the fact is unknown or the value can not be one of its own. */
export function compileFactValue(project: Project, factId: string, source: string, scope: Scope): { run: Run; ast: ASTNode } | undefined {
  const fact = lookup(project).facts.get(factId);
  const result = compile(source, scope);
  if (!fact || !result.ok || result.type !== (fact.type === "boolean" ? "boolean" : "text")) return undefined;
  if (fact.type === "choice" && result.ast.op === "value" && !fact.values?.includes(String(result.ast.args))) return undefined;
  return result;
}

function compiledElementOf(project: Project, leg: Leg): CompiledElement | "missing" | undefined {
  const id = elementIdOf(leg);
  if (id === undefined) return undefined;
  const element = elementOf(project, leg.from, id);
  return element ? compiledElement(project, leg.from, element) : "missing";
}

const elementCache = new WeakMap<Element, CompiledElement>();

/** An element's conditions; ill-typed ones are left out, and so count as true. */
export function compiledElement(project: Project, placeId: string, element: Element): CompiledElement {
  if (element.shown === undefined && element.enabled === undefined) {
    const known = elementCache.get(element);
    if (known) return known;
  }
  const out: CompiledElement = { element, except: new Set(element.except ?? []) };
  if (element.shown === undefined && element.enabled === undefined) {
    elementCache.set(element, out);
    return out;
  }
  const scope = placeScope(project, placeId);
  const shown = element.shown === undefined ? undefined : compileCondition(element.shown, scope);
  const enabled = element.enabled === undefined ? undefined : compileCondition(element.enabled, scope);
  if (shown?.ok) out.shown = shown;
  if (enabled?.ok) out.enabled = enabled;
  return out;
}

function compileEntrance(project: Project, entrance: Entrance): CompiledEntrance {
  const scope = entranceScope(project, entrance);
  const out: CompiledEntrance = { entrance, variables: entrance.pattern === undefined ? [] : patternVariables(entrance.pattern) };
  if (entrance.when !== undefined) {
    const when = compileCondition(entrance.when, scope);
    out.when = when.ok ? when : "never";
  }
  if (entrance.pass) {
    const params = parametersOf(project, entrance.to);
    out.pass = Object.entries(entrance.pass).flatMap(([name, source]) => {
      const result = compile(source, scope);
      const param = params.find((p) => p.name === name);
      return result.ok && (!param || fits(result.type, valueType(param.type))) ? [{ name, run: result.run }] : [];
    });
  }
  return out;
}
