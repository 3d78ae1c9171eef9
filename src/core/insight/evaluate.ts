import type { ASTNode, Compiled } from "../model/expression.ts";
import { once } from "../model/once.ts";
import type { Json } from "../plan/data.ts";
import { expressionOf, type Run, type Values } from "../plan/expression.ts";
import { treeOf } from "../plan/lower/trees.ts";

/** The value of an expression, as the engine would work it out; undefined where it is ill-typed, or a value that it needs is not there. */
export function evaluate(compiled: Compiled, values: Values): Json | undefined {
  return compiled.ok ? once(compiled.ast, runOf)(values) : undefined;
}

function runOf(ast: ASTNode): Run {
  return expressionOf(treeOf(ast)).run;
}
