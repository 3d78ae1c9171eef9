import type { StoreApi } from "zustand";
import { SPEEDS, type WalkState } from "../walk.ts";
import { stepOnMoving } from "./play.ts";

/** Plays the walk that is loaded from where it stands to its end; a newer one stops an older. */
export function playFromStart(walk: StoreApi<WalkState>) {
  const pause = () => SPEEDS[walk.getState().speed];
  const next = () => {
    const { at, steps, later } = walk.getState();
    if (at >= steps.length) return;
    stepOnMoving(walk);
    later(pause(), next);
  };
  walk.getState().later(pause() / 2, next);
}
