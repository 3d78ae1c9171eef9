/**
 * Rules that look at runs ("never", "first"): a rule is followed through the states of a search like a fact that it sets itself (the product of
 * the system with the automaton of the property, Vardi and Wolper 1986). Nothing in the app asks for it, so that the search need not be made
 * again for it; contexts are taken as they are known there.
 */

import { advanced, askedBy, begun, type Progress } from "../../insight/rules/watch.ts";
import type { RunRule } from "../../model/rules.ts";
import { ANEW, type Bits, bitsOf, EVENT, eventsOf, REVEAL, type RuleGraph } from "./graph.ts";

/** Numbers of one vertex: how far the rule has come (2), with what was met on the way to what has not been said yet to show (8). */
const EACH = 16;
const SINCE = 8;

/** How a rule fares in all runs of a search. */
export interface Runs {
  /** The fewest events by which some run breaks it; undefined where none does. */
  breaksAfter: number | undefined;
  /** The fewest events until it breaks, by state and progress; undefined where it never does. */
  left: (state: number, at: Progress) => number | undefined;
  /** The fewest events until it breaks by a step from there, and the step itself being made; undefined where that leads to no break. */
  leftBy: (state: number, at: Progress, step: number) => number | undefined;
  /** The steps of a shortest run that breaks it. */
  shortest: () => number[];
}

/** Follows a rule through all runs of a search. */
export function runsOf(graph: RuleGraph, rule: RunRule): Runs {
  return new Product(graph, rule);
}

const BROKEN = -1;

class Product implements Runs {
  private readonly bits: Bits;
  /** By number of what can be reached the events from a launch; -1 for what can not. */
  private readonly distance: Int32Array;
  private readonly reached: number[] = [];
  readonly breaksAfter: number | undefined;
  private back: Int32Array | undefined;

  constructor(
    private readonly graph: RuleGraph,
    private readonly rule: RunRule,
  ) {
    this.bits = bitsOf(graph, askedBy(rule));
    this.distance = new Int32Array(graph.size * EACH).fill(-1);
    this.breaksAfter = this.forwards();
  }

  private met(bits: number) {
    return { bad: (bits & 1) !== 0, begins: (bits & 2) !== 0, ends: (bits & 4) !== 0 };
  }

  /** Where a moment leads at which a state shows: its number, or that it breaks the rule. */
  private arrived(state: number, at: Progress, bits: number): number {
    if (this.graph.pending[state]) return state * EACH + at * SINCE + bits;
    const next = advanced(this.rule, at, this.met(bits | (this.bits.states[state] as number)));
    return next === "broken" ? BROKEN : state * EACH + next * SINCE;
  }

  /** Where a step leads from a number. */
  private after(number: number, step: number): number {
    const { kind, to, label } = this.graph;
    const target = to[step] as number;
    const bits = number % SINCE;
    const at = Math.floor((number % EACH) / SINCE) as Progress;
    switch (kind[step]) {
      case EVENT:
        return this.arrived(target, at, this.bits.labels[label[step] as number] as number);
      case REVEAL:
        return this.arrived(target, at, bits);
      case ANEW:
        return this.arrived(target, begun(this.rule), this.bits.labels[label[step] as number] as number);
      default:
        return target * EACH;
    }
  }

  /** Where a change of outside facts leads that leaves all else as it is; undefined where there is none, or it makes no difference. */
  private stayed(number: number): number | undefined {
    const state = Math.floor(number / EACH);
    if (!this.graph.stays[state]) return undefined;
    const next = this.arrived(state, Math.floor((number % EACH) / SINCE) as Progress, 0);
    return next === number ? undefined : next;
  }

  private forwards(): number | undefined {
    const { graph, distance, reached } = this;
    let breaks: number | undefined;
    let now: number[] = [];
    let next: number[] = [];
    const go = (number: number, events: number, into: number[]) => {
      if (number === BROKEN) {
        if (breaks === undefined || events < breaks) breaks = events;
      } else if ((distance[number] as number) < 0) into.push(number);
    };
    for (const { to, label } of graph.launches) go(this.arrived(to, begun(this.rule), this.bits.labels[label] as number), 0, now);
    for (let events = 0; now.length > 0; events++) {
      for (let i = 0; i < now.length; i++) {
        const number = now[i] as number;
        if ((distance[number] as number) >= 0) continue;
        distance[number] = events;
        reached.push(number);
        const vertex = Math.floor(number / EACH);
        for (let step = graph.first[vertex] as number; step < (graph.first[vertex + 1] as number); step++) {
          const cost = eventsOf(graph.kind[step] as number);
          go(this.after(number, step), events + cost, cost === 0 ? now : next);
        }
        const stayed = this.stayed(number);
        if (stayed !== undefined) go(stayed, events + 1, next);
      }
      now = next;
      next = [];
    }
    return breaks;
  }

  /** The events that are left until the rule breaks, by number; -1 where it never does. Worked out when it is asked for. */
  private backwards(): Int32Array {
    if (this.back) return this.back;
    const { graph } = this;
    const back = new Int32Array(graph.size * EACH).fill(-1);
    const into = new Map<number, Array<{ from: number; cost: number }>>();
    const ends: number[][] = [[], []];
    const note = (from: number, to: number, cost: number) => {
      if (to === BROKEN) {
        ends[cost]?.push(from);
        return;
      }
      const list = into.get(to);
      if (list) list.push({ from, cost });
      else into.set(to, [{ from, cost }]);
    };
    for (const number of this.reached) {
      const vertex = Math.floor(number / EACH);
      for (let step = graph.first[vertex] as number; step < (graph.first[vertex + 1] as number); step++)
        note(number, this.after(number, step), eventsOf(graph.kind[step] as number));
      const stayed = this.stayed(number);
      if (stayed !== undefined) note(number, stayed, 1);
    }
    let now = ends[0] as number[];
    let next = ends[1] as number[];
    for (let events = 0; now.length > 0 || next.length > 0; events++) {
      for (let i = 0; i < now.length; i++) {
        const number = now[i] as number;
        if ((back[number] as number) >= 0) continue;
        back[number] = events;
        for (const { from, cost } of into.get(number) ?? []) if ((back[from] as number) < 0) (cost === 0 ? now : next).push(from);
      }
      now = next;
      next = [];
    }
    this.back = back;
    return back;
  }

  left(state: number, at: Progress): number | undefined {
    const left = this.backwards()[state * EACH + at * SINCE] as number;
    return left < 0 ? undefined : left;
  }

  leftBy(state: number, at: Progress, step: number): number | undefined {
    const cost = eventsOf(this.graph.kind[step] as number);
    const next = this.after(state * EACH + at * SINCE, step);
    if (next === BROKEN) return cost;
    const left = this.backwards()[next] as number;
    return left < 0 ? undefined : left + cost;
  }

  shortest(): number[] {
    const { graph } = this;
    const back = this.backwards();
    const leftAt = (number: number) => (number === BROKEN ? 0 : (back[number] as number) < 0 ? Number.POSITIVE_INFINITY : (back[number] as number));
    const starts = graph.launches.map(({ to, label }) => this.arrived(to, begun(this.rule), this.bits.labels[label] as number));
    let at = starts.sort((a, b) => leftAt(a) - leftAt(b))[0] ?? BROKEN;
    const steps: number[] = [];
    const seen = new Set<number>();
    while (at !== BROKEN && !seen.has(at)) {
      seen.add(at);
      const vertex = Math.floor(at / EACH);
      let best = this.stayed(at);
      let least = best === undefined ? Number.POSITIVE_INFINITY : leftAt(best) + 1;
      let by: number | undefined;
      for (let step = graph.first[vertex] as number; step < (graph.first[vertex + 1] as number); step++) {
        const next = this.after(at, step);
        // Among steps that are as near, one that leads on from here and not back to where it was.
        const left = next !== BROKEN && seen.has(next) ? Number.POSITIVE_INFINITY : leftAt(next) + eventsOf(graph.kind[step] as number);
        if (left < least) [best, least, by] = [next, left, step];
      }
      if (best === undefined || !Number.isFinite(least)) break;
      if (by !== undefined) steps.push(by);
      at = best;
    }
    return steps;
  }
}
