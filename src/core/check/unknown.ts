/** The value of expressions as far as it is known; what is not known is asked of the chooser. */

import { lookup } from "../model/lookup.ts";
import type { Json, Tree } from "../plan/data.ts";
import { operate, type Values } from "../plan/expression.ts";
import { FACT_QUESTION, OUTSIDE_QUESTION } from "./chooser.ts";
import type { AbstractProject } from "./followed.ts";

const unknown = Symbol("unknown");
type Known = Json | typeof unknown;

export function truth(abstract: AbstractProject, tree: Tree, values: Values): boolean {
  const value = evaluate(abstract, tree, values);
  return value === unknown ? ask(abstract, tree, values, [true, false]) === true : value === true;
}

export function valueForFact(abstract: AbstractProject, factId: string, tree: Tree, values: Values): Json {
  const value = evaluate(abstract, tree, values);
  if (value !== unknown) return value;
  const fact = lookup(abstract.project).facts.get(factId);
  return ask(abstract, tree, values, fact?.type === "choice" ? (fact.values ?? []) : [true, false]);
}

/** The value of an expression as far as it is known; conditions within it are decided by the chooser where they are not. */
function evaluate(abstract: AbstractProject, tree: Tree, values: Values): Known {
  switch (tree[0]) {
    case "value":
      return tree[1];
    case "name":
      return tree[1] === "width" ? values.width : unknown;
    case "member":
      return tree[1][0] === "name" && tree[1][1] === "fact" ? factValue(abstract, tree[2], values) : unknown;
    case "!":
      return !truth(abstract, tree[1], values);
    case "&&":
      return truth(abstract, tree[1], values) && truth(abstract, tree[2], values);
    case "||":
      return truth(abstract, tree[1], values) || truth(abstract, tree[2], values);
    case "?:":
      return evaluate(abstract, truth(abstract, tree[1], values) ? tree[2] : tree[3], values);
    case "has":
    case "negative":
      return unknown;
    default: {
      const [operator, left, right] = tree;
      const [a, b] = [evaluate(abstract, left, values), evaluate(abstract, right, values)];
      if (a !== unknown && b !== unknown) return operate(operator, a as Json, b as Json);
      if (operator !== "==" && operator !== "!=") return unknown;
      const same = abstract.chooser.choose(`${text(left)} == ${text(right)} on ${screenOf(values)}`, [true, false]) === true;
      return same === (operator === "==");
    }
  }
}

function factValue(abstract: AbstractProject, id: string, values: Values): Known {
  const facts = values.fact;
  if (Object.hasOwn(facts, id)) return facts[id] as Json;
  const fact = lookup(abstract.original).facts.get(id);
  if (!fact) return unknown;
  const options: readonly Json[] = fact.type === "boolean" ? [true, false] : (fact.values ?? []);
  if (fact.source === "outside") return abstract.chooser.choose(`${OUTSIDE_QUESTION}${id}`, options);
  const { known, version } = abstract.assigned.get(id) ?? { known: undefined, version: 0 };
  return known ?? abstract.chooser.choose(`${FACT_QUESTION}${id} ${version}`, options);
}

function ask(abstract: AbstractProject, tree: Tree, values: Values, options: readonly Json[]): Json {
  return abstract.chooser.choose(`${text(tree)} on ${screenOf(values)}`, options);
}

/** A tree as the name of a question: the same for the same tree. */
function text(tree: Tree): string {
  return JSON.stringify(tree);
}

function screenOf(values: Values): string {
  return String(values.screen ?? "");
}
