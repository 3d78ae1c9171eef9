import { appOf } from "../../insight/app.ts";
import { candidateEvents } from "../../insight/available.ts";
import { once } from "../../model/once.ts";
import type { NavEvent } from "../../model/schema.ts";
import { factsAnew } from "../../semantics/enter.ts";
import { visiblePath } from "../../semantics/state.ts";
import type { State } from "../../semantics/types.ts";
import type { Place } from "../reach/graph.ts";
import { valuesOf } from "../system/chooser.ts";
import { type Edge, type Exploration, type Explored, startLists, stepsFrom, type Way } from "../system/exploration.ts";
import { hideContexts, withoutParts } from "../system/hiding.ts";
import { WAITING } from "../system/precision.ts";
import { assumptionsIn, showsWhatWasLeft } from "../system/shortestWays.ts";
import { stateKey, withoutRules } from "../system/stateKey.ts";
import type { Abstraction } from "../system/types.ts";
import { concreteEvents, type Reached, replay, startingPoints } from "./replay.ts";

/** Weight of the estimate (weighted A*, Pohl 1970): a step that is left counts so many times one that was taken, for the way need not be the shortest. */
const WEIGHT = 2;

/** Concrete states that are followed of those which are one to the abstract search, with the same facts and visits: they differ in what is hidden alone. */
const ALIKE = 3;

/** What a search through `step` looks for. */
interface WalkGoal<T> {
  starts: readonly Reached[];
  /** By state of the abstract search about how many steps are left; undefined where there is no way. Left out: all are as near. */
  distances?: ReadonlyArray<number | undefined>;
  /** The ways that may be used. */
  ways: ReadonlySet<Way>;
  /** Whether outside facts may change on the way, though no step asks for them. */
  outside?: boolean;
  /** What must be so in each state on the way. */
  still?: (state: State) => boolean;
  /** Concrete states that are looked at, at most. */
  most: number;
  /** Those of them that are followed which are one to the abstract search; few, where it is left out. */
  alike?: number;
  /** What is looked for, if it is there; `nodes` are the states of the abstract search that this one may be. */
  found: (at: Reached, nodes: readonly number[]) => T | undefined;
}

/**
 * Looks for something on the document itself, through `step`, led by an abstract search: what is nearest by its graph is taken first (A*,
 * Hart, Nilsson and Raphael 1968), and where its graph has no way there is none. Undefined where nothing was found.
 */
export function searchOnwards<T>(
  exploration: Exploration,
  { starts, distances, ways, outside = false, still, most, alike = ALIKE, found }: WalkGoal<T>,
): T | undefined {
  const finder = once(exploration, makeFinder);
  const waiting: Reached[][] = [];
  const seen = new Set<string>();
  const begun = new Set<string>();
  const metAlike = new Map<string, number>();
  const leftFrom = (nodes: readonly number[]) => (distances ? Math.min(...nodes.map((node) => distances[node] ?? Number.POSITIVE_INFINITY)) : 0);
  const add = (at: Reached, otherwise: number) => {
    const key = JSON.stringify(at.state);
    if (seen.has(key) || still?.(at.state) === false) return;
    seen.add(key);
    const nodes = finder.nodesOf(at.state);
    const left = nodes.length > 0 ? leftFrom(nodes) : otherwise;
    if (!Number.isFinite(left)) return;
    const kind = `${nodes.join()} ${JSON.stringify(at.state.facts)} ${at.state.waiting?.entrance ?? ""} ${visitsIn(at.state)}`;
    const met = metAlike.get(kind) ?? 0;
    if (nodes.length > 0 && met >= alike) return;
    metAlike.set(kind, met + 1);
    const rank = at.walk.length + WEIGHT * left;
    waiting[rank] ??= [];
    waiting[rank]?.push(at);
  };
  for (const at of starts) add(at, 0);
  for (let tries = 0; tries < most; tries++) {
    const at = waiting.find((list) => list && list.length > 0)?.pop();
    if (!at) return undefined;
    const nodes = finder.nodesOf(at.state);
    const result = found(at, nodes);
    if (result !== undefined) return result;
    const left = leftFrom(nodes);
    for (const next of onwards(exploration, at, nodes, ways, outside, begun)) add(next, Number.isFinite(left) ? left + 1 : 1);
  }
  return undefined;
}

/** Concrete states from which one walk is looked for, and those for all walks of one search together. */
const MOST = 250;
const MOST_TOGETHER = 2_500;

/** A longer search, for what the closest look at a small app finds and nothing has shown: the states of such a look, and what is looked at for one walk and for all. */
const SMALL_STATES = 400;
/** An app of few legs is small where its look has more states. */
const FEW_LEGS = 60;
const FEW_LEGS_STATES = 1_000;
export const LONGER = { most: 2_500, alike: 60 };
const LONGER_TOGETHER = 10_000;

/** Times that a place of a candidate is met before it is given up. */
const MEETINGS = 40;

type Shown = (at: Reached, place: Place) => NavEvent[] | undefined;

/** A walk to where something shows, for what the shortest ways of a search do not show. `shown` judges a state that stands where it shows. */
export function directedWalk(exploration: Exploration, places: readonly Place[], shown: Shown, outside = false): NavEvent[] | undefined {
  const found = directed(exploration, places, shown, { outside }) ?? directed(exploration, places, shown, { restarts: true });
  return found ?? (isWorthLonger(exploration) ? directed(exploration, places, shown, { restarts: true, outside, longer: true }) : undefined);
}

/** Whether what was not found is worth a longer search; that is counted. */
export function isWorthLonger(exploration: Exploration): boolean {
  if (!exploration.abstraction.closest || !(exploration.nodes.length <= SMALL_STATES || hasFewLegs(exploration))) return false;
  const budget = once(exploration, longerBudget);
  budget.left -= LONGER.most;
  return budget.left >= 0;
}

/** Whether a look is at an app of few legs, and has few states: there, more is looked at for what nothing has shown. */
export function hasFewLegs({ nodes, abstraction }: Exploration): boolean {
  return nodes.length <= FEW_LEGS_STATES && abstraction.original.legs.length <= FEW_LEGS;
}

const longerBudget = (_: Exploration) => ({ left: LONGER_TOGETHER });

/** A walk that may start over or come in from outside at any time: enough to know that a place is met. */
export function anyWalk(exploration: Exploration, places: readonly Place[], shown: Shown): NavEvent[] | undefined {
  return directed(exploration, places, shown, { restarts: true });
}

/** How a walk is looked for: whether it may start over or come in from outside, whether outside facts may change on the way, and how long. */
interface Looking {
  restarts?: boolean;
  outside?: boolean;
  longer?: boolean;
}

function directed(
  exploration: Exploration,
  places: readonly Place[],
  shown: Shown,
  { restarts = false, outside = false, longer = false }: Looking,
): NavEvent[] | undefined {
  const budget = once(exploration, budgetOf);
  if (budget.left <= 0 && !longer) return undefined;
  const ways = restarts ? ALL_WAYS : WITHOUT_RESTART;
  const by = placesByNode(places);
  const launched = exploration.nodes.filter((node) => node.launched);
  const starts = launched.flatMap((node) => startingPoints(exploration.abstraction.original, exploration, node));
  let meetings = longer ? LONGER.most : MEETINGS;
  const walk = searchOnwards<NavEvent[] | "none">(exploration, {
    starts,
    distances: distancesTo(exploration, [...by.keys()], ways),
    ways,
    outside,
    ...(longer ? LONGER : { most: Math.min(MOST, budget.left) }),
    found: (at, nodes) => {
      budget.left -= longer ? 0 : 1;
      for (const place of nodes.flatMap((node) => by.get(node) ?? []).slice(0, 2)) {
        meetings -= 1;
        const found = shown(at, place);
        if (found) return found;
      }
      return meetings <= 0 ? "none" : undefined;
    },
  });
  return walk === "none" ? undefined : walk;
}

/** The orders in which lanes that show were visited. */
function visitsIn(state: State): string {
  return visiblePath(state.base)
    .flatMap((node) => (node.kind === "tabs" ? [node.visited.join()] : []))
    .join(" ");
}

const budgetOf = (_: Exploration) => ({ left: MOST_TOGETHER });

export function placesByNode(places: readonly Place[]): Map<number, Place[]> {
  const by = new Map<number, Place[]>();
  for (const place of places) by.set(place.node, [...(by.get(place.node) ?? []), place]);
  return by;
}

/** Steps that it counts for if something must have been brought about first: what a lane is left with, and a value that is not followed. */
const LEFT_THERE = 8;
const PER_ASSUMPTION = 2;

/** By state of the search about how many steps it takes to one of some others, by the steps of some ways. */
export function distancesTo(exploration: Exploration, goals: readonly number[], ways: ReadonlySet<Way>): Array<number | undefined> {
  const into = stepsInto(exploration, ways);
  const out: Array<number | undefined> = new Array(into.length);
  const waiting: Array<number[] | undefined> = [[...goals]];
  for (let steps = 0; steps < waiting.length; steps++)
    for (const at of waiting[steps] ?? []) {
      if (out[at] !== undefined) continue;
      out[at] = steps;
      for (const step of into[at] ?? []) {
        if (out[step.from] !== undefined) continue;
        waiting[steps + step.steps] ??= [];
        waiting[steps + step.steps]?.push(step.from);
      }
    }
  return out;
}

/** The ways that go on from a state, and those that start over as well. */
export const WITHOUT_RESTART: ReadonlySet<Way> = new Set<Way>(["out", "back", "automatic", "reveal"]);
const ALL_WAYS: ReadonlySet<Way> = new Set<Way>([...WITHOUT_RESTART, "restart"]);

interface StepInto {
  from: number;
  steps: number;
}

/** By state of the search, and vertex for new starts behind them, the steps into it; worked out once. */
function stepsInto(exploration: Exploration, ways: ReadonlySet<Way>): ReadonlyArray<readonly StepInto[]> {
  const known = once(exploration, noSteps);
  const made = known.get(ways) ?? makeStepsInto(exploration, ways);
  known.set(ways, made);
  return made;
}

const noSteps = (_: Exploration) => new Map<ReadonlySet<Way>, ReadonlyArray<readonly StepInto[]>>();

function makeStepsInto({ nodes }: Exploration, ways: ReadonlySet<Way>): StepInto[][] {
  const into = nodes.map((): StepInto[] => []);
  const add = (edge: Edge, from: number, pending?: Explored["pending"]) => {
    if (edge.outcome !== "moved" || !ways.has(edge.way)) return;
    const left = showsWhatWasLeft(edge) && !pending?.beneath ? LEFT_THERE : 0;
    const steps = left + (edge.way === "reveal" ? 0 : 1 + PER_ASSUMPTION * assumptionsIn(edge));
    into[edge.to]?.push({ from, steps });
  };
  nodes.forEach(({ edges, pending }, from) => {
    for (const edge of edges) add(edge, from, pending);
  });
  if (!ways.has("restart")) return into;
  // States with the same new starts have them through a vertex of their own, behind all states.
  const vertices = new Map([...startLists(nodes).keys()].map((starts, i) => [starts, nodes.length + i]));
  for (const vertex of vertices.values()) into[vertex] = [];
  nodes.forEach(({ starts }, from) => {
    into[vertices.get(starts) ?? -1]?.push({ from, steps: 0 });
  });
  for (const [starts, vertex] of vertices) for (const edge of starts) add(edge, vertex);
  return into;
}

/**
 * The states that one more step leads to: by the steps that the search knows, or, where it does not know the state, by all that can be tried. Those that
 * start over lead to the same from all states with the same facts that stay, and are taken once: `begun` holds those that were.
 */
function onwards(exploration: Exploration, at: Reached, nodes: readonly number[], ways: ReadonlySet<Way>, outside: boolean, begun: Set<string>): Reached[] {
  const project = exploration.abstraction.original;
  const tried = new Set<string>();
  const out: Reached[] = [];
  const kept = `${JSON.stringify(factsAnew(appOf(project), at.state))} ${at.state.width} `;
  const go = (events: NavEvent[], way?: Way) => {
    const key = JSON.stringify(events);
    if (tried.has(key) || (way === "restart" && begun.has(kept + key))) return;
    tried.add(key);
    if (way === "restart") begun.add(kept + key);
    const next = replay(project, at, events);
    if (next?.result.outcome === "moved") out.push(next.reached);
  };
  const edges: Edge[] = nodes.flatMap((node) =>
    stepsFrom(exploration.nodes[node] as Explored).filter(({ outcome, way }) => outcome === "moved" && ways.has(way) && way !== "reveal"),
  );
  for (const edge of edges) for (const events of concreteEvents(project, at.state, edge)) go(events, edge.way);
  for (const fact of outside ? project.facts : [])
    if (fact.source === "outside") for (const value of valuesOf(fact)) if (at.state.facts[fact.id] !== value) go([{ do: "fact", fact: fact.id, value }]);
  if (nodes.length === 0) for (const event of candidateEvents(project, at.state)) if (event.do !== "width") go([event]);
  return out;
}

/** Finds the states of a search that a concrete one may be. */
class Finder {
  private readonly byKey = new Map<string, number[]>();
  private readonly known = new WeakMap<State, number[]>();

  constructor(private readonly exploration: Exploration) {
    exploration.nodes.forEach(({ key, pending }, i) => {
      if (pending) return;
      const name = placed(withoutRules(key));
      const known = this.byKey.get(name);
      if (known) known.push(i);
      else this.byKey.set(name, [i]);
    });
  }

  nodesOf(state: State): readonly number[] {
    const made = this.known.get(state) ?? this.byKey.get(placed(keyOf(this.exploration.abstraction, state))) ?? [];
    this.known.set(state, made);
    return made;
  }
}

/** A key with contexts known by their place alone, and by the item that lies on them where they are all that a stack may hold. */
const placed = (key: string) => withoutParts(key).replace(/\^(\w+),(\w+)/g, "^$1.$2,$2");

/** The states of a search that a concrete one may be. */
export function nodesOf(exploration: Exploration, state: State): readonly number[] {
  return once(exploration, makeFinder).nodesOf(state);
}

const makeFinder = (exploration: Exploration) => new Finder(exploration);

/** The key of a concrete state with all hidden that the search hides, and without what it does not follow. */
function keyOf(abstraction: Abstraction, state: State): string {
  const facts = Object.fromEntries(abstraction.project.facts.map(({ id }) => [id, state.facts[id] ?? null]));
  const { waiting, ...rest } = state;
  const known: State = { ...rest, facts, ...(waiting && abstraction.precision.follows.has(WAITING) ? { waiting } : {}) };
  return stateKey(abstraction.app.plan, hideContexts(abstraction, known));
}
