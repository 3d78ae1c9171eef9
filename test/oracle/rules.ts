/**
 * The plain reference for rules: every state one by one, and for rules about runs every state together with what the run has had so far.
 * Written apart from the checker, from what the rules mean; it shares with it only the engine.
 */

import { appOf } from "../../src/core/insight/app.ts";
import { evaluate } from "../../src/core/insight/evaluate.ts";
import type { NavEvent, Project, Rule, What, Width } from "../../src/core/model/schema.ts";
import { compileCondition, ruleScope } from "../../src/core/model/scope.ts";
import { currentScreen } from "../../src/core/semantics/state.ts";
import { arrive, beginning, step } from "../../src/core/semantics/step.ts";
import type { Node, Outcome, State } from "../../src/core/semantics/types.ts";

/** What comes of a rule: it holds, or it says nothing, or it is broken after so many events at the earliest, on one of some screens. */
export type Plain = { is: "holds" | "empty" } | { is: "broken"; after: number; screens: Set<string> };

interface Seen {
  places: Set<string>;
  legs: readonly string[];
  entrance: string | undefined;
}

interface Move {
  to: number;
  event: NavEvent;
  seen: Seen;
}

/** All that can happen in a project in one width; undefined where there are more states than that, or deeper stacks. */
export class World {
  readonly states: State[] = [];
  readonly moves: Move[][] = [];
  readonly first: Seen;
  whole = true;
  /** States that were not looked at further. */
  private readonly cut = new Set<number>();
  private readonly numbers = new Map<string, number>();

  constructor(
    readonly project: Project,
    width: Width,
    most: number,
    deepest: number,
    all: readonly NavEvent[],
  ) {
    const app = appOf(project);
    const launched = arrive(app, undefined, beginning(app, width));
    this.first = launched.outcome === "refused" ? { places: around(launched.state), legs: [], entrance: undefined } : seenAt(undefined, launched);
    this.number(launched.state);
    const events = all.filter((event) => event.do !== "width" && !(event.do === "enter" && !event.cold));
    for (let at = 0; at < this.states.length; at++) {
      const state = this.states[at] as State;
      this.moves.push([]);
      if (this.states.length > most || depth(state) > deepest) {
        this.whole = false;
        this.cut.add(at);
        continue;
      }
      for (const event of events) {
        const result = step(app, state, event);
        if (result.outcome === "moved") this.moves[at]?.push({ to: this.number(result.state), event, seen: seenAt(event, result) });
      }
    }
  }

  private number(state: State): number {
    const key = JSON.stringify(state);
    const known = this.numbers.get(key);
    if (known !== undefined) return known;
    this.numbers.set(key, this.states.length);
    this.states.push(state);
    return this.states.length - 1;
  }

  /** What comes of a rule. */
  judge(rule: Rule): Plain {
    const found = rule.kind === "only" ? this.outside(rule) : rule.kind === "within" ? this.away(rule) : this.run(rule);
    return found ?? { is: this.says(rule) ? "holds" : "empty" };
  }

  /** Whether a walk ends where so few taps do not lead to what a rule asks for; undefined where that is not known. */
  isAway(walk: readonly NavEvent[], rule: Extract<Rule, { kind: "within" }>): boolean | undefined {
    const app = appOf(this.project);
    const end = walk.reduce((state, event) => step(app, state, event).state, this.states[0] as State);
    const at = this.numbers.get(JSON.stringify(end));
    const reached = at === undefined ? undefined : this.reaches(at, rule.to, rule.taps);
    return reached === undefined ? undefined : !reached;
  }

  /** Whether what the rule speaks of ever happens. */
  private says(rule: Rule): boolean {
    const met = (what: What | undefined) =>
      what === undefined || has(this.first, what) || this.moves.some((moves) => moves.some(({ seen }) => has(seen, what)));
    switch (rule.kind) {
      case "never":
        return met(rule.see) && met(rule.after);
      case "first":
        return met(rule.before);
      case "only":
        return this.states.some((state) => this.holds(rule.while, state));
      case "within":
        return rule.from === undefined || this.states.some((state) => overlap(around(state), rule.from ?? []));
    }
  }

  /** The shortest runs at whose end something is so, by what has been so before. */
  private run(rule: Extract<Rule, { kind: "never" | "first" }>): Plain | undefined {
    // A memory of a run: whether it is forbidden now, or what is needed has been seen.
    const fresh = rule.kind === "never" && rule.after === undefined;
    const judge = (memory: boolean, seen: Seen): boolean | "broken" => {
      if (rule.kind === "first") {
        if (memory || has(seen, rule.needs)) return true;
        return has(seen, rule.before) ? "broken" : false;
      }
      const ended = rule.until !== undefined && has(seen, rule.until);
      if (memory && !ended && has(seen, rule.see)) return "broken";
      if (memory) return !ended;
      return !ended && rule.after !== undefined && has(seen, rule.after);
    };
    const screens = new Set<string>();
    const known = new Set<string>();
    let now: Array<{ at: number; memory: boolean }> = [];
    const begin = judge(fresh, this.first);
    if (begin === "broken") return { is: "broken", after: 0, screens: new Set([this.screen(0)]) };
    now.push({ at: 0, memory: begin });
    for (let after = 1; now.length > 0; after++) {
      const next: typeof now = [];
      for (const { at, memory } of now) {
        for (const { to, event, seen } of this.moves[at] ?? []) {
          const restarts = event.do === "launch" || (event.do === "enter" && event.cold === true);
          const then = judge(restarts ? fresh : memory, seen);
          if (then === "broken") screens.add(this.screen(to));
          else if (!known.has(`${to} ${then}`)) {
            known.add(`${to} ${then}`);
            next.push({ at: to, memory: then });
          }
        }
      }
      if (screens.size > 0) return { is: "broken", after, screens };
      now = next;
    }
    return undefined;
  }

  private outside(rule: Extract<Rule, { kind: "only" }>): Plain | undefined {
    return this.nearest((at) => this.holds(rule.while, this.states[at] as State) && !overlap(around(this.states[at] as State), rule.see));
  }

  private away(rule: Extract<Rule, { kind: "within" }>): Plain | undefined {
    return this.nearest((at) => {
      if (rule.from && !overlap(around(this.states[at] as State), rule.from)) return false;
      return this.reaches(at, rule.to, rule.taps) === false;
    });
  }

  /** Whether so few taps are enough; undefined where that may rest on states that were not looked at further. */
  private reaches(from: number, to: readonly string[], taps: number): boolean | undefined {
    const best = new Map([[from, 0]]);
    const waiting = [from];
    let unknown = false;
    if (overlap(around(this.states[from] as State), to)) return true;
    for (let at = waiting.shift(); at !== undefined; at = waiting.shift()) {
      if (this.cut.has(at)) unknown = true;
      const used = best.get(at) as number;
      for (const { to: next, event, seen } of this.moves[at] ?? []) {
        const cost = this.taps(event);
        if (cost === undefined || used + cost > taps) continue;
        if (overlap(seen.places, to)) return true;
        if ((best.get(next) ?? 99) <= used + cost) continue;
        best.set(next, used + cost);
        waiting.push(next);
      }
    }
    return unknown ? undefined : false;
  }

  private taps(event: NavEvent): number | undefined {
    if (event.do === "leg") return this.project.legs.find(({ id }) => id === event.leg)?.on.kind === "after" ? 0 : 1;
    if (event.do === "fact") return 0;
    if (event.do === "close") return event.via === "back" ? undefined : 1;
    return ["tab", "pick", "lead"].includes(event.do) ? 1 : undefined;
  }

  /** The nearest states of which something is so. */
  private nearest(is: (at: number) => boolean): Plain | undefined {
    let now = [0];
    const known = new Set(now);
    for (let after = 0; now.length > 0; after++) {
      const found = now.filter(is);
      if (found.length > 0) return { is: "broken", after, screens: new Set(found.map((at) => this.screen(at))) };
      const next: number[] = [];
      for (const at of now)
        for (const { to } of this.moves[at] ?? [])
          if (!known.has(to)) {
            known.add(to);
            next.push(to);
          }
      now = next;
    }
    return undefined;
  }

  private holds(source: string, { facts, width }: State): boolean {
    return evaluate(compileCondition(source, ruleScope(this.project)), { fact: facts, width }) === true;
  }

  private screen(at: number): string {
    return currentScreen(this.states[at] as State).at;
  }
}

function seenAt(event: NavEvent | undefined, { state, log }: Outcome): Seen {
  return {
    places: new Set([state, ...log.passed].flatMap((one) => [...around(one)])),
    legs: log.fired,
    entrance: event?.do === "enter" ? event.entrance : undefined,
  };
}

/** The screen that a state shows and what is around it there. */
function around(state: State): Set<string> {
  const top = state.layers.at(-1);
  const out = new Set<string>(top ? [top.at] : []);
  let node: Node | undefined = top?.content ?? state.base;
  while (node) {
    out.add(node.at);
    node = node.kind === "stack" ? node.items.at(-1) : node.kind === "shown" ? undefined : node.lanes[node.active];
  }
  return out;
}

function has({ places, legs, entrance }: Seen, what: What): boolean {
  return overlap(places, what.places ?? []) || overlap(new Set(legs), what.legs ?? []) || (what.entrances ?? []).some((id) => id === entrance);
}

const overlap = (set: ReadonlySet<string>, ids: readonly string[]) => ids.some((id) => set.has(id));

function depth({ base, layers }: State): number {
  const of = (node: Node): number =>
    node.kind === "stack" ? Math.max(node.items.length, ...node.items.map(of)) : node.kind === "shown" ? 0 : Math.max(0, ...Object.values(node.lanes).map(of));
  return Math.max(of(base), ...layers.map(({ content }) => of(content)));
}
