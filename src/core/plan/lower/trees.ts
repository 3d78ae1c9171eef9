import type { ASTNode } from "../../model/expression.ts";
import type { Json, Tree } from "../data.ts";

/** The tree of a compiled expression. Throws on what `compile` refuses, which no caller hands over. */
export function treeOf(ast: ASTNode): Tree {
  switch (ast.op) {
    case "value":
      return ["value", typeof ast.args === "bigint" ? Number(ast.args) : (ast.args as Json)];
    case "id":
      return ["name", ast.args];
    case ".":
      return ["member", treeOf(ast.args[0]), ast.args[1]];
    case "call":
      return ["has", treeOf(ast.args[1][0] as ASTNode)];
    case "!_":
      return ["!", treeOf(ast.args)];
    case "-_":
      return ["negative", treeOf(ast.args)];
    case "?:":
      return ["?:", treeOf(ast.args[0]), treeOf(ast.args[1]), treeOf(ast.args[2])];
    case "&&":
    case "||":
    case "==":
    case "!=":
    case "<":
    case "<=":
    case ">":
    case ">=":
    case "+":
      return [ast.op, treeOf(ast.args[0]), treeOf(ast.args[1])];
    default:
      throw new Error(`treeOf: "${ast.op}" is not part of expressions; compile refuses it`);
  }
}
