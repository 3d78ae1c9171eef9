import { useCallback } from "react";
import { useWalk } from "../store/walk.ts";
import { playFromStart } from "../walk/playing.ts";
import type { PlainFinding } from "../workers/plain.ts";

/** Plays a finding's walk on the device, step by step, with the reason at its end. */
export function usePlay(): (finding: PlainFinding) => void {
  return useCallback((finding) => {
    useWalk.getState().load(finding.walk ?? [], { reason: finding.message, at: 0 });
    playFromStart();
  }, []);
}
