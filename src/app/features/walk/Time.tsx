import { eventText } from "../../../core/insight/explain.ts";
import { nameOf, targetOf } from "../../../core/model/lookup.ts";
import type { Project } from "../../../core/model/schema.ts";
import { useWalk } from "../../session/hooks.ts";
import { Button } from "../../ui/Button.tsx";

import { legOf } from "./gestures.ts";
import type { Hands } from "./useHands.ts";

/** Time on the device: what happens by itself after a while, when it does, and a way not to wait for it. */
export function Time({ project, hands }: { project: Project; hands: Hands }) {
  const { time, hold } = useWalk();
  const { waits } = hands;
  if (waits.length === 0) return null;
  return (
    <div role="group" aria-label="Time" className="flex w-full flex-wrap items-center gap-x-2 gap-y-1 text-[12px] text-ink-2">
      {waits.map((event) => {
        const leg = legOf(project, event);
        const to = leg && targetOf(leg);
        return (
          <span key={event.leg} className="flex items-center gap-2">
            <span>
              {time === "passes" ? "Then" : time === "held" ? "Time is held" : "Time waits while you look at the steps"}: {eventText(project, event)}
              {to === undefined ? "" : `, “${nameOf(project, to)}”`}
            </span>
            <Button onClick={() => hands.send(event)}>Now</Button>
          </span>
        );
      })}
      {time !== "passes" && (
        <Button tone="quiet" onClick={() => hold(false)}>
          Let it pass
        </Button>
      )}
    </div>
  );
}
