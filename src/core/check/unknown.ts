/** The value of expressions as far as it is known; what is not known is asked of the chooser. */

import { type ASTNode, sameValue, type Values } from "../model/expression.ts";
import { lookup } from "../model/lookup.ts";
import type { Json } from "../model/schema.ts";
import type { AbstractProject } from "./abstract.ts";
import { FACT_QUESTION, OUTSIDE_QUESTION } from "./chooser.ts";

const unknown = Symbol("unknown");
type Known = Json | typeof unknown;

export function truth(abstract: AbstractProject, ast: ASTNode, values: Values): boolean {
  const value = evaluate(abstract, ast, values);
  return value === unknown ? ask(abstract, ast, values, [true, false]) === true : value === true;
}

export function valueForFact(abstract: AbstractProject, factId: string, ast: ASTNode, values: Values): Json {
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
  if (!fact) return unknown;
  const options: readonly Json[] = fact.type === "boolean" ? [true, false] : (fact.values ?? []);
  if (fact.source === "outside") return abstract.chooser.choose(`${OUTSIDE_QUESTION}${id}`, options);
  const { known, version } = abstract.assigned.get(id) ?? { known: undefined, version: 0 };
  return known ?? abstract.chooser.choose(`${FACT_QUESTION}${id} ${version}`, options);
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
