/** How the parts of expressions are written in a language: what stands for certain and what may not be there are told apart by none of these. */

import type { ASTNode } from "../../model/expression.ts";
import type { Json } from "../../model/schema.ts";

export interface Language {
  literal: (value: Json) => string;
  /** A fact, which always has a value. */
  fact: (id: string) => string;
  /** A bag of values by its name: param, item, field, link, next, prev. */
  bag: (name: string) => string;
  width: string;
  member: (value: string, name: string) => string;
  isThere: (value: string) => string;
  /** A function without arguments that gives a value. */
  later: (value: string) => string;
}

/** An expression by calls of the runtime's functions: and, or, not, either, equal, ordered, plus, minus. */
export function written(ast: ASTNode, language: Language): string {
  const part = (inner: ASTNode) => written(inner, language);
  switch (ast.op) {
    case "value":
      return language.literal(typeof ast.args === "bigint" ? Number(ast.args) : (ast.args as Json));
    case "id":
      return ast.args === "width" ? language.width : language.bag(ast.args);
    case ".": {
      const [object, field] = ast.args;
      return object.op === "id" && object.args === "fact" ? language.fact(field) : language.member(part(object), field);
    }
    case "call":
      return language.isThere(part(ast.args[1][0] as ASTNode));
    case "!_":
      return `not(${part(ast.args)})`;
    case "-_":
      return `minus(${part(ast.args)})`;
    case "&&":
      return `and(${part(ast.args[0])}, ${language.later(part(ast.args[1]))})`;
    case "||":
      return `or(${part(ast.args[0])}, ${language.later(part(ast.args[1]))})`;
    case "?:":
      return `either(${part(ast.args[0])}, ${language.later(part(ast.args[1]))}, ${language.later(part(ast.args[2]))})`;
    case "==":
      return `equal(${part(ast.args[0])}, ${part(ast.args[1])})`;
    case "!=":
      return `not(equal(${part(ast.args[0])}, ${part(ast.args[1])}))`;
    case "<":
    case "<=":
    case ">":
    case ">=":
      return `ordered("${ast.op}", ${part(ast.args[0])}, ${part(ast.args[1])})`;
    case "+":
      return `plus(${part(ast.args[0])}, ${part(ast.args[1])})`;
    default:
      throw new Error(`written: "${ast.op}" is not part of expressions; compile refuses it`);
  }
}

/** Entries in parts of at most so many, for languages that take no endless literals. */
export function chunks<T>(list: readonly T[], size: number): T[][] {
  const out: T[][] = [];
  for (let i = 0; i < list.length; i += size) out.push(list.slice(i, i + size));
  return out;
}
