import { once } from "../../model/once.ts";
import type { NavEvent } from "../../model/schema.ts";
import type { Edge, Exploration } from "../system/exploration.ts";
import { ASSUMPTION, assumptionsIn, shortestWays } from "../system/shortestWays.ts";
import { alongEdge, type LastStep, lastStep, type Reached, startingPoints } from "./replay.ts";

/** By which step a state is reached; undefined for one that a launch shows. */
type By = { node: number; edge: Edge } | undefined;

/**
 * Concrete states along a tree of ways: by state of the search those in which the way to it ends, or, where it does not replay, those
 * in which another one ends. Each step is replayed once, however many ways go along it. They begin with launches, or in `starts`.
 */
export class ConcreteWays {
  private readonly known = new Map<number, Reached[]>();

  constructor(
    private readonly exploration: Exploration,
    private readonly by: (at: number) => By,
    private readonly otherwise?: (at: number) => Reached[],
    private readonly starts = (at: number) => startingPoints(exploration.abstraction.original, exploration, exploration.nodes[at]),
  ) {}

  /** The concrete states that the way to a state of the search leads to; none where it does not replay. */
  at(node: number): Reached[] {
    const way: number[] = [];
    for (let at: number | undefined = node; at !== undefined && !this.known.has(at); at = this.by(at)?.node) way.push(at);
    for (let at = way.pop(); at !== undefined; at = way.pop()) {
      const after = this.after(at);
      this.known.set(at, after.length > 0 ? after : (this.otherwise?.(at) ?? after));
    }
    return this.known.get(node) ?? [];
  }

  /** The steps of the way to a state, the last first. */
  steps(node: number): Edge[] {
    const edges: Edge[] = [];
    for (let by = this.by(node); by; by = this.by(by.node)) edges.push(by.edge);
    return edges;
  }

  /**
   * A concrete walk to a state of the search and, if given, along one more edge; `shows` judges
   * the last step. Undefined where none is found within the limits.
   */
  walk(node: number, last?: Edge, shows: (step: LastStep) => boolean = () => true): NavEvent[] | undefined {
    return last ? lastStep(this.exploration, this.at(node), last, shows) : this.at(node)[0]?.walk;
  }

  private after(at: number): Reached[] {
    const by = this.by(at);
    if (!by) return this.starts(at);
    const before = this.known.get(by.node) ?? [];
    return before.length === 0 ? [] : alongEdge(this.exploration, before, by.edge);
  }
}

/** Concrete states along the ways by which a search reached each state first. The search must be done. */
export function concreteWays(exploration: Exploration): ConcreteWays {
  return once(exploration, makeConcreteWays);
}

const makeConcreteWays = (exploration: Exploration) => {
  const sure = once(exploration, makeSureWays);
  return new ConcreteWays(
    exploration,
    (at) => exploration.nodes[at]?.from,
    (at) => sure().at(at),
  );
};

/** The ways on which as little as can be is relied on; looked for when they are asked for. */
const makeSureWays = (exploration: Exploration) => {
  let known: ConcreteWays | undefined;
  return () => {
    known ??= sureWays(exploration, () => 1);
    return known;
  };
};

/** Ways that rely as little as can be on what is not followed, and beyond that cost as little as can be. */
export function sureWays(exploration: Exploration, costOf: (edge: Edge) => number | undefined): ConcreteWays {
  const reached = new Map<number, By>();
  const surely = (edge: Edge) => {
    const cost = costOf(edge);
    return cost === undefined ? undefined : cost + ASSUMPTION * assumptionsIn(edge);
  };
  for (const { at, by } of shortestWays(exploration, surely)) reached.set(at, by);
  return new ConcreteWays(exploration, (at) => reached.get(at));
}
