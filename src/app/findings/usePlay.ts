import { useCallback, useRef } from "react";
import { useWalk } from "../store/walk.ts";
import type { PlainFinding } from "../workers/plain.ts";

/** Milliseconds between the steps of a walk that is played. */
const BEAT = 650;

/** Plays a finding's walk on the device, step by step, with the reason at its end. */
export function usePlay(): (finding: PlainFinding) => void {
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  return useCallback((finding) => {
    clearTimeout(timer.current);
    const { load } = useWalk.getState();
    load(finding.walk ?? [], finding.message, 0);
    const next = () => {
      const { at, steps, goTo } = useWalk.getState();
      if (at >= steps.length) return;
      goTo(at + 1);
      timer.current = setTimeout(next, BEAT);
    };
    timer.current = setTimeout(next, BEAT / 2);
  }, []);
}
