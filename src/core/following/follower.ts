import { once } from "../model/once.ts";
import type { NavEvent, Project } from "../model/schema.ts";
import { planFrom } from "../plan/plan.ts";
import { planData } from "../plan/planOf.ts";
import { plainApp } from "../semantics/app.ts";
import { factsFitting } from "../semantics/guards.ts";
import { stateLine } from "../semantics/line.ts";
import { step } from "../semantics/step.ts";
import type { App, Log, State } from "../semantics/types.ts";
import { agreed, type MadeUp, type Told, tells, toldBy } from "./agree.ts";
import type { Entry } from "./entry.ts";
import { freeArguments } from "./free.ts";
import { type Held, HeldSets, MOST_STATES, type Trail, type Turn } from "./held.ts";
import { isSeldom, type Move, Moves, withFacts } from "./moves.ts";
import { meantBy } from "./screens.ts";
import { allArguments, beginnings, somewhere } from "./start.ts";
import { anyWays, isControl, otherWays, startsAt, type Way } from "./ways.ts";

/** Runs that are followed at the same time, at most; the one that was heard of longest ago goes. */
const MOST_RUNS = 2_000;
/** States for which what happens seldom is thought of as well, at most. */
const MOST_WITH_SELDOM = 24;
/** States of a run that it may be put back to, at most. */
const MOST_BEFORE = 30;

interface Run {
  held: readonly Held[];
  /** An event was told, and what shows after it was not: the next entry may tell it. */
  open: boolean;
  /** Where the app was, latest last. */
  before: State[];
  /** More states were possible at some time than are kept. */
  cut: boolean;
}

/** What an entry comes to. */
export interface Followed {
  /** `lost`: more states were possible than are kept, and none that was kept goes on. */
  readonly is: "follows" | "departs" | "lost";
  /** All that may have happened; the first is taken for what did. None where the entry names a screen that the design does not have. */
  readonly held: readonly Held[];
  /** In which states the app may have been before. */
  readonly before: readonly State[];
  /** A control was used that the design does not know anywhere. */
  readonly unknown: boolean;
  /** More states were possible in this run than are kept. */
  readonly cut: boolean;
}

/** Whether the states of a run are remembered with how they came about. */
export interface FollowOptions {
  readonly trails?: boolean;
}

/**
 * Follows what a running app does, entry by entry: the set of all states in which it may be. An entry with an event steps each of
 * them; one with a screen alone goes by any one event, or none. What contradicts the entry goes. Where nothing is left, the app has
 * departed from the design, and following goes on from wherever the screen may be shown.
 */
export class Follower {
  readonly app: App;
  private readonly runs = new Map<string, Run>();
  private latest: Run | undefined;
  private readonly madeUp: MadeUp = new WeakMap();
  private readonly moves: Moves;
  private readonly sets: HeldSets;

  constructor(
    readonly project: Project,
    private readonly options: FollowOptions = {},
  ) {
    this.app = followedApp(project);
    this.sets = new HeldSets(project, this.madeUp);
    this.moves = new Moves(project, this.app, this.madeUp, (state) => this.sets.keyOf(state));
  }

  /** The states in which a run may be now, the likeliest first. */
  statesOf(run: string): readonly State[] {
    return this.runs.get(run)?.held.map(({ state }) => state) ?? [];
  }

  /** What was done in a run, latest first, where trails are kept. */
  trailOf(run: string): Trail | undefined {
    return this.runs.get(run)?.held[0]?.trail;
  }

  take(entry: Entry): Followed {
    const known = this.runs.get(entry.run);
    const run = known ?? { held: [], open: false, before: [], cut: false };
    if (this.latest !== run) this.heardOf(entry.run, run);
    const before = run.held.map(({ state }) => state);
    const told = toldBy(entry, entry.shows === undefined ? undefined : meantBy(this.project, entry.shows));
    const unknown = entry.event === undefined && entry.used !== undefined && !isControl(this.project, entry.used);
    const fits = this.next(run, known === undefined, entry, told, unknown);
    const is = fits ? "follows" : run.cut ? "lost" : "departs";
    const all = fits ?? this.resumed(run, entry, told);
    const held = this.sets.few(all);
    run.cut ||= held.length >= MOST_STATES;
    run.open = (entry.event !== undefined || entry.used !== undefined) && !tells(told);
    if (held.length > 0) run.held = held;
    const first = run.held[0];
    if (first && first.state !== run.before.at(-1)) run.before.push(first.state);
    if (run.before.length > 2 * MOST_BEFORE) run.before.splice(0, MOST_BEFORE);
    return { is, held, before, unknown, cut: run.cut };
  }

  /** Puts a run last in the order in which runs go. */
  private heardOf(name: string, run: Run) {
    this.latest = run;
    this.runs.delete(name);
    this.runs.set(name, run);
    if (this.runs.size <= MOST_RUNS) return;
    const [oldest] = this.runs.keys();
    if (oldest !== undefined) this.runs.delete(oldest);
  }

  /** What may have happened, or undefined where nothing that the design allows did. */
  private next(run: Run, isNew: boolean, entry: Entry, told: Told, unknown: boolean): Held[] | undefined {
    if (isNew || run.held.length === 0) return this.begun(entry, told);
    if (entry.restored) return this.restored(run, entry, told);
    if (entry.event) return this.stepped(run, entry.event, told) ?? (entry.event.do === "launch" ? some(this.launched(entry, told)) : undefined);
    if (unknown) return run.held.flatMap((one) => this.stays(one, told));
    if (entry.used !== undefined) return this.used(run, entry.used, told);
    return this.shown(run, told);
  }

  /** A run's first entry. One that does not begin with a launch was begun before the log was: it may be anywhere. */
  private begun(entry: Entry, told: Told): Held[] | undefined {
    const launched = this.launched(entry, told);
    if (entry.used !== undefined && entry.event === undefined)
      return this.used({ held: launched, open: false, before: [], cut: false }, entry.used, told) ?? launched;
    if (launched.length > 0 || entry.event?.do === "launch") return some(launched);
    const starts = beginnings(this.app, entry).map((state) => this.from(state));
    const { event } = entry;
    const ways = starts.flatMap((one) => (event ? this.by(one, event, told) : this.entered(one, told)));
    if (ways.length > 0) return ways;
    const anywhere = this.resumed({ held: [], open: false, before: [], cut: false }, entry, told);
    return anywhere.length > 0 ? anywhere : undefined;
  }

  private launched(entry: Entry, told: Told): Held[] {
    if (entry.event && entry.event.do !== "launch") return [];
    return beginnings(this.app, entry).flatMap((state) => {
      const fits = agreed(this.app.plan, state, told, NONE, this.madeUp);
      return fits ? [this.from(fits)] : [];
    });
  }

  private entered(one: Held, told: Told): Held[] {
    return anyWays(this.project, this.app, one.state).flatMap((way) => (way.event.do === "enter" ? this.go(one, way, told) : []));
  }

  /** Put back to where it was: the states of that line that were met, latest first, else the state of the line. */
  private restored(run: Run, entry: Entry, told: Told): Held[] | undefined {
    const seen = run.before.filter((state) => agreed(this.app.plan, state, { ...told, args: {} }, NONE, this.madeUp)).reverse();
    const states = seen.length > 0 ? seen : somewhere(this.project, this.app, told, entry, run.before.slice(-1));
    const facts = { ...run.held[0]?.state.facts, ...factsFitting(this.app, entry.facts) };
    return some(
      states.flatMap((state) => {
        const fits = agreed(this.app.plan, { ...state, facts }, told, allArguments(this.app, state), this.madeUp);
        return fits ? [this.from(fits)] : [];
      }),
    );
  }

  private stepped(run: Run, event: NavEvent, told: Told): Held[] | undefined {
    const [only] = run.held;
    const exact = only && run.held.length === 1 ? this.by(only, event, told) : run.held.flatMap((one) => this.by(one, event, told));
    if (exact.length > 0) return exact;
    const others = run.held.flatMap((one) =>
      withFacts(this.app, one.state).flatMap(({ before }) => {
        const begun = before.reduce((held, fact) => this.after(held, fact.event, "moved", fact.state), one);
        return before.length === 0 ? [] : this.by(begun, event, told);
      }),
    );
    return some(others);
  }

  /** Steps by an event that is known, with rows that the design does not have where its own do not do. */
  private by(one: Held, event: NavEvent, told: Told): Held[] {
    const exact = this.go(one, { event, app: this.app, given: event }, told);
    return exact.length > 0 ? exact : otherWays(this.project, this.app, one.state, event).flatMap((way) => this.go(one, { ...way, given: event }, told));
  }

  private used(run: Run, used: string, told: Told): Held[] | undefined {
    const all = (state: State) => [...this.moves.likely(state), ...this.moves.seldom(state)].filter(({ event }) => startsAt(this.project, event, used));
    return some(run.held.flatMap((one) => this.moved(one, all(one.state), told)));
  }

  /** By any one event, or none. Where an entry tells nothing but the screen, and no trails are kept, what it comes to is remembered. */
  private shown(run: Run, told: Told): Held[] | undefined {
    if (this.options.trails || run.open || told.line !== undefined || told.shows === undefined || Object.keys(told.args).length > 0) {
      const { held, cut } = this.byAnything(run, told);
      run.cut ||= cut;
      return held;
    }
    const turn = this.sets.turn(run.held, told.shows, () => this.byAnything(run, told));
    run.cut ||= turn.cut;
    return turn.held;
  }

  /** Where very much is possible already, what happens seldom is thought of only if nothing else fits. */
  private byAnything(run: Run, told: Told): Turn {
    const same = run.held.flatMap((one) => this.stays(one, told));
    if (run.open && same.length > 0) return { held: same, cut: false };
    const likely = [...same, ...run.held.flatMap((one) => this.moved(one, this.moves.likely(one.state), told))];
    if (likely.length > 0 && run.held.length > MOST_WITH_SELDOM) return { held: likely, cut: true };
    return { held: some([...likely, ...run.held.flatMap((one) => this.moved(one, this.moves.seldom(one.state), told))]), cut: false };
  }

  private moved(one: Held, moves: readonly Move[], told: Told): Held[] {
    return moves.flatMap(({ before, event, state, fired, passed, free }) => {
      const fits = agreed(this.app.plan, state, told, free, this.madeUp);
      if (!fits) return [];
      const begun = before.reduce((held, fact) => this.after(held, fact.event, "moved", fact.state), one);
      const unlikely = one.unlikely + before.length + (isSeldom(event) ? 1 : 0);
      return [{ ...this.after(begun, event, "moved", fits), fired, passed, unlikely }];
    });
  }

  private stays(one: Held, told: Told): Held[] {
    const state = agreed(this.app.plan, one.state, told, NONE, this.madeUp);
    return state ? [{ ...one, state, event: undefined, outcome: "ignored", fired: [], passed: [] }] : [];
  }

  /** Steps one way; nothing where the entry contradicts it, or says nothing of what shows while there is no such control. */
  private go(one: Held, { event, app, given }: Way, told: Told): Held[] {
    const result = step(app, one.state, event);
    const idle = result.outcome === "ignored" && result.why === "no-such-control";
    if (idle && !tells(told) && CONTROLS.includes(event.do)) return [];
    const free = result.outcome === "moved" ? freeArguments(this.project, event, given, result.log.fired) : NONE;
    const state = agreed(this.app.plan, result.state, told, free, this.madeUp);
    if (!state) return [];
    return [this.after(one, event, result.outcome, state, result.log)];
  }

  private resumed(run: Run, entry: Entry, told: Told): Held[] {
    if (!tells(told)) return [...run.held];
    const from = run.held.map(({ state }) => state);
    return somewhere(this.project, this.app, told, entry, from).flatMap((state) => {
      // A line says more than the name of a screen: where they contradict each other, it is the line that is gone on from.
      const isLine = told.line !== undefined && stateLine(this.app.plan, state) === told.line;
      const wanted = isLine ? { ...told, shows: undefined, meant: undefined } : told;
      const as = agreed(this.app.plan, state, { ...wanted, line: undefined }, allArguments(this.app, state), this.madeUp);
      return as ? [this.from(as)] : [];
    });
  }

  private from(state: State): Held {
    const trail: Trail | undefined = this.options.trails ? { event: undefined, outcome: "moved", state, before: undefined } : undefined;
    return { state, trail, event: undefined, outcome: "moved", fired: [], passed: [], unlikely: 0 };
  }

  private after(one: Held, event: NavEvent, outcome: Held["outcome"], state: State, { fired, passed }: Pick<Log, "fired" | "passed"> = QUIET): Held {
    const trail = this.options.trails ? { event, outcome, state, before: one.trail } : undefined;
    return { state, trail, event, outcome, fired, passed, unlikely: one.unlikely };
  }
}

const NONE: ReadonlySet<string> = new Set();
/** A step of which nothing is known but where it led. */
const QUIET = { fired: [], passed: [] };
/** Events that need a control which shows. */
const CONTROLS: ReadonlyArray<NavEvent["do"]> = ["leg", "tab", "pick", "close", "lead"];

function some<T>(list: T[]): T[] | undefined {
  return list.length > 0 ? list : undefined;
}

/** The app as its code runs it: screens with an address of their own can be come in to by it. */
function followedApp(project: Project): App {
  return once(project, (one) => plainApp(planFrom(planData(one))));
}
