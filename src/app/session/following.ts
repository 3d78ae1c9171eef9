import { createStore, type StoreApi } from "zustand";
import type { FollowReport } from "../../core/following/tally.ts";
import type { Project } from "../../core/model/schema.ts";
import type { FollowLive } from "./followLive.ts";
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
  /** Whether the walk goes where the app goes. */
  along: boolean;
  setAlong: (along: boolean) => void;
  /** Follows more of a log: lines as they were written. A new source begins anew. */
  take: (source: string, lines: readonly string[]) => void;
  /** Follows the same log by another document. */
  again: (project: Project) => void;
}

/** A running app, or its log, held against the open document. What does it is loaded when there is something to follow. */
export function createFollowing(walk: StoreApi<WalkState>, projectOf: () => Project): StoreApi<FollowingState> {
  let live: FollowLive | undefined;
  let turn: Promise<void> = Promise.resolve();
  const store = createStore<FollowingState>((set) => ({
    source: undefined,
    report: undefined,
    run: undefined,
    now: undefined,
    unreadable: [],
    along: true,
    setAlong: (along) => set({ along }),
    take: (source, lines) => {
      turn = turn.then(async () => {
        live ??= new (await import("./followLive.ts")).FollowLive(store, walk);
        live.take(projectOf(), source, lines);
      });
    },
    again: (project) => live?.follow(project),
  }));
  return store;
}
