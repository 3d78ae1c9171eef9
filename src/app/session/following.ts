import { createStore, type StoreApi } from "zustand";
import type { Project } from "../../core/model/schema.ts";
import type { FollowingState } from "./followingState.ts";
import type { FollowLive } from "./followLive.ts";
import type { WalkState } from "./walk.ts";

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
