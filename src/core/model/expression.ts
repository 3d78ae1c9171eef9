/**
 * Expressions: the part of the Common Expression Language (CEL) that documents
 * may use. Parsing is the library's; types are checked here over its tree. What runs is a plan's (core/plan/expression.ts),
 * the same in the engine, in the checker and in the code that is handed off.
 */
import { type ASTNode, parse } from "@marcbachmann/cel-js";
import { once } from "./once.ts";
import { type PlainNames, slipIn, textOf } from "./spokenExpression.ts";

export type { ASTNode } from "@marcbachmann/cel-js";

/** Type of a value: a simple type (dates are text) or `record:TYPE`. */
export type ValueType = "boolean" | "text" | "integer" | "number" | `record:${string}`;

/** A name in scope: a bag of fields, a value of its own, or both (a record). */
export interface ScopeName {
  type?: ValueType;
  fields?: Record<string, ValueType>;
}
export interface Scope {
  names: Record<string, ScopeName>;
  /** Fields of record types, for members of record values. */
  records: Record<string, Record<string, ValueType>>;
  /** What the facts that are choices can be. */
  choices?: Record<string, readonly string[]>;
}

export interface ExpressionError {
  message: string;
  /** Character offsets in the expression. */
  start: number;
  end: number;
}
export type Compiled = { ok: true; type: ValueType; ast: ASTNode; reads: Array<{ name: string; field?: string }> } | { ok: false; error: ExpressionError };

const compiledIn = (_: Scope) => new Map<string, Compiled>();

/** Parses and types an expression in a scope, once for each scope object. Errors carry the place in the text. Never throws. */
export function compile(source: string, scope: Scope): Compiled {
  const known = once(scope, compiledIn);
  const made = known.get(source) ?? compileAnew(source, scope);
  known.set(source, made);
  return made;
}

const trees = new Map<string, ASTNode>();
/** Trees that are kept at most. */
const MOST_TREES = 5000;

/** The tree of an expression: the same text comes again and again, in one document and from edit to edit. */
function treeOf(source: string): ASTNode {
  const known = trees.get(source);
  if (known) return known;
  const { ast } = parse(source);
  if (trees.size >= MOST_TREES) trees.clear();
  trees.set(source, ast);
  return ast;
}

function compileAnew(source: string, scope: Scope): Compiled {
  let ast: ASTNode;
  try {
    ast = treeOf(source);
  } catch (error) {
    return { ok: false, error: parseError(error, source) };
  }
  const reads: Array<{ name: string; field?: string }> = [];
  try {
    return { ok: true, type: typed(ast, scope, reads), ast, reads };
  } catch (error) {
    if (error instanceof IllTyped) return { ok: false, error: { message: error.message, start: error.start, end: error.end } };
    throw error;
  }
}

/** Whether a value of one type may stand where another is expected (an integer is also a number). */
export function fits(actual: ValueType, expected: ValueType): boolean {
  return actual === expected || (actual === "integer" && expected === "number");
}

/** The type of values of a parameter or field; a name that is no simple type is a record type. */
export function valueType(typeName: string): ValueType {
  switch (typeName) {
    case "text":
    case "date":
      return "text";
    case "integer":
    case "number":
    case "boolean":
      return typeName;
    default:
      return `record:${typeName}`;
  }
}

class IllTyped extends Error {
  readonly start: number;
  readonly end: number;
  constructor(node: ASTNode, message: string) {
    super(message);
    this.start = node.start;
    this.end = node.end;
  }
}

type Reads = Array<{ name: string; field?: string }>;

/** The type of a tree; what it reads is noted. Throws IllTyped. */
function typed(node: ASTNode, scope: Scope, reads: Reads): ValueType {
  switch (node.op) {
    case "value":
      return literal(node, node.args);
    case "id":
      return identifier(node, node.args, scope, reads);
    case ".":
      return member(node, node.args[0], node.args[1], scope, reads);
    case "call":
      return has(node, node.args[0], node.args[1], scope, reads);
    case "!_":
      return boolean(node.args, scope, reads);
    case "-_":
      return negative(node.args, scope, reads);
    case "&&":
    case "||":
      boolean(node.args[0], scope, reads);
      return boolean(node.args[1], scope, reads);
    case "?:":
      boolean(node.args[0], scope, reads);
      return conditional(node, typed(node.args[1], scope, reads), typed(node.args[2], scope, reads));
    case "==":
    case "!=":
      return equality(node, typed(node.args[0], scope, reads), typed(node.args[1], scope, reads));
    case "<":
    case "<=":
    case ">":
    case ">=":
      return comparison(node, typed(node.args[0], scope, reads), typed(node.args[1], scope, reads));
    case "+":
      return sum(node, typed(node.args[0], scope, reads), typed(node.args[1], scope, reads));
    default:
      throw new IllTyped(node, `"${node.op}" is not part of expressions here; there are literals, == != < <= > >= && || !, has(), members, + and ? :`);
  }
}

function literal(node: ASTNode, value: unknown): ValueType {
  switch (typeof value) {
    case "boolean":
      return "boolean";
    case "string":
      return "text";
    case "number":
      return "number";
    case "bigint":
      return "integer";
    default:
      throw new IllTyped(node, "only text, numbers, true and false can stand here");
  }
}

function identifier(node: ASTNode, name: string, scope: Scope, reads: Reads): ValueType {
  const known = named(node, name, scope);
  if (!known.type)
    throw new IllTyped(node, `"${name}" is not a value by itself; name one of its members: ${Object.keys(known.fields ?? {}).join(", ") || "it has none"}`);
  reads.push({ name });
  return known.type;
}

function named(node: ASTNode, name: string, scope: Scope): ScopeName {
  const known = Object.hasOwn(scope.names, name) ? scope.names[name] : undefined;
  if (!known) throw new IllTyped(node, `there is no "${name}" here; ${meant(name, scope)}`);
  return known;
}

/** What somebody who wrote a name that is not in scope may have meant. */
function meant(name: string, scope: Scope): string {
  const owner = ["param", "item", "fact", "field"].find((one) => Object.hasOwn(scope.names[one]?.fields ?? {}, name));
  if (owner) return `write ${owner}.${name}`;
  if (Object.values(scope.choices ?? {}).some((values) => values.includes(name))) return `text stands in quotes: ${textOf(name)}`;
  return `there ${namesIn(Object.keys(scope.names))}, and text stands in quotes`;
}

/** What plain words can stand for in a scope. */
export function plainNames({ names, choices = {} }: Scope): PlainNames {
  return {
    roots: new Set(Object.keys(names)),
    facts: new Map(Object.keys(names.fact?.fields ?? {}).map((id) => [id, Object.hasOwn(choices, id) ? choices[id] : undefined])),
    params: new Set(Object.keys(names.param?.fields ?? {})),
    row: new Set(Object.keys(names.item?.fields ?? {})),
  };
}

function member(node: ASTNode, object: ASTNode, field: string, scope: Scope, reads: Reads): ValueType {
  if (object.op === "id") {
    const name = object.args;
    const known = named(object, name, scope);
    const type = known.fields && Object.hasOwn(known.fields, field) ? known.fields[field] : undefined;
    if (!type) throw new IllTyped(node, `"${name}" has no "${field}"; it has ${Object.keys(known.fields ?? {}).join(", ") || "no members"}`);
    reads.push({ name, field });
    return type;
  }
  const whole = typed(object, scope, reads);
  const fields = whole.startsWith("record:") ? scope.records[whole.slice(7)] : undefined;
  const type = fields && Object.hasOwn(fields, field) ? fields[field] : undefined;
  if (!type) throw new IllTyped(node, `a value of type ${typeText(whole)} has no "${field}"${fields ? `; it has ${Object.keys(fields).join(", ")}` : ""}`);
  return type;
}

function has(node: ASTNode, name: string, args: ASTNode[], scope: Scope, reads: Reads): ValueType {
  const [only] = args;
  if (name !== "has" || args.length !== 1 || only?.op !== ".") throw new IllTyped(node, `the only call is has(x.member), with one member`);
  typed(only, scope, reads);
  return "boolean";
}

function boolean(node: ASTNode, scope: Scope, reads: Reads): ValueType {
  const type = typed(node, scope, reads);
  if (type !== "boolean") throw new IllTyped(node, `a condition is expected, not ${typeText(type)}`);
  return type;
}

function negative(node: ASTNode, scope: Scope, reads: Reads): ValueType {
  const type = typed(node, scope, reads);
  if (type !== "integer" && type !== "number") throw new IllTyped(node, `only numbers have a sign, not ${typeText(type)}`);
  return type;
}

function conditional(node: ASTNode, yes: ValueType, no: ValueType): ValueType {
  const type = fits(yes, no) ? no : fits(no, yes) ? yes : undefined;
  if (!type) throw new IllTyped(node, `both sides of ? : must be of one type, not ${typeText(yes)} and ${typeText(no)}`);
  return type;
}

function equality(node: ASTNode, left: ValueType, right: ValueType): ValueType {
  if (!fits(left, right) && !fits(right, left)) throw new IllTyped(node, `${typeText(left)} can not be compared with ${typeText(right)}`);
  return "boolean";
}

function comparison(node: ASTNode, left: ValueType, right: ValueType): ValueType {
  const comparable = left !== "boolean" && !left.startsWith("record:");
  if (!comparable || (!fits(left, right) && !fits(right, left)))
    throw new IllTyped(node, `${typeText(left)} and ${typeText(right)} have no order between them`);
  return "boolean";
}

function sum(node: ASTNode, left: ValueType, right: ValueType): ValueType {
  const type = left === "text" && right === "text" ? "text" : numeric(left, right);
  if (!type) throw new IllTyped(node, `${typeText(left)} and ${typeText(right)} can not be added; + joins two texts or two numbers`);
  return type;
}

function numeric(a: ValueType, b: ValueType): ValueType | undefined {
  if (!fits(a, "number") || !fits(b, "number")) return undefined;
  return a === "integer" && b === "integer" ? "integer" : "number";
}

function typeText(type: ValueType): string {
  return type.startsWith("record:")
    ? `a ${type.slice(7)}`
    : type === "integer"
      ? "a whole number"
      : type === "boolean"
        ? "true or false"
        : type === "number"
          ? "a number"
          : "text";
}

function namesIn(names: string[]): string {
  return names.length > 0 ? `are ${names.join(", ")}` : "are no names";
}

function parseError(error: unknown, source: string): ExpressionError {
  const slip = slipIn(source);
  if (slip) return slip;
  const found = error as { summary?: string; message?: string; range?: { start: number; end: number } };
  const message = (found.summary ?? found.message ?? "cannot be read").split("\n")[0] ?? "";
  return { message: message.replace("EOF", "the end"), start: found.range?.start ?? 0, end: found.range?.end ?? source.length };
}
