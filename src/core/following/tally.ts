import { eventText } from "../insight/explain.ts";
import type { Project } from "../model/schema.ts";
import { currentScreen } from "../semantics/state.ts";
import type { Departure } from "./departure.ts";
import { departureOf } from "./departure.ts";
import type { Entry, Logged } from "./entry.ts";
import { type Followed, Follower, type FollowOptions } from "./follower.ts";
import { type BrokenRule, Promises } from "./promises.ts";

/** The same departure, however often it happened. */
export interface Departed extends Departure {
  count: number;
  /** Where it happened first: the run, the line of the log, and the time where the log has it. */
  readonly run: string;
  readonly row: number;
  readonly at: string | undefined;
  /** More was possible than could be followed: perhaps it is none. */
  readonly unsure: boolean;
}

/** What a log comes to. */
export interface FollowReport {
  entries: number;
  runs: number;
  departures: Departed[];
  /** The team's rules that the log breaks. */
  rules: BrokenRule[];
  /** How often the app departs for sure, all kinds together, and how many kinds are not listed because there are too many. */
  departed: number;
  unlisted: number;
  /** By leg how often it was used, as far as the log tells; by screen how often it came to show. */
  legs: Record<string, number>;
  screens: Record<string, number>;
  /** Moves of which the log does not tell by which of several legs they were made. */
  unclear: number;
  /** What people did that did nothing: in words, with the screen. */
  idle: Array<{ did: string; screen: string; count: number }>;
  /** By number of screens how often people went so far back at a stretch. */
  backs: Record<number, number>;
  /** Controls that the log names and the design does not know, with how often. */
  controls: Record<string, number>;
  neverLegs: string[];
  neverScreens: string[];
}

/** Different departures, idle taps and names of controls that are told apart, at most: memory must not grow with the log. */
const MOST = 1_000;

/** Follows a log and counts what it tells. Entries of different runs may come in any mixture. */
export class Tally {
  readonly follower: Follower;
  private readonly promises: Promises;
  private readonly departures = new Map<string, Departed>();
  private readonly legs = new Map<string, number>();
  private readonly screens = new Map<string, number>();
  private readonly idle = new Map<string, { did: string; screen: string; count: number }>();
  private readonly backs = new Map<number, number>();
  private readonly controls = new Map<string, number>();
  /** By run, the screen that shows and how far people have gone back without doing anything else. */
  private readonly last = new Map<string, { screen: string | undefined; back: number }>();
  private latest: { run: string; last: { screen: string | undefined; back: number } } | undefined;
  private entries = 0;
  private runs = 0;
  private departed = 0;
  private unlisted = 0;
  private unclear = 0;

  constructor(
    readonly project: Project,
    options: FollowOptions = {},
  ) {
    this.follower = new Follower(project, options);
    this.promises = new Promises(project);
  }

  /** Takes the next entry; gives the departure, where it is one, and what may have happened. */
  take({ entry, row }: Logged): Followed & { departure: Departed | undefined } {
    const followed = this.follower.take(entry);
    this.entries += 1;
    const last = this.lastOf(entry.run);
    const departure = followed.is !== "follows" ? this.depart(entry, row, followed) : undefined;
    if (followed.is === "follows") this.count(entry, followed, last);
    this.promises.take(entry, row, followed);
    const screen = followed.held[0] && currentScreen(followed.held[0].state).at;
    const came = last.screen !== screen || followed.held.every(({ outcome, event }) => event !== undefined && outcome === "moved");
    if (screen !== undefined && came) add(this.screens, screen);
    last.screen = screen ?? last.screen;
    return { ...followed, departure };
  }

  get report(): FollowReport {
    const backs = new Map(this.backs);
    for (const { back } of this.last.values()) if (back > 0) add(backs, back);
    return {
      entries: this.entries,
      runs: this.runs,
      departures: [...this.departures.values()].sort((a, b) => Number(a.unsure) - Number(b.unsure) || b.count - a.count || a.row - b.row),
      rules: this.promises.report,
      departed: this.departed,
      unlisted: this.unlisted,
      legs: inOrder(this.legs),
      screens: inOrder(this.screens),
      unclear: this.unclear,
      idle: [...this.idle.values()].sort((a, b) => b.count - a.count),
      backs: Object.fromEntries([...backs].sort(([a], [b]) => a - b)),
      controls: inOrder(this.controls),
      neverLegs: this.project.legs.map(({ id }) => id).filter((id) => !this.legs.has(id)),
      neverScreens: this.project.screens.map(({ id }) => id).filter((id) => !this.screens.has(id)),
    };
  }

  private lastOf(run: string) {
    if (this.latest?.run === run) return this.latest.last;
    const known = this.last.get(run);
    const last = known ?? { screen: undefined, back: 0 };
    if (!known) this.runs += 1;
    this.latest = { run, last };
    this.last.delete(run);
    this.last.set(run, last);
    // A run that was heard of long ago is over; what it went back is counted.
    if (this.last.size > 2 * MOST)
      for (const [old, { back }] of this.last) {
        if (this.last.size <= 2 * MOST) break;
        if (back > 0) add(this.backs, back);
        this.last.delete(old);
      }
    return last;
  }

  private depart(entry: Entry, row: number, followed: Followed): Departed {
    const unsure = followed.is === "lost";
    if (!unsure) this.departed += 1;
    const told = departureOf(this.project, this.follower.app, entry, followed.before);
    const key = `${unsure} ${told.is} ${entry.event ? eventText(this.project, withoutInput(entry.event)) : entry.used} ${told.from} ${told.shows}`;
    const known = this.departures.get(key);
    if (known) {
      known.count += 1;
      return known;
    }
    const departed: Departed = { ...told, count: 1, run: entry.run, row, at: entry.at, unsure };
    if (this.departures.size < MOST) this.departures.set(key, departed);
    else this.unlisted += 1;
    return departed;
  }

  private count(entry: Entry, { held, before, unknown }: Followed, last: { back: number }) {
    const first = held[0];
    if (unknown && entry.used !== undefined && (this.controls.size < MOST || this.controls.has(entry.used))) add(this.controls, entry.used);
    if (!first) return;
    if (held.length === 1 || held.every(({ fired }) => fired.join() === first.fired.join())) for (const leg of first.fired) add(this.legs, leg);
    else if (held.every(({ fired }) => fired.length > 0)) this.unclear += 1;
    const event = entry.event ?? (held.length === 1 ? first.event : undefined);
    const isBack = first.outcome === "moved" && (event?.do === "back" || event?.do === "lead");
    if (isBack) last.back += 1;
    else if (event?.do !== "fact" && event?.do !== "width") {
      if (last.back > 0) add(this.backs, last.back);
      last.back = 0;
    }
    const was = before[0];
    if (event && was && (first.outcome === "ignored" || first.outcome === "refused") && event.do !== "fact" && event.do !== "width")
      this.nothing(eventText(this.project, withoutInput(event)), currentScreen(was).at);
  }

  private nothing(did: string, screen: string) {
    const key = `${did} ${screen}`;
    const known = this.idle.get(key);
    if (known) known.count += 1;
    else if (this.idle.size < MOST) this.idle.set(key, { did, screen, count: 1 });
  }
}

function withoutInput(event: NonNullable<Entry["event"]>): NonNullable<Entry["event"]> {
  return event.do === "leg" ? { do: "leg", leg: event.leg } : event;
}

function add<K>(map: Map<K, number>, key: K) {
  map.set(key, (map.get(key) ?? 0) + 1);
}

function inOrder(map: ReadonlyMap<string, number>): Record<string, number> {
  return Object.fromEntries([...map].sort(([a, x], [b, y]) => y - x || (a < b ? -1 : 1)));
}

/** Follows a whole log. */
export function followLog(project: Project, log: Iterable<Logged>): FollowReport {
  const tally = new Tally(project);
  for (const logged of log) tally.take(logged);
  return tally.report;
}
