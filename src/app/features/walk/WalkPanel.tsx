import { Suspense, useDeferredValue, useState } from "react";
import type { Width } from "../../../core/model/schema.ts";
import { useDocument, useSelection, useWalk, useWalkState } from "../../session/hooks.ts";
import { Button } from "../../ui/Button.tsx";
import { Later, preload } from "../../ui/preloaded.tsx";
import { type Size, useSize } from "../../ui/useSize.ts";
import { Device, SIZES } from "./Device.tsx";
import { type Hands, type Told, useHands } from "./useHands.ts";

const Controls = preload(async () => (await import("./Controls.tsx")).Controls);
const Outside = preload(async () => (await import("./Controls.tsx")).Outside);
const Beneath = preload(async () => (await import("./Beneath.tsx")).Beneath);
const Steps = preload(async () => (await import("./Steps.tsx")).Steps);
const Walks = preload(async () => (await import("./Walks.tsx")).Walks);

/** The size of the drawn device that is largest in some room, in its own pixels of width. */
function roomFor({ width, height }: Size, of: Width): number {
  const { width: wide, height: high } = SIZES[of];
  return Math.max(120, Math.min(width, (height / high) * wide));
}

/** Pixels that what lies beneath needs beside the device, and those that the controls need under it. */
const BESIDE = 102;
const UNDER = 190;
const PADDING = 24;

/** The device, what lies beneath, the controls outside it, the steps so far, and the walks that are kept. */
export function WalkPanel() {
  const { project, state, hands } = useWalked();
  const [frame, size] = useSize();
  const [marks, setMarks] = useState(false);
  const narrow = state?.width === "narrow";
  const room = size && state ? roomFor({ width: size.width - PADDING - (narrow ? BESIDE : 0), height: size.height - UNDER }, state.width) : 0;
  return (
    <section ref={frame} aria-label="Walk" className="h-full overflow-y-auto p-3">
      {state && size && (
        <div className="flex flex-col gap-2">
          <div className={narrow ? "flex gap-3" : "contents"}>
            <div className="flex shrink-0 flex-col gap-2 self-start" style={{ width: narrow ? room : undefined }}>
              <div className={`relative self-start ${marks ? "marks-live" : ""}`}>
                <Device project={project} state={state} hands={hands} room={room} />
                <Outcomes hands={hands} />
              </div>
              <Suspense>
                <Later part={Controls} project={project} state={state} hands={hands} />
              </Suspense>
            </div>
            {narrow && (
              <Suspense>
                <Later part={Beneath} project={project} state={state} />
              </Suspense>
            )}
          </div>
          <Says hands={hands} />
          <Suspense>
            <Later part={Outside} project={project} state={state} hands={hands} marks={marks} onMarks={setMarks} />
            {!narrow && <Later part={Beneath} project={project} state={state} />}
            <Later part={Steps} project={project} />
            <Later part={Walks} />
          </Suspense>
        </div>
      )}
    </section>
  );
}

/** The project as the walk knows it, its state, and the hands on the device. */
export function useWalked() {
  // The map shows an edit first; the device follows.
  const project = useDeferredValue(useDocument((d) => d.project));
  const state = useWalkState();
  return { project, state, hands: useHands(project, state) };
}

/** Why a tap did nothing, or what the walk is evidence for, at its end. */
export function Says({ hands }: { hands: Hands }) {
  const { steps, at, reason } = useWalk();
  return (
    <>
      {hands.told && <ToldWhy told={hands.told} />}
      {reason && at === steps.length && (
        <p role="status" data-reason className="m-0 border-l-2 border-urgent pl-2 text-[12px]">
          {reason}
        </p>
      )}
    </>
  );
}

/** How the app decided after a tap: the person who walks chooses. */
export function Outcomes({ hands }: { hands: Hands }) {
  if (!hands.outcomes) return null;
  return (
    <div className="absolute inset-x-3 bottom-6 border border-ink bg-sheet p-2 shadow-lg" role="dialog" aria-label="How it comes out">
      <p className="m-0 mb-1 text-[12px]">“{hands.outcomes.label}”: how does it come out?</p>
      <div className="flex flex-col gap-1">
        {hands.outcomes.choices.map(({ outcome, event }) => (
          <Button key={outcome} onClick={() => hands.choose(event)}>
            {outcome}
          </Button>
        ))}
        <Button tone="quiet" onClick={() => hands.choose(undefined)}>
          not yet
        </Button>
      </div>
    </div>
  );
}

/** Why a tap did nothing, with the leg to look at or the element that has none. */
function ToldWhy({ told }: { told: Told }) {
  const { select, link } = useSelection();
  const { leg, element } = told;
  return (
    <p role="status" data-told className="m-0 border-l-2 border-warm pl-2 text-[12px]">
      {told.text}{" "}
      {leg !== undefined && (
        <Button tone="link" onClick={() => select({ kind: "leg", id: leg })}>
          Show the leg
        </Button>
      )}
      {element && (
        <Button tone="link" onClick={() => link(element)}>
          Lead it somewhere…
        </Button>
      )}
    </p>
  );
}
