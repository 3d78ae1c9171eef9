import { createStore, type StoreApi } from "zustand";
import type { Logged } from "../../core/following/entry.ts";
import type { FollowReport } from "../../core/following/tally.ts";
import type { Project } from "../../core/model/schema.ts";
import type { WalkState } from "./walk.ts";

export interface FollowingState {
  /** The log that is followed: a file, or what a running app tells. */
  source: string | undefined;
  report: FollowReport | undefined;
  /** The run that was heard of last, and the screen that it shows. */
  run: string | undefined;
  now: string | undefined;
  /** Lines that could not be read, the first few. */
  unreadable: string[];
  /** What the walk does with a running app: goes along, or stays. */
  along: boolean;
  setAlong: (along: boolean) => void;
  /** Follows more of a log: lines as they were written. A new source begins anew. */
  take: (source: string, lines: readonly string[]) => Promise<void>;
  /** Follows the same log by another document. */
  again: (project: Project) => Promise<void>;
}

/** Entries that are kept to be followed again when the document changes. */
const MOST = 20_000;
/** Steps of a run that the walk shows. */
const SHOWN = 200;

/** A running app, or its log, held against the open document. What follows is loaded when there is something to follow. */
export function createFollowing(walk: StoreApi<WalkState>, projectOf: () => Project): StoreApi<FollowingState> {
  let log: Logged[] = [];
  let row = 0;
  let turn: Promise<void> = Promise.resolve();
  const inTurn = (work: () => Promise<void>) => {
    turn = turn.then(work, work);
    return turn;
  };
  const store = createStore<FollowingState>((set, get) => {
    let tally: import("../../core/following/tally.ts").Tally | undefined;
    const follow = async (project: Project, entries: readonly Logged[]) => {
      const { Tally } = await import("../../core/following/tally.ts");
      if (tally?.project !== project) {
        tally = new Tally(project, { trails: true });
        for (const one of log) tally.take(one);
      } else for (const one of entries) tally.take(one);
      const run = log.at(-1)?.entry.run;
      const state = run === undefined ? undefined : tally.follower.statesOf(run)[0];
      const { currentScreen } = await import("../../core/semantics/state.ts");
      set({ report: tally.report, run, now: state && currentScreen(state).at });
      if (run !== undefined && get().along) show(run);
    };
    /** The walk goes where the app went. */
    const show = (run: string) => {
      const steps: WalkState["steps"] = [];
      let trail = tally?.follower.trailOf(run);
      while (trail?.before && steps.length < SHOWN) {
        if (trail.event) steps.unshift({ event: trail.event, outcome: trail.outcome, sentence: "", state: trail.state });
        trail = trail.before;
      }
      if (trail) walk.getState().show(trail.state, steps, "As the running app goes");
    };
    return {
      source: undefined,
      report: undefined,
      run: undefined,
      now: undefined,
      unreadable: [],
      along: true,
      setAlong: (along) => set({ along }),
      take: (source, lines) =>
        inTurn(async () => {
          if (source !== get().source) {
            log = [];
            row = 0;
            tally = undefined;
            set({ source, report: undefined, run: undefined, now: undefined, unreadable: [] });
          }
          const { readEntry } = await import("../../core/following/read.ts");
          const entries: Logged[] = [];
          for (const line of lines) {
            row += 1;
            const read = readEntry(line);
            if ("entries" in read) for (const entry of read.entries) entries.push({ entry, row });
            else set(({ unreadable }) => (unreadable.length < 5 ? { unreadable: [...unreadable, `Line ${row}: ${read.problem}`] } : {}));
          }
          log.push(...entries);
          if (log.length > MOST) log = log.slice(-MOST);
          if (log.length > 0) await follow(projectOf(), entries);
        }),
      again: (project) => inTurn(async () => (log.length > 0 ? follow(project, []) : undefined)),
    };
  });
  return store;
}
