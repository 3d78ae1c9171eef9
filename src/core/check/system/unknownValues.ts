/** The value of expressions as far as it is known; what is not known is asked of the chooser. Undefined where there is none for certain. */

import { lookup } from "../../model/lookup.ts";
import type { Json, Tree } from "../../plan/data.ts";
import { operate, type Values } from "../../plan/expression.ts";
import { FACT_QUESTION, OUTSIDE_QUESTION, valuesOf } from "./chooser.ts";
import type { Abstraction } from "./types.ts";

const unknown = Symbol("unknown");
type Known = Json | undefined | typeof unknown;

export function truth(abstraction: Abstraction, tree: Tree, values: Values): boolean {
  return decided(abstraction, tree, values) === true;
}

/** Whether a condition holds; undefined where it has no value. */
function decided(abstraction: Abstraction, tree: Tree, values: Values): boolean | undefined {
  const value = evaluate(abstraction, tree, values);
  return value === unknown ? ask(abstraction, tree, values, [true, false]) === true : value === undefined ? undefined : value === true;
}

export function valueForFact(abstraction: Abstraction, factId: string, tree: Tree, values: Values): Json | undefined {
  const value = evaluate(abstraction, tree, values);
  if (value !== unknown) return value;
  const fact = lookup(abstraction.project).facts.get(factId);
  return ask(abstraction, tree, values, valuesOf(fact));
}

/** The value of an expression as far as it is known; conditions within it are decided by the chooser where they are not. */
function evaluate(abstraction: Abstraction, tree: Tree, values: Values): Known {
  switch (tree[0]) {
    case "value":
      return tree[1];
    case "name":
      return tree[1] === "width" ? values.width : orNothing(abstraction, tree, values);
    case "member":
      return tree[1][0] === "name" && tree[1][1] === "fact" ? factValue(abstraction, tree[2], values) : orNothing(abstraction, tree, values);
    case "!": {
      const holds = decided(abstraction, tree[1], values);
      return holds === undefined ? undefined : !holds;
    }
    case "&&":
      return both(abstraction, tree[1], tree[2], values, false);
    case "||":
      return both(abstraction, tree[1], tree[2], values, true);
    case "?:": {
      const test = decided(abstraction, tree[1], values);
      return test === undefined ? undefined : evaluate(abstraction, test ? tree[2] : tree[3], values);
    }
    case "has":
      return evaluate(abstraction, tree[1], values) === undefined ? false : unknown;
    case "negative":
      return evaluate(abstraction, tree[1], values) === undefined ? undefined : unknown;
    default: {
      const [operator, left, right] = tree;
      const [a, b] = [evaluate(abstraction, left, values), evaluate(abstraction, right, values)];
      if (a === undefined || b === undefined) return undefined;
      if (a !== unknown && b !== unknown) return operate(operator, a as Json, b as Json);
      if (operator !== "==" && operator !== "!=") return unknown;
      const same = abstraction.chooser.choose(`${text(left)} == ${text(right)} on ${screenOf(values)}`, [true, false]) === true;
      return same === (operator === "==");
    }
  }
}

/** And (`decides` false) or or (`decides` true): one side that decides makes up for another that has no value. */
function both(abstraction: Abstraction, left: Tree, right: Tree, values: Values, decides: boolean): boolean | undefined {
  const a = decided(abstraction, left, values);
  if (a === decides) return decides;
  const b = decided(abstraction, right, values);
  if (b === decides) return decides;
  return a === undefined || b === undefined ? undefined : !decides;
}

/** Not known, or for certain nothing: a parameter that is never handed over. */
function orNothing({ valued }: Abstraction, tree: Tree, values: Values): typeof unknown | undefined {
  return valued.mayBe(tree, values.screen, values.param) ? unknown : undefined;
}

function factValue(abstraction: Abstraction, id: string, values: Values): Known {
  const facts = values.fact;
  if (Object.hasOwn(facts, id)) return facts[id] as Json;
  const fact = lookup(abstraction.original).facts.get(id);
  if (!fact) return unknown;
  const options = valuesOf(fact);
  if (fact.source === "outside") return abstraction.chooser.choose(`${OUTSIDE_QUESTION}${id}`, options);
  const { known, version } = abstraction.assigned.get(id) ?? { known: undefined, version: 0 };
  return known ?? abstraction.chooser.choose(`${FACT_QUESTION}${id} ${version}`, options);
}

function ask(abstraction: Abstraction, tree: Tree, values: Values, options: readonly Json[]): Json {
  return abstraction.chooser.choose(`${text(tree)} on ${screenOf(values)}`, options);
}

/** A tree as the name of a question: the same for the same tree. */
function text(tree: Tree): string {
  return JSON.stringify(tree);
}

function screenOf(values: Values): string {
  return String(values.screen ?? "");
}
