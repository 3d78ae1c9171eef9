import { useDeferredValue, useEffect, useState } from "react";
import { Button } from "../parts/Button.tsx";
import { useDocument } from "../store/document.ts";
import { useSelection } from "../store/selection.ts";
import { useWalk, useWalkState } from "../store/walk.ts";
import { Beneath } from "./Beneath.tsx";
import { Controls, Outside } from "./Controls.tsx";
import { Device } from "./Device.tsx";
import { Steps } from "./Steps.tsx";
import { type Hands, type Told, useHands } from "./useHands.ts";
import { Walks } from "./Walks.tsx";

/** The device, what lies beneath, the controls outside it, the steps so far, and the walks that are kept. */
export function WalkPanel() {
  // The map shows an edit first; the device follows.
  const project = useDeferredValue(useDocument((d) => d.project));
  const { follow, steps, at, reason } = useWalk();
  const state = useWalkState();
  const hands = useHands(project, state);
  const [marks, setMarks] = useState(false);
  useEffect(() => follow(project), [follow, project]);
  if (!state) return null;
  const narrow = state.width === "narrow";
  return (
    <section aria-label="Walk" className="flex flex-col gap-2 p-3">
      <div className={narrow ? "flex gap-3" : "flex flex-col gap-2"}>
        <div className={`relative shrink-0 ${marks ? "marks-live" : ""}`}>
          <Device project={project} state={state} hands={hands} room={narrow ? 200 : state.width === "middle" ? 384 : 544} />
          <Outcomes hands={hands} />
        </div>
        <Beneath project={project} state={state} />
      </div>
      {hands.told && <ToldWhy told={hands.told} />}
      {reason && at === steps.length && (
        <p role="status" data-reason className="m-0 border-l-2 border-urgent pl-2 text-[12px]">
          {reason}
        </p>
      )}
      <Controls project={project} state={state} hands={hands} />
      <Outside project={project} state={state} hands={hands} marks={marks} onMarks={setMarks} />
      <Steps project={project} />
      <Walks />
    </section>
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
