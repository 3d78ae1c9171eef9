import { sameValue } from "../model/json.ts";

export { sameValue } from "../model/json.ts";

import type { Args, Json, Tree, Width } from "./data.ts";

/** What an expression may read; what is not there is undefined. */
export interface Values {
  readonly fact: Args;
  readonly width: Width;
  readonly param?: Args | undefined;
  readonly item?: Args | undefined;
  readonly field?: Args | undefined;
  readonly link?: Args | undefined;
  readonly next?: Args | undefined;
  readonly prev?: Args | undefined;
  /** The id of the screen that it is asked on. No expression can name it, but whoever runs one may ask. */
  readonly screen?: string;
}

/** Works out an expression; undefined where a value that it needs is not there. Never throws. */
export type Run = (values: Values) => Json | undefined;

/** An expression ready to run, with its tree for those who know only some of its values. */
export interface Expression {
  readonly tree: Tree;
  readonly run: Run;
}

/** Makes an expression of a tree. The tree must have been type-checked. */
export function expressionOf(tree: Tree): Expression {
  return { tree, run: runOf(tree) };
}

function runOf(tree: Tree): Run {
  switch (tree[0]) {
    case "value": {
      const value = tree[1];
      return () => value;
    }
    case "name": {
      const name = tree[1] as keyof Values;
      return (values) => values[name] as Json | undefined;
    }
    case "member":
      return memberRun(tree[1], tree[2]);
    case "has": {
      const run = runOf(tree[1]);
      return (values) => run(values) !== undefined;
    }
    case "!": {
      const run = runOf(tree[1]);
      return (values) => {
        const value = run(values);
        return value === undefined ? undefined : !value;
      };
    }
    case "negative": {
      const run = runOf(tree[1]);
      return (values) => {
        const value = run(values);
        return value === undefined ? undefined : -Number(value);
      };
    }
    case "&&":
      return bothRun(runOf(tree[1]), runOf(tree[2]), false);
    case "||":
      return bothRun(runOf(tree[1]), runOf(tree[2]), true);
    case "?:": {
      const [test, yes, no] = [runOf(tree[1]), runOf(tree[2]), runOf(tree[3])];
      return (values) => {
        const value = test(values);
        return value === undefined ? undefined : value ? yes(values) : no(values);
      };
    }
    default: {
      const [operator, left, right] = tree;
      const [a, b] = [runOf(left), runOf(right)];
      return (values) => {
        const [x, y] = [a(values), b(values)];
        return x === undefined || y === undefined ? undefined : operate(operator, x, y);
      };
    }
  }
}

function memberRun(object: Tree, field: string): Run {
  if (object[0] === "name") {
    const name = object[1] as keyof Values;
    return (values) => memberOf(values[name], field);
  }
  const whole = runOf(object);
  return (values) => memberOf(whole(values), field);
}

function memberOf(object: unknown, field: string): Json | undefined {
  if (typeof object !== "object" || object === null || !Object.hasOwn(object, field)) return undefined;
  const value = (object as Record<string, Json>)[field];
  return value === null ? undefined : value;
}

/** And (`decides` false) or or (`decides` true): as in CEL, one side that decides makes up for another that is missing. */
function bothRun(left: Run, right: Run, decides: boolean): Run {
  return (values) => {
    const a = left(values);
    if (a === decides) return decides;
    const b = right(values);
    if (b === decides) return decides;
    return a === undefined || b === undefined ? undefined : !decides;
  };
}

/** What an operator with two sides makes of values that are there. */
export function operate(operator: "==" | "!=" | "<" | "<=" | ">" | ">=" | "+" | "&&" | "||", a: Json, b: Json): Json {
  switch (operator) {
    case "==":
      return sameValue(a, b);
    case "!=":
      return !sameValue(a, b);
    case "<":
      return (a as number) < (b as number);
    case "<=":
      return (a as number) <= (b as number);
    case ">":
      return (a as number) > (b as number);
    case ">=":
      return (a as number) >= (b as number);
    case "+":
      return (a as number) + (b as number);
    case "&&":
      return a === true && b === true;
    case "||":
      return a === true || b === true;
  }
}
