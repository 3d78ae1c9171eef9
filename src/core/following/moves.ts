import type { NavEvent, Project } from "../model/schema.ts";
import { step } from "../semantics/step.ts";
import type { App, State } from "../semantics/types.ts";
import { type MadeUp, noteMadeUp } from "./agree.ts";
import { freeArguments } from "./free.ts";
import { anyWays, restsOnOutside } from "./ways.ts";

/** One event that moves, with what became of the facts from outside before it. */
export interface Move {
  readonly before: ReadonlyArray<{ readonly event: NavEvent; readonly state: State }>;
  readonly event: NavEvent;
  readonly state: State;
  readonly fired: readonly string[];
  readonly passed: readonly State[];
  /** Arguments of the screen that shows then which are guesses. */
  readonly free: ReadonlySet<string>;
}

/** States of which the moves are remembered, at most. */
const MOST = 4_000;
const SELDOM: ReadonlyArray<NavEvent["do"]> = ["enter", "launch", "fact", "width"];

/** Whether an event comes from outside of the app, and so seldom. */
export function isSeldom({ do: kind }: NavEvent): boolean {
  return SELDOM.includes(kind);
}

/** All that may happen in a state. Remembered: where a log tells screens alone, the same states are asked again and again. */
export class Moves {
  private readonly known = { likely: new Map<string, readonly Move[]>(), seldom: new Map<string, readonly Move[]>() };

  constructor(
    private readonly project: Project,
    private readonly app: App,
    private readonly madeUp: MadeUp,
    private readonly keyOf: (state: State) => string,
  ) {}

  /** What users and the clock can do while the facts from outside are as they were. */
  likely(state: State): readonly Move[] {
    return this.remembered("likely", state, () => this.from(state, [], (event) => !isSeldom(event)));
  }

  /** What comes from outside, and what can be done after the facts from there have changed. */
  seldom(state: State): readonly Move[] {
    return this.remembered("seldom", state, () =>
      withFacts(this.app, state).flatMap(({ state: start, before }) =>
        this.from(start, before, (event) => (before.length === 0 ? isSeldom(event) : restsOnOutside(this.app, event))),
      ),
    );
  }

  private from(start: State, before: Move["before"], passes: (event: NavEvent) => boolean): Move[] {
    return anyWays(this.project, this.app, start).flatMap(({ event, app }): Move[] => {
      if (!passes(event)) return [];
      const { outcome, state, log } = step(app, start, event);
      if (outcome !== "moved") return [];
      if (event.do === "enter") noteMadeUp(this.madeUp, start, state);
      return [{ before, event, state, fired: log.fired, passed: log.passed, free: freeArguments(this.project, event, undefined, log.fired) }];
    });
  }

  private remembered(kind: "likely" | "seldom", state: State, make: () => Move[]): readonly Move[] {
    const all = this.known[kind];
    const key = this.keyOf(state);
    const found = all.get(key) ?? this.distinct(make());
    all.delete(key);
    all.set(key, found);
    const [oldest] = all.keys();
    if (all.size > MOST && oldest !== undefined) all.delete(oldest);
    return found;
  }

  private distinct(moves: Move[]): Move[] {
    const seen = new Set<string>();
    return moves.filter(({ state, fired }) => {
      const key = `${this.keyOf(state)} ${fired}`;
      return !seen.has(key) && seen.add(key);
    });
  }
}

/** States with other facts from outside that are thought of, at most. */
const MOST_FACTS = 64;

/** A state with the facts from outside as they are, and as they may have become, by which events. */
export function withFacts(app: App, state: State): Array<{ state: State; before: Move["before"] }> {
  let all: Array<{ state: State; before: Move["before"] }> = [{ state, before: [] }];
  for (const [fact, { outside, values = [true, false] }] of app.plan.facts) {
    if (!outside) continue;
    const more = all.flatMap((one) =>
      values.flatMap((value) => {
        const event: NavEvent = { do: "fact", fact, value };
        const next = step(app, one.state, event).state;
        return next === one.state ? [] : [{ state: next, before: [...one.before, { event, state: next }] }];
      }),
    );
    all = [...all, ...more].slice(0, MOST_FACTS);
  }
  return all;
}
