import { once } from "../../model/once.ts";
import type { RunRule } from "../../model/rules.ts";
import type { NavEvent, Project, Rule, What, Width } from "../../model/schema.ts";
import { compileCondition, ruleScope } from "../../model/scope.ts";
import { arrive, beginning, step } from "../../semantics/step.ts";
import type { Outcome, State } from "../../semantics/types.ts";
import { appOf } from "../app.ts";
import { evaluate } from "../evaluate.ts";
import { meets, momentOf, placesShown, type Seen } from "./moment.ts";

/** How far a rule has come in a run: of a "never" whether it is forbidden now, of a "first" whether what is needed has been met. */
export type Progress = 0 | 1;

/** What of a rule that looks at moments is met at one: `see`, `after` and `until`, or `before` and `needs`. */
export interface Met {
  /** What must not be, or not yet. */
  bad: boolean;
  /** What begins it, or allows it. */
  begins: boolean;
  /** What ends it. */
  ends: boolean;
}

/** What must not be met, or not yet; what begins the rule, or allows it; what ends it. */
export function askedBy(rule: RunRule): [bad: What, begins: What | undefined, ends: What | undefined] {
  return rule.kind === "never" ? [rule.see, rule.after, rule.until] : [rule.before, rule.needs, undefined];
}

/** Where a rule stands before the first moment of a run. */
export function begun(rule: Rule): Progress {
  return rule.kind === "never" && !rule.after ? 1 : 0;
}

/**
 * Where a rule stands after one more moment, or that this one breaks it; the finite automata of absence and precedence (Dwyer, Avrunin and
 * Corbett 1999). Rules of the other kinds look at states, not at runs.
 */
export function advanced(rule: Rule, at: Progress, { bad, begins, ends }: Met): Progress | "broken" {
  switch (rule.kind) {
    case "never":
      if (at === 0) return begins && !ends ? 1 : 0;
      return ends ? 0 : bad ? "broken" : 1;
    case "first":
      if (at === 1 || begins) return 1;
      return bad ? "broken" : 0;
    default:
      return at;
  }
}

/** Whether an event begins a new run: a launch, or coming in from outside while the app does not run. */
export function beginsRun(event: NavEvent): boolean {
  return event.do === "launch" || (event.do === "enter" && event.cold === true);
}

/** What of a rule is met at the moment that an event has brought. */
export function metAt(rule: Rule, event: NavEvent | undefined, outcome: Seen): Met {
  if (rule.kind !== "never" && rule.kind !== "first") return { bad: false, begins: false, ends: false };
  const moment = momentOf(event, outcome);
  const [bad, begins, ends] = askedBy(rule).map((what) => meets(moment, what));
  return { bad: bad === true, begins: begins === true, ends: ends === true };
}

/** Whether an "only" is broken in a state: its condition holds, and the current screen is none of those that may be seen. */
export function isOutside(project: Project, rule: Extract<Rule, { kind: "only" }>, state: State): boolean {
  if (placesShown(state).some((id) => rule.see.includes(id))) return false;
  return holdsIn(project, rule, state);
}

/** Whether the condition of an "only" holds in a state; one that does not compile never does. */
export function holdsIn(project: Project, rule: Extract<Rule, { kind: "only" }>, { facts, width }: Pick<State, "facts" | "width">): boolean {
  return evaluate(conditionOf(project, rule), { fact: facts, width }) === true;
}

const conditions = (_: Project) => new Map<string, ReturnType<typeof compileCondition>>();

/** The condition of an "only", compiled. */
export function conditionOf(project: Project, rule: Extract<Rule, { kind: "only" }>): ReturnType<typeof compileCondition> {
  const known = once(project, conditions);
  const made = known.get(rule.while) ?? compileCondition(rule.while, ruleScope(project));
  known.set(rule.while, made);
  return made;
}

/** A run that is watched for rules, event by event. */
export class RuleWatch {
  private readonly at = new Map<string, Progress>();
  private readonly project: Project;
  private readonly rules: readonly Rule[];

  /** For all rules of the project but those of the kind "within", which no run breaks by itself. */
  constructor(project: Project) {
    this.project = project;
    this.rules = (project.rules ?? []).filter(({ kind }) => kind !== "within");
  }

  /** The rules that a moment breaks. A rule that is broken begins again, so that it is told each time. */
  moment(event: NavEvent | undefined, outcome: Seen, restarts = event === undefined || beginsRun(event)): Rule[] {
    return this.rules.filter((rule) => {
      if (rule.kind === "only") return isOutside(this.project, rule, outcome.state);
      const before = restarts ? begun(rule) : (this.at.get(rule.id) ?? begun(rule));
      const next = advanced(rule, before, metAt(rule, event, outcome));
      this.at.set(rule.id, next === "broken" ? before : next);
      return next === "broken";
    });
  }
}

/**
 * By number of a step the rules that it breaks, of steps from a state; the state itself is step 0. `begun` tells whether the state is that
 * of a launch.
 */
export function brokenAlong(project: Project, start: State, events: readonly NavEvent[], begun: boolean): Map<number, Rule[]> {
  const watch = new RuleWatch(project);
  const out = new Map<number, Rule[]>();
  const note = (broken: Rule[], step: number) => {
    if (broken.length > 0) out.set(step, broken);
  };
  const app = appOf(project);
  note(watch.moment(undefined, begun ? launched(project, start.width) : { state: start, log: { fired: [], passed: [] } }), 0);
  let state = start;
  events.forEach((event, i) => {
    const outcome = step(app, state, event);
    state = outcome.state;
    if (outcome.outcome === "moved") note(watch.moment(event, outcome), i + 1);
  });
  return out;
}

/** A launch with what happened in it, in a width; of arrive legs that lead round without end nothing counts. */
export function launched(project: Project, width?: Width): Pick<Outcome, "state" | "log"> {
  const app = appOf(project);
  const outcome = arrive(app, undefined, beginning(app, width));
  return outcome.outcome === "refused" ? { state: outcome.state, log: { ...outcome.log, fired: [], passed: [] } } : outcome;
}
