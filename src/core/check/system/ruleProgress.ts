/** Rules that are followed in the states of a search, as facts that nothing in the app asks for. */

import { meets, placesShown } from "../../insight/rules/moment.ts";
import { advanced, askedBy, begun, type Progress } from "../../insight/rules/watch.ts";
import { lookup } from "../../model/lookup.ts";
import { once } from "../../model/once.ts";
import type { RunRule } from "../../model/rules.ts";
import type { Project } from "../../model/schema.ts";
import type { Node, State } from "../../semantics/types.ts";
import type { Edge } from "./exploration.ts";
import { isHidden, pendingIn } from "./hiding.ts";
import { PROGRESS, ruleFollowed, ruleIn } from "./precision.ts";
import type { Abstraction } from "./types.ts";

/** The rules that a precision follows, which look at runs. */
export function rulesFollowed(project: Project, follows: ReadonlySet<string>): RunRule[] {
  const ids = new Set([...follows].flatMap((name) => ruleIn(name) ?? []));
  return ids.size === 0 ? NONE : (project.rules ?? []).filter((rule): rule is RunRule => ids.has(rule.id) && (rule.kind === "never" || rule.kind === "first"));
}

const NONE: RunRule[] = [];

/** Values that stand for how far a rule has come: from here on with what was met on the way to what has not been said yet to show. */
const SINCE = 2;
const EACH = 8;

/** The state with how far the rules have come that are followed, after a step from another. */
export function withProgress(abstraction: Abstraction, before: State | undefined, edge: Pick<Edge, "fired" | "around" | "event" | "way">, state: State): State {
  if (abstraction.rules.length === 0) return state;
  const restarts = before === undefined || edge.way === "restart";
  const entrance = edge.event?.do === "enter" ? edge.event.entrance : undefined;
  const moment = { places: new Set(edge.around), legs: edge.fired, entrance };
  return withEach(abstraction, state, (rule) => {
    const was = Number(before?.facts[ruleFollowed(rule.id)] ?? begun(rule));
    const bits = askedBy(rule).reduce<number>((sum, what, i) => sum | (meets(moment, what) ? 1 << i : 0), 0);
    return { at: restarts ? begun(rule) : (was as Progress), bits };
  });
}

/** The same where it has been said what shows. */
export function withRevealed(abstraction: Abstraction, state: State): State {
  if (abstraction.rules.length === 0) return state;
  return withEach(abstraction, state, (rule) => {
    const since = Number(state.facts[ruleFollowed(rule.id)] ?? SINCE) - SINCE;
    return { at: Math.floor(since / EACH) as Progress, bits: since % EACH };
  });
}

function withEach(abstraction: Abstraction, state: State, of: (rule: RunRule) => { at: Progress; bits: number }): State {
  const pending = pendingIn(abstraction.app, state) !== undefined;
  const places = pending ? new Set<string>() : new Set(placesShown(state));
  const values = abstraction.rules.map((rule): [string, number] => {
    const { at, bits } = of(rule);
    if (pending) return [ruleFollowed(rule.id), SINCE + at * EACH + bits];
    const [bad, begins, ends] = askedBy(rule).map((what, i) => (bits & (1 << i)) !== 0 || meets({ places, legs: [], entrance: undefined }, what));
    const next = advanced(rule, at, { bad: bad === true, begins: begins === true, ends: ends === true });
    // A run that has broken the rule goes on as if it had not: that it broke is seen by the step.
    return [ruleFollowed(rule.id), next === "broken" ? at : next];
  });
  return { ...state, facts: once(state.facts, withValues)(values) };
}

/** Facts with further values, the same object for the same values: so that what is worked out for it is kept. */
const withValues = (facts: State["facts"]) => {
  const known = new Map<string, State["facts"]>();
  return (values: ReadonlyArray<readonly [string, number]>): State["facts"] => {
    const key = values.join();
    const made = known.get(key) ?? { ...facts, ...Object.fromEntries(values) };
    known.set(key, made);
    return made;
  };
};

/** How far the rules have come that are followed. */
export function rulesKey({ facts }: State): string {
  return Object.keys(facts)
    .flatMap((id) => (ruleIn(id) === undefined ? [] : [facts[id]]))
    .join();
}

/**
 * Whether something that is hidden may break a rule that is followed when it is uncovered. It is told apart by how far the rules had come when it was left;
 * what can break none is not, or each lane would multiply the states.
 */
export function mayBreak(abstraction: Abstraction, content: Node): boolean {
  if (abstraction.rules.length === 0) return false;
  if (abstraction.precision.follows.has(PROGRESS)) return true;
  const known = once(abstraction, breaking).get(content);
  if (known !== undefined) return known;
  const bad = once(abstraction, badPlaces);
  const found = isHidden(content) ? content.at.includes("#") : bad.has(content.at) || childrenOf(content).some((child) => mayBreak(abstraction, child));
  once(abstraction, breaking).set(content, found);
  return found;
}

const breaking = (_: Abstraction) => new WeakMap<Node, boolean>();

/** The places that must not be seen, or not yet, and those from which legs lead that must not be used. */
function badPlaces({ rules, original }: Abstraction): ReadonlySet<string> {
  const whats = rules.map((rule) => askedBy(rule)[0]);
  const { legs } = lookup(original);
  return new Set(whats.flatMap(({ places = [], legs: ids = [] }) => [...places, ...ids.flatMap((id) => legs.get(id)?.from ?? [])]));
}

function childrenOf(node: Node): readonly Node[] {
  return node.kind === "stack" ? node.items : node.kind === "shown" ? [] : Object.values(node.lanes);
}
