import { wrap } from "comlink";
import { useState } from "react";
import type { NavEvent, Screen } from "../../core/model/schema.ts";
import { Button } from "../parts/Button.tsx";
import { useDocument } from "../store/document.ts";
import { useWalk } from "../store/walk.ts";
import type { CheckApi } from "../workers/check.worker.ts";

/** Walks to a screen by the shortest real way; says so where there is none. */
export function WalkHere({ screen }: { screen: Screen }) {
  const project = useDocument((d) => d.project);
  const load = useWalk((w) => w.load);
  const [looking, setLooking] = useState<"no" | "yes" | "nothing">("no");
  const look = async () => {
    setLooking("yes");
    const worker = new Worker(new URL("../workers/check.worker.ts", import.meta.url), { type: "module" });
    const events: NavEvent[] | undefined = await wrap<CheckApi>(worker).wayTo(project, screen.id);
    worker.terminate();
    setLooking(events ? "no" : "nothing");
    if (events) load(events);
  };
  return (
    <div>
      <Button tone="main" disabled={looking === "yes"} onClick={() => void look()}>
        {looking === "yes" ? "Looking for a way…" : "Walk from here"}
      </Button>
      {looking === "nothing" && (
        <p role="status" className="m-0 mt-1 text-[12px] text-ink-2">
          No walk leads here: not by taps from launch, nor by a way in. Lead something to it first, or add a way in.
        </p>
      )}
    </div>
  );
}
