import type { StoreApi } from "zustand";
import type { Logged } from "../../core/following/entry.ts";
import { LogReader } from "../../core/following/read.ts";
import { Tally } from "../../core/following/tally.ts";
import type { Project } from "../../core/model/schema.ts";
import { currentScreen } from "../../core/semantics/state.ts";
import type { FollowingState } from "./followingState.ts";
import type { WalkState } from "./walk.ts";

/** Entries that are kept to be followed again when the document changes. */
const MOST = 20_000;
/** Steps of a run that the walk shows. */
const SHOWN = 200;
/** Lines that could not be read and are named. */
const NAMED = 5;

/** What follows a log for the page, and takes the walk along. */
export class FollowLive {
  private log: Logged[] = [];
  private readonly reader = new LogReader();
  private row = 0;
  private tally: Tally | undefined;

  constructor(
    private readonly store: StoreApi<FollowingState>,
    private readonly walk: StoreApi<WalkState>,
  ) {}

  take(project: Project, source: string, lines: readonly string[]) {
    const { store } = this;
    if (source !== store.getState().source) {
      this.log = [];
      this.row = 0;
      this.tally = undefined;
      store.setState({ source, report: undefined, run: undefined, now: undefined, unreadable: [] });
    }
    const entries: Logged[] = [];
    const unreadable = [...store.getState().unreadable];
    for (const line of lines) {
      this.row += 1;
      const read = this.reader.read(line);
      if ("entries" in read) for (const entry of read.entries) entries.push({ entry, row: this.row });
      else if (unreadable.length < NAMED) unreadable.push(`Line ${this.row}: ${read.problem}`);
    }
    store.setState({ unreadable });
    this.log.push(...entries);
    if (this.log.length > MOST) this.log = this.log.slice(-MOST);
    this.follow(project, entries);
  }

  /** Follows what is new; by another document, all of it again. */
  follow(project: Project, entries: readonly Logged[] = []) {
    if (this.log.length === 0) return;
    if (this.tally?.project !== project) {
      this.tally = new Tally(project, { trails: true });
      for (const one of this.log) this.tally.take(one);
    } else for (const one of entries) this.tally.take(one);
    const run = this.log.at(-1)?.entry.run ?? "";
    const [state] = this.tally.follower.statesOf(run);
    this.store.setState({ report: this.tally.report, run, now: state && currentScreen(state).at });
    if (this.store.getState().along) this.show(this.tally, run);
  }

  /** The walk goes where the app went. */
  private show(tally: Tally, run: string) {
    const steps: WalkState["steps"] = [];
    let trail = tally.follower.trailOf(run);
    while (trail?.before && steps.length < SHOWN) {
      if (trail.event) steps.unshift({ event: trail.event, outcome: trail.outcome, sentence: "", state: trail.state });
      trail = trail.before;
    }
    if (trail) this.walk.getState().show(trail.state, steps, "As the running app goes");
  }
}
