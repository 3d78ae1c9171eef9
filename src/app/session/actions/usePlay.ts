import { useCallback } from "react";
import type { PlainFinding } from "../../worker/protocol.ts";
import { useWalkStore } from "../hooks.ts";
import { playFromStart } from "./playing.ts";

/** Plays a finding's walk on the device, step by step, with the reason at its end. */
export function usePlay(): (finding: PlainFinding) => void {
  const walk = useWalkStore();
  return useCallback(
    (finding) => {
      walk.getState().load(finding.walk ?? [], { reason: finding.message, at: 0 });
      playFromStart(walk);
    },
    [walk],
  );
}
