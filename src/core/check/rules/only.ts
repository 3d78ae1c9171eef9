import { conditionOf } from "../../insight/rules/watch.ts";
import { once } from "../../model/once.ts";
import type { Rule } from "../../model/schema.ts";
import { expressionOf } from "../../plan/expression.ts";
import { treeOf } from "../../plan/lower/trees.ts";
import { arriveFiring } from "../../semantics/reach.ts";
import type { State } from "../../semantics/types.ts";
import { type Choice, factAsked, isImposed, OUTSIDE_QUESTION } from "../system/chooser.ts";
import type { Edge } from "../system/exploration.ts";
import { factsKey } from "../system/stateKey.ts";
import { ANEW, EVENT, REVEAL, type RuleGraph } from "./graph.ts";

type OnlyRule = Extract<Rule, { kind: "only" }>;

/** Where a rule "only" may be broken. */
export interface Only {
  /** States in which its condition may hold and something else shows, in the order of the search. */
  at: number[];
  /** Those among them in which it holds whatever the facts are that are not followed. */
  sure: ReadonlySet<number>;
  /** The facts asked for that are not followed. */
  rests: ReadonlySet<string>;
  /** States in which the condition may hold. */
  holds: number[];
}

interface Verdict {
  /** How the unknown turns out where the condition holds; none where it can not. */
  held: ReadonlyArray<readonly Choice[]>;
  sure: boolean;
}

/** Finds where a rule "only" may be broken. Facts from outside may have any value, except for those with which an arrive leg leads on from the screen. */
export function onlyOf(graph: RuleGraph, rule: OnlyRule): Only {
  const { exploration, shown } = graph;
  const { abstraction, nodes } = exploration;
  const compiled = conditionOf(abstraction.original, rule);
  const out = { at: [] as number[], sure: new Set<number>(), rests: new Set<string>(), holds: [] as number[] };
  if (!compiled.ok) return out;
  const condition = expressionOf(treeOf(compiled.ast));
  const seen = new Set(rule.see);
  const { app, chooser } = abstraction;
  const ask = (state: State, leadsOn: boolean): Verdict => {
    abstraction.assigned = new Map();
    const ways = chooser.each(
      () => (!leadsOn || arriveFiring(app, state) === undefined) && app.evaluator.holds(condition, { fact: state.facts, width: exploration.width }),
    );
    for (const { choices } of ways) for (const choice of choices) if (factAsked(choice) !== undefined) out.rests.add(factAsked(choice) as string);
    const held = ways.filter(({ result }) => result);
    return { held: held.map(({ choices }) => choices), sure: held.some(({ choices }) => !choices.some((choice) => isImposed(choice))) };
  };
  const byFacts = new Map<string, Verdict>();
  nodes.forEach(({ state, screen, pending }, i) => {
    if (pending) return;
    const leads = (app.plan.from.get(screen)?.arrive.length ?? 0) > 0;
    const key = factsKey(state.facts);
    const known = byFacts.get(key) ?? ask(state, false);
    byFacts.set(key, known);
    if (known.held.length === 0) return;
    const here = leads ? ask(state, true) : known;
    // Where it came to light beneath what closed, its arrive legs have not been asked: then all values count that the event allows.
    const mayCome = here.held.length > 0 || [...(intoOf(graph)[i] ?? [])].some(({ choices }) => known.held.some((held) => goTogether(held, choices)));
    if (!mayCome) return;
    const verdict = here.held.length > 0 ? here : { ...known, sure: false };
    out.holds.push(i);
    if (shown[i]?.some((id) => seen.has(id))) return;
    out.at.push(i);
    if (verdict.sure) out.sure.add(i);
  });
  return out;
}

/** Whether facts from outside are the same in two answers, as far as both ask for them. */
function goTogether(one: readonly Choice[], other: readonly Choice[]): boolean {
  const outside = one.filter(({ question }) => question.startsWith(OUTSIDE_QUESTION));
  return outside.every(({ question, answer }) => other.every((choice) => choice.question !== question || choice.answer === answer));
}

/** By state the events that lead to it; for what is uncovered, those that bring it to light. */
function intoOf(graph: RuleGraph): ReadonlyArray<ReadonlySet<Edge>> {
  return once(graph, makeInto);
}

function makeInto({ size, states, first, to, kind, edges, launches }: RuleGraph): Array<Set<Edge>> {
  const into = Array.from({ length: states }, () => new Set<Edge>());
  for (const { to: at, edge } of launches) into[at]?.add(edge);
  const reveals: Array<[from: number, to: number]> = [];
  for (let vertex = 0; vertex < size; vertex++)
    for (let step = first[vertex] as number; step < (first[vertex + 1] as number); step++) {
      const edge = edges[step];
      if (edge && (kind[step] === EVENT || kind[step] === ANEW)) into[to[step] as number]?.add(edge);
      else if (kind[step] === REVEAL) reveals.push([vertex, to[step] as number]);
    }
  // What is uncovered may itself rest on something hidden.
  for (let grew = true; grew; ) {
    grew = false;
    for (const [from, at] of reveals)
      for (const edge of into[from] ?? [])
        if (!into[at]?.has(edge)) {
          into[at]?.add(edge);
          grew = true;
        }
  }
  return into;
}
