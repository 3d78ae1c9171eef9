import type { ASTNode } from "../../model/expression.ts";

/** An expression as TypeScript over `v`: plain operators where all values are there for certain, else the functions of the runtime. */
export function expressionCode(ast: ASTNode): string {
  return `(${reads(ast) ? "v" : ""}) => ${written(ast).code}`;
}

/** Whether an expression reads anything. */
function reads(ast: ASTNode): boolean {
  if (ast.op === "id") return true;
  const parts: unknown[] = Array.isArray(ast.args) ? ast.args.flat() : [ast.args];
  return parts.some((part) => typeof part === "object" && part !== null && "op" in part && reads(part as ASTNode));
}

interface Written {
  code: string;
  /** It always has a value. */
  sure: boolean;
}

const sure = (code: string): Written => ({ code, sure: true });
const maybe = (code: string): Written => ({ code, sure: false });

function written(ast: ASTNode): Written {
  switch (ast.op) {
    case "value":
      return sure(typeof ast.args === "bigint" ? String(ast.args) : JSON.stringify(ast.args));
    case "id":
      return ast.args === "width" ? sure("v.width") : maybe(`v.${ast.args}`);
    case ".": {
      const [object, field] = ast.args;
      if (object.op === "id" && object.args === "fact") return sure(`v.fact.${field}`);
      return maybe(`member(${written(object).code}, ${JSON.stringify(field)})`);
    }
    case "call":
      return sure(`(${written(ast.args[1][0] as ASTNode).code} !== undefined)`);
    case "!_": {
      const inner = written(ast.args);
      return inner.sure ? sure(`!${inner.code}`) : maybe(`not(${inner.code})`);
    }
    case "-_": {
      const inner = written(ast.args);
      return inner.sure ? sure(`-${inner.code}`) : maybe(`minus(${inner.code})`);
    }
    case "&&":
    case "||": {
      const [a, b] = ast.args.map(written) as [Written, Written];
      return a.sure && b.sure ? sure(`(${a.code} ${ast.op} ${b.code})`) : maybe(`${ast.op === "&&" ? "and" : "or"}(${a.code}, () => ${b.code})`);
    }
    case "?:": {
      const [test, yes, no] = ast.args.map(written) as [Written, Written, Written];
      if (test.sure) return { code: `(${test.code} ? ${yes.code} : ${no.code})`, sure: yes.sure && no.sure };
      return maybe(`either(${test.code}, () => ${yes.code}, () => ${no.code})`);
    }
    case "==":
    case "!=": {
      const [a, b] = ast.args.map(written) as [Written, Written];
      if (a.sure && b.sure) return sure(`(${a.code} ${ast.op}= ${b.code})`);
      return maybe(ast.op === "==" ? `equal(${a.code}, ${b.code})` : `not(equal(${a.code}, ${b.code}))`);
    }
    case "<":
    case "<=":
    case ">":
    case ">=": {
      const [a, b] = ast.args.map(written) as [Written, Written];
      return maybe(`ordered("${ast.op}", ${a.code}, ${b.code})`);
    }
    case "+": {
      const [a, b] = ast.args.map(written) as [Written, Written];
      return maybe(`plus(${a.code}, ${b.code})`);
    }
    default:
      throw new Error(`expressionCode: "${ast.op}" is not part of expressions; compile refuses it`);
  }
}
