import type { NavEvent, Project } from "../model/schema.ts";
import type { Args } from "../plan/data.ts";
import type { Outcome, State } from "../semantics/types.ts";
import type { MadeUp } from "./agree.ts";
import { decisiveParameters } from "./free.ts";

/** States of one run that are kept, at most: the likeliest. */
export const MOST_STATES = 100;
/** Sets of states that are remembered, at most. */
const MOST_SETS = 5_000;

/** One thing that was done in a run, and the state after it; `before` is what was done before it. */
export interface Trail {
  readonly event: NavEvent | undefined;
  readonly outcome: Outcome["outcome"];
  readonly state: State;
  readonly before: Trail | undefined;
}

/** A state in which the app may be. */
export interface Held {
  readonly state: State;
  readonly trail: Trail | undefined;
  /** How it came about by this entry; undefined where nothing needed to happen. */
  readonly event: NavEvent | undefined;
  readonly outcome: Outcome["outcome"];
  readonly fired: readonly string[];
  /** The states that arrive legs led on from. */
  readonly passed: readonly State[];
  /** How much had to happen that seldom does: links from outside, launches, another width or fact, without being told. */
  readonly unlikely: number;
}

/** What a screen that shows next makes of a set of states, and whether not all that was possible was thought of. */
export interface Turn {
  readonly held: Held[] | undefined;
  readonly cut: boolean;
}

/** Sets of states: each state once, and each set the same object whenever it is met, so that what comes of it can be remembered. */
export class HeldSets {
  private readonly decisive: ReadonlySet<string>;
  private readonly ownFacts: readonly string[];
  private readonly sets = new Map<string, Held[]>();
  private readonly distinct = new WeakSet<readonly Held[]>();
  private readonly turns = new WeakMap<readonly Held[], Map<string, Turn>>();

  constructor(
    project: Project,
    private readonly madeUp: MadeUp,
  ) {
    this.decisive = decisiveParameters(project);
    this.ownFacts = project.facts.flatMap(({ id, source }) => (source === "outside" ? [] : [id]));
  }

  /** What a screen makes of a set, worked out once. */
  turn(held: readonly Held[], shows: string, make: () => Turn): Turn {
    const known = this.turns.get(held) ?? new Map<string, Turn>();
    this.turns.set(held, known);
    let turn = known.get(shows);
    if (!turn) {
      const made = make();
      turn = { ...made, held: made.held && this.same(made.held) };
      known.set(shows, turn);
    }
    return turn;
  }

  /** Each state once, the likeliest first. */
  few(held: Held[]): Held[] {
    if (held.length < 2 || this.distinct.has(held)) return held;
    const likeliest = [...held].sort((a, b) => a.unlikely - b.unlikely);
    const seen = new Set<string>();
    const out = likeliest.filter(({ state }) => {
      if (seen.size >= MOST_STATES) return false;
      const key = this.keyOf(state);
      return !seen.has(key) && seen.add(key);
    });
    this.distinct.add(out);
    return out;
  }

  /**
   * What tells states apart. Facts from outside do not, for they may have become anything by the next entry; nor do arguments that
   * were made up, where nothing goes by them.
   */
  keyOf({ facts, ...rest }: State): string {
    const own = this.ownFacts.map((id) => facts[id]);
    return JSON.stringify([rest, own], (key, value: unknown) => (key === "args" ? this.known(value as Args) : value));
  }

  private known(args: Args): Args {
    const names = this.madeUp.get(args);
    return names ? Object.fromEntries(Object.entries(args).filter(([name]) => !names.has(name) || this.decisive.has(name))) : args;
  }

  private same(found: Held[]): Held[] {
    const held = this.few(found);
    const key = held.map(({ state, fired, event }) => `${this.keyOf(state)} ${fired} ${event?.do}`).join("\n");
    const known = this.sets.get(key) ?? held;
    if (this.sets.size >= MOST_SETS) this.sets.clear();
    this.sets.set(key, known);
    return known;
  }
}
