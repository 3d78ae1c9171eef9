/** How one rule fares in one search. */

import { placesShown } from "../../insight/rules/moment.ts";
import { fewestTaps } from "../../insight/rules/taps.ts";
import { advanced, begun, conditionOf, holdsIn, isOutside, metAt } from "../../insight/rules/watch.ts";
import { type Part, partsOf } from "../../model/rules.ts";
import type { NavEvent, Rule } from "../../model/schema.ts";
import type { State } from "../../semantics/types.ts";
import { concreteWays } from "../counterexample/concreteWays.ts";
import { nodesOf } from "../counterexample/directedSearch.ts";
import { endsWhere } from "../counterexample/replay.ts";
import { factAsked } from "../system/chooser.ts";
import type { Edge } from "../system/exploration.ts";
import { ruleFollowed } from "../system/precision.ts";
import { showsWhatWasLeft } from "../system/shortestWays.ts";
import { type RuleGraph, setBy } from "./graph.ts";
import { isMet, type MetOrNot } from "./isMet.ts";
import { onlyOf } from "./only.ts";
import { runsOf } from "./runs.ts";
import { breakingWalk, type Effort, goalAt, type RunGoal } from "./walk.ts";
import { withinOf } from "./within.ts";

/** What the search of one width tells of a rule. */
export type Verdict =
  | { is: "holds" }
  /** It holds because something that it speaks of never is. */
  | { is: "empty"; part: Part | "while" }
  /** A walk breaks it. */
  | { is: "broken"; walk: NavEvent[] }
  /** The search finds it broken, or empty, and no walk tells; by the names of what would have to be followed. `at` is a screen where it may break. */
  | { is: "unsure"; at: string | undefined; rests: ReadonlySet<string> };

/** How a rule fares in a search that is done. */
export function judge(graph: RuleGraph, rule: Rule, effort: Effort = "full"): Verdict {
  const found = broken(graph, rule, effort);
  if (found) return found;
  let rests: ReadonlySet<string> | undefined;
  for (const { part, met } of spokenOf(graph, rule)) {
    const is = met();
    if (is === "never") return { is: "empty", part };
    if (is === "unsure") rests = new Set();
  }
  return rests ? { is: "unsure", at: undefined, rests } : { is: "holds" };
}

/** What must happen for a rule to say anything. */
function spokenOf(graph: RuleGraph, rule: Rule): Array<{ part: Part | "while"; met: () => MetOrNot }> {
  const parts: readonly Part[] = ["see", "after", "before", "from"];
  if (rule.kind === "only") return [{ part: "while", met: () => everHolds(graph, rule) }];
  return partsOf(rule).flatMap(({ part, what }) => (parts.includes(part) ? [{ part, met: () => isMet(graph, what, part === "from") }] : []));
}

/** States to which a walk is tried at once. */
const TRIES = 8;

function everHolds(graph: RuleGraph, rule: Extract<Rule, { kind: "only" }>): MetOrNot {
  const { exploration } = graph;
  const project = exploration.abstraction.original;
  if (!conditionOf(project, rule).ok) return "never";
  const { holds } = onlyOf(graph, rule);
  if (nearest(graph, holds).some((node) => endsWhere(project, concreteWays(exploration).at(node), (state) => holdsIn(project, rule, state)))) return "met";
  return holds.length > 0 ? "unsure" : "never";
}

/** Whether a rule is broken, or may be; undefined where it holds. */
function broken(graph: RuleGraph, rule: Rule, effort: Effort): Verdict | undefined {
  switch (rule.kind) {
    case "never":
    case "first":
      return brokenRun(graph, rule, effort);
    case "only":
      return brokenState(graph, rule, effort);
    case "within":
      return tooFar(graph, rule, effort);
  }
}

function brokenRun(graph: RuleGraph, rule: Extract<Rule, { kind: "never" | "first" }>, effort: Effort): Verdict | undefined {
  const runs = runsOf(graph, rule);
  if (runs.breaksAfter === undefined) return undefined;
  const goal: RunGoal = {
    begun: begun(rule),
    after: (at, event, outcome) => advanced(rule, at, metAt(rule, event, outcome)),
    left: (state, at) => runs.left(state, at),
    leftBy: (vertex, at, step) => runs.leftBy(vertex, at, step),
  };
  const steps = runs.shortest();
  const edges = steps.flatMap((step) => graph.edges[step] ?? []);
  const walk = breakingWalk(graph, goal, effort, leftBefore(edges));
  if (walk) return { is: "broken", walk };
  const last = steps.at(-1);
  const set = edges.flatMap((edge) => (edge.outcome === "ignored" ? setBy(graph.exploration, edge) : []));
  const rests = new Set([...factsOf(edges), ...set, ...(edges.some(showsWhatWasLeft) ? [ruleFollowed(rule.id)] : [])]);
  return { is: "unsure", at: last === undefined ? undefined : graph.exploration.nodes[graph.to[last] as number]?.screen, rests };
}

function brokenState(graph: RuleGraph, rule: Extract<Rule, { kind: "only" }>, effort: Effort): Verdict | undefined {
  const { at, sure, rests } = onlyOf(graph, rule);
  if (at.length === 0) return undefined;
  const project = graph.exploration.abstraction.original;
  const isSo = (state: State) => isOutside(project, rule, state);
  const walk = breakingWalk(graph, goalAt(graph, at, isSo), effort, nearest(graph, at));
  if (walk) return { is: "broken", walk };
  const [first = 0] = sure.size > 0 ? sure : at;
  return { is: "unsure", at: graph.exploration.nodes[first]?.screen, rests: new Set([...rests, ...factsOnTheWay(graph, first)]) };
}

/** States that are looked at for the taps that it takes from there, for one rule in one search. */
const TAPPED = 800;

function tooFar(graph: RuleGraph, rule: Extract<Rule, { kind: "within" }>, effort: Effort): Verdict | undefined {
  const { exploration } = graph;
  const { unsure, least } = withinOf(graph, rule);
  if (unsure.length === 0) return undefined;
  const project = exploration.abstraction.original;
  const begins = rule.from && new Set(rule.from);
  const atLeast = (state: State) => {
    const nodes = nodesOf(exploration, state);
    return nodes.length === 0 ? 0 : Math.min(...nodes.map((node) => least[node] as number));
  };
  const mayBe = new Set(unsure);
  const budget = { left: TAPPED };
  const isSo = (state: State) => {
    if (!nodesOf(exploration, state).some((node) => mayBe.has(node))) return false;
    if (begins && !placesShown(state).some((id) => begins.has(id))) return false;
    const taps = fewestTaps(project, state, rule.to, rule.taps, atLeast, budget);
    return taps !== undefined && taps > rule.taps;
  };
  const walk = breakingWalk(graph, goalAt(graph, unsure, isSo), effort, nearest(graph, unsure));
  if (walk) return { is: "broken", walk };
  const [first = 0] = unsure;
  return { is: "unsure", at: exploration.nodes[first]?.screen, rests: new Set([...factsOnTheWay(graph, first), ...factsNear(graph, first, rule.taps)]) };
}

/** The states nearest to launch among some. */
function nearest({ exploration: { nodes } }: RuleGraph, among: readonly number[]): number[] {
  return [...among].sort((a, b) => (nodes[a]?.distance ?? 0) - (nodes[b]?.distance ?? 0)).slice(0, TRIES);
}

/** The states in which a lane, or what lies beneath, is as some steps show it that was left so by another way. */
function leftBefore(edges: readonly Edge[]): number[] {
  return [...new Set(edges.filter(showsWhatWasLeft).map(({ to }) => to))].reverse();
}

/** The facts that are not followed and are asked for by some steps. */
function factsOf(edges: readonly Edge[]): string[] {
  return edges.flatMap(({ choices }) => choices.flatMap((choice) => factAsked(choice) ?? []));
}

function factsOnTheWay({ exploration }: RuleGraph, node: number): string[] {
  return factsOf(concreteWays(exploration).steps(node));
}

/** The facts asked for by all steps that so many taps from a state may lead along. */
function factsNear({ first, to, edges, states }: RuleGraph, node: number, taps: number): string[] {
  const seen = new Set([node]);
  const facts = new Set<string>();
  let now = [node];
  for (let i = 0; i <= taps; i++) {
    const next: number[] = [];
    for (const at of now)
      for (let step = first[at] as number; step < (first[at + 1] as number); step++) {
        const edge = edges[step];
        const target = to[step] as number;
        if (!edge || target >= states) continue;
        for (const fact of factsOf([edge])) facts.add(fact);
        if (!seen.has(target)) next.push(target);
        seen.add(target);
      }
    now = next;
  }
  return [...facts];
}
