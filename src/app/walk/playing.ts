import { create } from "zustand";
import { useWalk } from "../store/walk.ts";
import { stepOnMoving } from "./play.ts";

/** Milliseconds between the steps of a walk that is played. */
export const SPEEDS = { slowly: 1600, steadily: 650, quickly: 160 } as const;
export type Speed = keyof typeof SPEEDS;

export const usePlaying = create<{ speed: Speed; setSpeed: (speed: Speed) => void }>((set) => ({ speed: "steadily", setSpeed: (speed) => set({ speed }) }));

let timer: ReturnType<typeof setTimeout> | undefined;

/** Plays the walk that is loaded from where it stands to its end; a newer one stops an older. */
export function playFromStart() {
  clearTimeout(timer);
  const next = () => {
    const { at, steps } = useWalk.getState();
    if (at >= steps.length) return;
    stepOnMoving();
    timer = setTimeout(next, SPEEDS[usePlaying.getState().speed]);
  };
  timer = setTimeout(next, SPEEDS[usePlaying.getState().speed] / 2);
}

export function stopPlaying() {
  clearTimeout(timer);
}
