/** The shortest walk that breaks a rule, on the document itself. */

import { appOf } from "../../insight/app.ts";
import { beginsRun, launched, type Progress } from "../../insight/rules/watch.ts";
import type { NavEvent, Project } from "../../model/schema.ts";
import { step } from "../../semantics/step.ts";
import type { Outcome, State } from "../../semantics/types.ts";
import { concreteWays } from "../counterexample/concreteWays.ts";
import { nodesOf } from "../counterexample/directedSearch.ts";
import { concreteEvents, replay, startingPoints } from "../counterexample/replay.ts";
import { valuesOf } from "../system/chooser.ts";
import type { Edge } from "../system/exploration.ts";
import { EVENT, eventsOf, REVEAL, type RuleGraph } from "./graph.ts";

/** What is looked for: a run that ends where a rule breaks. */
export interface RunGoal {
  begun: Progress;
  /** Where the rule stands after a moment that an event has brought, or that it is broken. */
  after: (at: Progress, event: NavEvent | undefined, outcome: Pick<Outcome, "state" | "log">) => Progress | "broken";
  /** Of a state of the search how many events are left at least; undefined where there is no way. */
  left: (state: number, at: Progress) => number | undefined;
  /** The same by one of its steps, or of one vertex for new starts. */
  leftBy: (vertex: number, at: Progress, step: number) => number | undefined;
}

/** Events that are tried, at most. */
const MOST = 4_000;
/** The same where a closer look may come next. */
const MOST_QUICKLY = 400;
const STARTS_QUICKLY = 4;
/** The same in a search of more states than that, before another way of looking is tried. */
const LARGE = 500;
const MOST_OF_LARGE = 1_200;
/** The same for each state that a walk has to come by, and how many of those are tried. */
const MOST_BY = 1_500;
const MOST_STARTS = 6;
/** Concrete states that are followed of those which are one to the search. */
const MOST_ALIKE = 16;

interface Reached {
  state: State;
  at: Progress;
  walk: NavEvent[];
}

/** A step that waits to be tried: from a state, by an edge of the search or by events. */
interface Waiting {
  from: Reached;
  edge: Edge | undefined;
  events: NavEvent[] | undefined;
}

/**
 * Looks for the shortest walk that breaks a rule, nearest first by what the search knows (A*, Hart, Nilsson and Raphael 1968): it never takes
 * less than that, so that the first walk found is the shortest. Undefined where none was found. `first` are states that a walk may have to come by.
 */
export function breakingWalk(graph: RuleGraph, goal: RunGoal, effort: Effort, first: readonly number[] = []): NavEvent[] | undefined {
  const run = (most: number) => new RunSearch(graph, goal, most).run();
  // The larger a search, the more a closer one costs beside a longer search.
  const most = Math.min(MOST_OF_LARGE, Math.max(MOST_QUICKLY, Math.floor(graph.states / 3)));
  if (effort === "quick") return run(most) ?? (graph.states > LARGE ? walkBy(graph, goal, first.slice(0, STARTS_QUICKLY), most) : undefined);
  return graph.states > LARGE ? (run(MOST_OF_LARGE) ?? walkBy(graph, goal, first) ?? run(MOST)) : (run(MOST) ?? walkBy(graph, goal, first));
}

/** How long a walk is looked for: a little, where a closer look may show that there is none, or as long as is worth it. */
export type Effort = "quick" | "full";

/**
 * The same for a walk that has to bring something about first: that a lane, or what lies beneath, is left as the shortest way of the search needs
 * it. `first` are the states in which it is so; what the walk that is found does not need is taken out of it, so that it is short, though others may be shorter.
 */
function walkBy(graph: RuleGraph, goal: RunGoal, first: readonly number[], most = MOST_BY): NavEvent[] | undefined {
  const ways = concreteWays(graph.exploration);
  const starts = first.flatMap((node) => ways.at(node).slice(0, 1)).slice(0, MOST_STARTS);
  const found = starts.flatMap((start) => {
    const walk = new RunSearch(graph, goal, most).runFrom(start.walk);
    return walk ? [shortened(walk, (shorter) => breaksAfter(graph, goal, shorter) === shorter.length)] : [];
  });
  return found.sort((a, b) => a.length - b.length)[0];
}

/** A walk without the events that can be left out while something is still so. */
function shortened(walk: NavEvent[], isSo: (walk: NavEvent[]) => boolean): NavEvent[] {
  let short = walk;
  for (let size = Math.floor(walk.length / 2); size >= 1; size--)
    for (let at = 0; at + size < short.length; ) {
      const without = [...short.slice(0, at), ...short.slice(at + size)];
      if (isSo(without)) short = without;
      else at += 1;
    }
  return short;
}

/** After how many events of a walk a rule breaks; undefined where it does not, or an event does nothing. */
function breaksAfter({ exploration }: RuleGraph, goal: RunGoal, walk: readonly NavEvent[]): number | undefined {
  const project = exploration.abstraction.original;
  const begins = launched(project);
  let { state } = begins;
  let at = goal.after(goal.begun, undefined, begins);
  if (at === "broken") return 0;
  for (const [i, event] of walk.entries()) {
    const outcome = step(appOf(project), state, event);
    if (outcome.outcome !== "moved") return undefined;
    state = outcome.state;
    const next: Progress | "broken" = goal.after(beginsRun(event) ? goal.begun : at, event, outcome);
    if (next === "broken") return i + 1;
    at = next;
  }
  return undefined;
}

class RunSearch {
  private readonly waiting: Waiting[][] = [];
  private readonly seen = new Set<string>();
  private readonly tried = new Set<string>();
  private readonly alike = new Map<string, number>();
  private readonly project: Project;
  private count = 0;

  constructor(
    private readonly graph: RuleGraph,
    private readonly goal: RunGoal,
    private readonly most: number,
  ) {
    this.project = graph.exploration.abstraction.original;
  }

  run(): NavEvent[] | undefined {
    const { exploration } = this.graph;
    let broken: NavEvent[] | undefined;
    for (const node of exploration.nodes) {
      if (!node.launched) continue;
      for (const { state, walk } of startingPoints(this.project, exploration, node)) {
        const at = this.goal.after(this.goal.begun, undefined, this.launchOf(walk));
        if (at !== "broken") this.reach({ state, at, walk });
        else if (!broken || walk.length < broken.length) broken = walk;
      }
    }
    return this.search(broken);
  }

  /** Goes on where a walk ends. */
  runFrom(walk: readonly NavEvent[]): NavEvent[] | undefined {
    const start = launched(this.project);
    const at = this.goal.after(this.goal.begun, undefined, start);
    return this.go({ state: start.state, at: at === "broken" ? this.goal.begun : at, walk: [] }, walk) ?? this.search(undefined);
  }

  /** Takes what waits, the nearest first; `known` is a walk that is there already, if nothing shorter is found. */
  private search(known: NavEvent[] | undefined): NavEvent[] | undefined {
    let broken = known;
    for (let rank = 0; rank < this.waiting.length; rank++) {
      if (broken && broken.length <= rank) return broken;
      const list = this.waiting[rank];
      while (list && list.length > 0) {
        const walk = this.take(list.pop() as Waiting, rank);
        // A step may take more events than the search counts, for facts to be set first: then something shorter may still be found.
        if (walk && walk.length <= rank) return walk;
        if (walk && (!broken || walk.length < broken.length)) broken = walk;
        if (this.count > this.most) return broken;
      }
    }
    return broken;
  }

  /** What the launch brought that a walk begins with. */
  private launchOf(walk: NavEvent[]): Pick<Outcome, "state" | "log"> {
    const restarts = walk.at(-1)?.do === "launch";
    const again = restarts ? replay(this.project, { state: launched(this.project).state, walk: [] }, walk)?.result : undefined;
    return again ?? launched(this.project, this.graph.exploration.width);
  }

  /** Tries what waits; gives the walk where it breaks the rule. */
  private take({ from, edge, events }: Waiting, rank: number): NavEvent[] | undefined {
    for (const list of events ? [events] : edge ? concreteEvents(this.project, from.state, edge) : []) {
      // Where facts have to be set first, it takes more events than the search counts.
      if (!events && list.length > 1) {
        this.put({ from, edge: undefined, events: list }, rank + list.length - 1);
        continue;
      }
      const key = `${keyOf(from)} ${JSON.stringify(list)}`;
      if (this.tried.has(key)) continue;
      this.tried.add(key);
      const broken = this.go(from, list);
      if (broken) return broken;
    }
    return undefined;
  }

  /** Goes on by some events; gives the walk where one of them breaks the rule. */
  private go(from: Reached, events: readonly NavEvent[]): NavEvent[] | undefined {
    let { state, at } = from;
    const walk = [...from.walk];
    for (const event of events) {
      this.count += 1;
      const outcome = step(appOf(this.project), state, event);
      if (outcome.outcome !== "moved") return undefined;
      walk.push(event);
      const next = this.goal.after(beginsRun(event) ? this.goal.begun : at, event, outcome);
      if (next === "broken") return walk;
      [state, at] = [outcome.state, next];
    }
    this.reach({ state, at, walk });
    return undefined;
  }

  private reach(reached: Reached) {
    const key = keyOf(reached);
    if (this.seen.has(key)) return;
    this.seen.add(key);
    const nodes = nodesOf(this.graph.exploration, reached.state);
    const kind = `${nodes.join()} ${reached.at} ${JSON.stringify(reached.state.facts)}`;
    const met = this.alike.get(kind) ?? 0;
    if (met >= MOST_ALIKE) return;
    this.alike.set(kind, met + 1);
    for (const node of nodes) this.offer(reached, node);
  }

  private offer(from: Reached, node: number) {
    const { first, kind, to, edges, stays } = this.graph;
    for (let at = first[node] as number; at < (first[node + 1] as number); at++) {
      if (kind[at] === EVENT) {
        const left = this.goal.leftBy(node, from.at, at);
        this.wait(from, left, edges[at], undefined);
        // What happens by itself may be brought about by a fact that nothing asks for.
        if (!edges[at]?.event) for (const event of factsOf(this.project)) this.wait(from, left, undefined, [event]);
      } else if (kind[at] !== REVEAL) {
        const starts = to[at] as number;
        for (let one = first[starts] as number; one < (first[starts + 1] as number); one++)
          this.wait(from, this.goal.leftBy(starts, 0, one), edges[one], undefined);
      }
    }
    if (stays[node]) for (const event of factsOf(this.project)) this.wait(from, this.goal.left(node, from.at), undefined, [event]);
  }

  private wait(from: Reached, left: number | undefined, edge: Edge | undefined, events: NavEvent[] | undefined) {
    if (left === undefined) return;
    this.put({ from, edge, events }, from.walk.length + left);
  }

  private put(waiting: Waiting, rank: number) {
    this.waiting[rank] ??= [];
    this.waiting[rank]?.push(waiting);
  }
}

const keyOf = ({ state, at }: Reached): string => `${at}${JSON.stringify(state)}`;

/** Every change of a fact from outside. */
function factsOf(project: Project): NavEvent[] {
  return project.facts.flatMap((fact) => (fact.source === "outside" ? valuesOf(fact).map((value): NavEvent => ({ do: "fact", fact: fact.id, value })) : []));
}

/** Looks for a moment at which something is so: by the search in, or by a step from, one of some states. */
export function goalAt(
  graph: RuleGraph,
  goals: readonly number[],
  isSo: (state: State, event: NavEvent | undefined, outcome: Pick<Outcome, "state" | "log">) => boolean,
): RunGoal {
  const left = eventsTo(graph, goals);
  const at = (vertex: number) => ((left[vertex] as number) < 0 ? undefined : (left[vertex] as number));
  return {
    begun: 0,
    after: (_, event, outcome) => (isSo(outcome.state, event, outcome) ? "broken" : 0),
    left: at,
    leftBy: (_, __, one) => {
      const next = at(graph.to[one] as number);
      return next === undefined ? undefined : next + eventsOf(graph.kind[one] as number);
    },
  };
}

/** The fewest events from each vertex to one of some states; -1 where there is no way. */
function eventsTo({ size, first, to, kind }: RuleGraph, goals: readonly number[]): Int32Array {
  const into: number[][] = Array.from({ length: size }, () => []);
  for (let vertex = 0; vertex < size; vertex++)
    for (let at = first[vertex] as number; at < (first[vertex + 1] as number); at++) into[to[at] as number]?.push(vertex * 2 + eventsOf(kind[at] as number));
  const out = new Int32Array(size).fill(-1);
  let now = [...goals];
  let next: number[] = [];
  for (let events = 0; now.length > 0; events++) {
    for (let i = 0; i < now.length; i++) {
      const vertex = now[i] as number;
      if ((out[vertex] as number) >= 0) continue;
      out[vertex] = events;
      for (const step of into[vertex] ?? []) (step % 2 === 0 ? now : next).push(Math.floor(step / 2));
    }
    now = next;
    next = [];
  }
  return out;
}
