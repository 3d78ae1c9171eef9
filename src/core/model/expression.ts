/**
 * Expressions: the part of the Common Expression Language (CEL) that documents
 * may use. Parsing is the library's; typing and running are done here over its
 * tree, because the same tree is also read by the checker (which knows only some
 * values) and by the code writers, and because numbers stay the document's own.
 */
import { type ASTNode, parse } from "@marcbachmann/cel-js";
import type { Json } from "./schema.ts";

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
}

/** Values by name while running: `fact`, `param`, `item`, … and `width`. */
export type Values = Record<string, unknown>;
/** Runs an expression; undefined where some value it needs is not there. */
export type Run = (values: Values) => Json | undefined;

export interface ExpressionError {
  message: string;
  /** Character offsets in the expression. */
  start: number;
  end: number;
}
export type Compiled =
  | { ok: true; type: ValueType; run: Run; ast: ASTNode; reads: Array<{ name: string; field?: string }> }
  | { ok: false; error: ExpressionError };

const compiledIn = new WeakMap<Scope, Map<string, Compiled>>();

/** Parses and types an expression in a scope, once for each scope object. Errors carry the place in the text. Never throws. */
export function compile(source: string, scope: Scope): Compiled {
  const known = compiledIn.get(scope) ?? new Map<string, Compiled>();
  compiledIn.set(scope, known);
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
    const { type, run } = typed(ast, scope, reads);
    return { ok: true, type, run, ast, reads };
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

interface Typed {
  type: ValueType;
  run: Run;
}
type Reads = Array<{ name: string; field?: string }>;

function typed(node: ASTNode, scope: Scope, reads: Reads): Typed {
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
      return not(boolean(node.args, scope, reads));
    case "-_":
      return negative(node.args, scope, reads);
    case "&&":
      return both(boolean(node.args[0], scope, reads), boolean(node.args[1], scope, reads), false);
    case "||":
      return both(boolean(node.args[0], scope, reads), boolean(node.args[1], scope, reads), true);
    case "?:":
      return conditional(node, boolean(node.args[0], scope, reads), typed(node.args[1], scope, reads), typed(node.args[2], scope, reads));
    case "==":
    case "!=":
      return equality(node, typed(node.args[0], scope, reads), typed(node.args[1], scope, reads), node.op === "==");
    case "<":
    case "<=":
    case ">":
    case ">=":
      return comparison(node, node.op, typed(node.args[0], scope, reads), typed(node.args[1], scope, reads));
    case "+":
      return sum(node, typed(node.args[0], scope, reads), typed(node.args[1], scope, reads));
    default:
      throw new IllTyped(node, `"${node.op}" is not part of expressions here; there are literals, == != < <= > >= && || !, has(), members, + and ? :`);
  }
}

function literal(node: ASTNode, value: unknown): Typed {
  switch (typeof value) {
    case "boolean":
      return { type: "boolean", run: () => value };
    case "string":
      return { type: "text", run: () => value };
    case "number":
      return { type: "number", run: () => value };
    case "bigint": {
      const number = Number(value);
      return { type: "integer", run: () => number };
    }
    default:
      throw new IllTyped(node, "only text, numbers, true and false can stand here");
  }
}

function identifier(node: ASTNode, name: string, scope: Scope, reads: Reads): Typed {
  const known = scope.names[name];
  if (!known) throw new IllTyped(node, `there is no "${name}" here; there ${namesIn(Object.keys(scope.names))}`);
  if (!known.type)
    throw new IllTyped(node, `"${name}" is not a value by itself; name one of its members: ${Object.keys(known.fields ?? {}).join(", ") || "it has none"}`);
  reads.push({ name });
  return { type: known.type, run: (values) => values[name] as Json | undefined };
}

function member(node: ASTNode, object: ASTNode, field: string, scope: Scope, reads: Reads): Typed {
  if (object.op === "id") {
    const name = object.args;
    const known = scope.names[name];
    if (!known) throw new IllTyped(object, `there is no "${name}" here; there ${namesIn(Object.keys(scope.names))}`);
    const type = known.fields && Object.hasOwn(known.fields, field) ? known.fields[field] : undefined;
    if (!type) throw new IllTyped(node, `"${name}" has no "${field}"; it has ${Object.keys(known.fields ?? {}).join(", ") || "no members"}`);
    reads.push({ name, field });
    return { type, run: (values) => memberOf(values[name], field) };
  }
  const whole = typed(object, scope, reads);
  const fields = whole.type.startsWith("record:") ? scope.records[whole.type.slice(7)] : undefined;
  const type = fields && Object.hasOwn(fields, field) ? fields[field] : undefined;
  if (!type) throw new IllTyped(node, `a value of type ${typeText(whole.type)} has no "${field}"${fields ? `; it has ${Object.keys(fields).join(", ")}` : ""}`);
  return { type, run: (values) => memberOf(whole.run(values), field) };
}

function memberOf(object: unknown, field: string): Json | undefined {
  if (typeof object !== "object" || object === null || !Object.hasOwn(object, field)) return undefined;
  const value = (object as Record<string, Json>)[field];
  return value === null ? undefined : value;
}

function has(node: ASTNode, name: string, args: ASTNode[], scope: Scope, reads: Reads): Typed {
  const [only] = args;
  if (name !== "has" || args.length !== 1 || only?.op !== ".") throw new IllTyped(node, `the only call is has(x.member), with one member`);
  const { run } = typed(only, scope, reads);
  return { type: "boolean", run: (values) => run(values) !== undefined };
}

function boolean(node: ASTNode, scope: Scope, reads: Reads): Run {
  const result = typed(node, scope, reads);
  if (result.type !== "boolean") throw new IllTyped(node, `a condition is expected, not ${typeText(result.type)}`);
  return result.run;
}

function not(run: Run): Typed {
  return {
    type: "boolean",
    run: (values) => {
      const value = run(values);
      return value === undefined ? undefined : !value;
    },
  };
}

function negative(node: ASTNode, scope: Scope, reads: Reads): Typed {
  const { type, run } = typed(node, scope, reads);
  if (type !== "integer" && type !== "number") throw new IllTyped(node, `only numbers have a sign, not ${typeText(type)}`);
  return {
    type,
    run: (values) => {
      const value = run(values);
      return value === undefined ? undefined : -Number(value);
    },
  };
}

/** And (`decides` false) or or (`decides` true): as in CEL, one side that decides makes up for a missing other. */
function both(left: Run, right: Run, decides: boolean): Typed {
  return {
    type: "boolean",
    run: (values) => {
      const a = left(values);
      if (a === decides) return decides;
      const b = right(values);
      if (b === decides) return decides;
      return a === undefined || b === undefined ? undefined : !decides;
    },
  };
}

function conditional(node: ASTNode, test: Run, yes: Typed, no: Typed): Typed {
  const type = fits(yes.type, no.type) ? no.type : fits(no.type, yes.type) ? yes.type : undefined;
  if (!type) throw new IllTyped(node, `both sides of ? : must be of one type, not ${typeText(yes.type)} and ${typeText(no.type)}`);
  return {
    type,
    run: (values) => {
      const value = test(values);
      return value === undefined ? undefined : value ? yes.run(values) : no.run(values);
    },
  };
}

function equality(node: ASTNode, left: Typed, right: Typed, wanted: boolean): Typed {
  if (!fits(left.type, right.type) && !fits(right.type, left.type))
    throw new IllTyped(node, `${typeText(left.type)} can not be compared with ${typeText(right.type)}`);
  return {
    type: "boolean",
    run: (values) => {
      const a = left.run(values);
      const b = right.run(values);
      return a === undefined || b === undefined ? undefined : sameValue(a, b) === wanted;
    },
  };
}

function comparison(node: ASTNode, op: "<" | "<=" | ">" | ">=", left: Typed, right: Typed): Typed {
  const comparable = left.type !== "boolean" && !left.type.startsWith("record:");
  if (!comparable || (!fits(left.type, right.type) && !fits(right.type, left.type)))
    throw new IllTyped(node, `${typeText(left.type)} and ${typeText(right.type)} have no order between them`);
  return {
    type: "boolean",
    run: (values) => {
      const a = left.run(values) as number | undefined;
      const b = right.run(values) as number | undefined;
      if (a === undefined || b === undefined) return undefined;
      return op === "<" ? a < b : op === "<=" ? a <= b : op === ">" ? a > b : a >= b;
    },
  };
}

function sum(node: ASTNode, left: Typed, right: Typed): Typed {
  const type = left.type === "text" && right.type === "text" ? "text" : numeric(left.type, right.type);
  if (!type) throw new IllTyped(node, `${typeText(left.type)} and ${typeText(right.type)} can not be added; + joins two texts or two numbers`);
  return {
    type,
    run: (values) => {
      const a = left.run(values) as number | undefined;
      const b = right.run(values) as number | undefined;
      return a === undefined || b === undefined ? undefined : a + b;
    },
  };
}

function numeric(a: ValueType, b: ValueType): ValueType | undefined {
  if (!fits(a, "number") || !fits(b, "number")) return undefined;
  return a === "integer" && b === "integer" ? "integer" : "number";
}

/** Deep equality of JSON values. */
export function sameValue(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (typeof a !== "object" || typeof b !== "object" || a === null || b === null) return false;
  const keys = Object.keys(a);
  return keys.length === Object.keys(b).length && keys.every((key) => Object.hasOwn(b, key) && sameValue(a[key as never], b[key as never]));
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
  const found = error as { summary?: string; message?: string; range?: { start: number; end: number } };
  const message = (found.summary ?? found.message ?? "cannot be read").split("\n")[0] ?? "";
  return { message: message.replace("EOF", "the end"), start: found.range?.start ?? 0, end: found.range?.end ?? source.length };
}
