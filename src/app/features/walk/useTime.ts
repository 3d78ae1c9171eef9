import { useEffect, useMemo, useRef } from "react";
import { available } from "../../../core/insight/available.ts";
import type { NavEvent, Project } from "../../../core/model/schema.ts";
import type { State } from "../../../core/semantics/types.ts";
import { useWalk } from "../../session/hooks.ts";

import { legOf } from "./gestures.ts";

type LegEvent = Extract<NavEvent, { do: "leg" }>;

/** The longest that a browser's timer can wait, in milliseconds. */
const LONGEST = 2 ** 31 - 1;

/**
 * Lets time pass on the device: a leg that waits for so many milliseconds fires when it has waited them without a break.
 * Gives the legs that wait now. While time is held nothing fires, and waiting begins again when it is let go.
 */
export function useTime(project: Project, state: State | undefined, send: (event: NavEvent) => void): LegEvent[] {
  const passes = useWalk((w) => w.time === "passes");
  const waits = useMemo(
    () => (state ? available(project, state) : []).flatMap((event) => (event.do === "leg" && legOf(project, event)?.on.kind === "after" ? [event] : [])),
    [project, state],
  );
  const since = useRef(new Map<string, number>());
  const latest = useRef(send);
  latest.current = send;
  useEffect(() => {
    const now = performance.now();
    since.current = new Map(passes ? waits.map(({ leg }) => [leg, since.current.get(leg) ?? now]) : []);
    const due = waits.map((event) => {
      const on = legOf(project, event)?.on;
      return { event, at: (since.current.get(event.leg) ?? now) + (on?.kind === "after" ? on.ms : 0) };
    });
    const [first] = due.sort((a, b) => a.at - b.at);
    if (!passes || !first) return;
    const timer = setTimeout(
      () => {
        since.current.delete(first.event.leg);
        latest.current(first.event);
      },
      Math.min(Math.max(0, first.at - now), LONGEST),
    );
    return () => clearTimeout(timer);
  }, [project, waits, passes]);
  return waits;
}
