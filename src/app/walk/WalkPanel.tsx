import { useEffect, useRef, useState } from "react";
import { available } from "../../core/engine/available.ts";
import { eventText } from "../../core/engine/explain.ts";
import { stateLine } from "../../core/engine/line.ts";
import { currentScreen } from "../../core/engine/state.ts";
import { lookup, nameOf } from "../../core/model/lookup.ts";
import { Button } from "../parts/Button.tsx";
import { useDocument } from "../store/document.ts";
import { useWalk, useWalkState } from "../store/walk.ts";
import { Beneath } from "./Beneath.tsx";
import { Device } from "./Device.tsx";
import { useHands } from "./useHands.ts";

/** The device, what lies beneath, the controls outside it, and the steps so far. */
export function WalkPanel() {
  const project = useDocument((d) => d.project);
  const { follow, steps, at, goTo, restart, send, reason } = useWalk();
  const state = useWalkState();
  const hands = useHands(project, state);
  useEffect(() => follow(project), [follow, project]);
  if (!state) return null;
  const narrow = state.width === "narrow";
  return (
    <section aria-label="Walk" className="flex flex-col gap-2 p-3">
      <div className={narrow ? "flex gap-3" : "flex flex-col gap-2"}>
        <div className="relative">
          <Device project={project} state={state} hands={hands} room={narrow ? 196 : 296} />
          {hands.outcomes && (
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
          )}
        </div>
        <Beneath project={project} state={state} />
      </div>
      {hands.told && (
        <p role="status" className="m-0 border-l-2 border-warm pl-2 text-[12px]">
          {hands.told}
        </p>
      )}
      {reason && at === steps.length && (
        <p role="status" data-reason className="m-0 border-l-2 border-urgent pl-2 text-[12px]">
          {reason}
        </p>
      )}
      <div className="flex flex-wrap gap-1.5">
        <Button onClick={() => hands.send({ do: "back" })}>← Back</Button>
        <WaysIn />
        <Button onClick={restart} disabled={steps.length === 0}>
          From start
        </Button>
      </div>
      <Outside />
      <h3 className="caption m-0 border-t border-hairline pt-2">Steps</h3>
      <ol className="relative m-0 max-h-[172px] list-none overflow-y-auto p-0" aria-label="Steps">
        <StepRow
          number={0}
          text="launch"
          shows={nameOf(project, currentScreen(useWalk.getState().start ?? state).at)}
          current={at === 0}
          onClick={() => goTo(0)}
        />
        {steps.map((one, i) => (
          <StepRow
            key={i}
            number={i + 1}
            text={eventText(project, one.event)}
            shows={one.outcome === "moved" ? nameOf(project, currentScreen(one.state).at) : one.outcome}
            trouble={one.outcome === "refused" || one.outcome === "ignored"}
            current={at === i + 1}
            later={i + 1 > at}
            onClick={() => goTo(i + 1)}
          />
        ))}
      </ol>
      <p className="m-0 font-mono text-[10.5px] leading-snug break-all text-ink-2" data-testid="line" title="The state line">
        {stateLine(project, state)}
      </p>
      <Waits onSend={send} />
    </section>
  );
}

function StepRow(props: { number: number; text: string; shows: string; current: boolean; later?: boolean; trouble?: boolean; onClick: () => void }) {
  const { number, text, shows, current, later, trouble, onClick } = props;
  const row = useRef<HTMLLIElement>(null);
  useEffect(() => {
    const list = row.current?.parentElement;
    if (!current || !row.current || !list) return;
    const { offsetTop, offsetHeight } = row.current;
    if (offsetTop < list.scrollTop || offsetTop + offsetHeight > list.scrollTop + list.clientHeight)
      list.scrollTop = offsetTop + offsetHeight - list.clientHeight;
  }, [current]);
  return (
    <li ref={row}>
      <button
        type="button"
        onClick={onClick}
        aria-current={current ? "step" : undefined}
        className={`flex min-h-6 w-full items-baseline gap-2 px-1.5 text-left text-[12px] ${current ? "bg-accent-soft font-semibold" : "hover:bg-band"} ${later ? "opacity-50" : ""}`}
      >
        <span className="w-4 shrink-0 font-mono text-[11px] text-ink-2">{number}</span>
        <span className="min-w-0 flex-1 truncate">{text}</span>
        <span className={`truncate text-[11px] ${trouble ? "text-urgent" : "text-ink-2"}`}>{shows}</span>
      </button>
    </li>
  );
}

/** The ways in from outside, as a tray. */
function WaysIn() {
  const project = useDocument((d) => d.project);
  const state = useWalkState();
  const send = useWalk((w) => w.send);
  const [open, setOpen] = useState(false);
  if (!state) return null;
  const ways = available(project, state).flatMap((event) => (event.do === "enter" ? [event] : []));
  return (
    <div className="relative">
      <Button aria-expanded={open} onClick={() => setOpen(!open)}>
        Ways in
      </Button>
      {open && (
        <div className="absolute top-full right-0 z-20 mt-1 w-60 border border-ink bg-sheet p-2 shadow-lg">
          {ways.length === 0 && <p className="m-0 text-[12px] text-ink-2">No way in can be used now. They are added in the outline.</p>}
          {ways.map((event) => (
            <button
              key={`${event.entrance} ${event.cold}`}
              type="button"
              className="block min-h-7 w-full px-1 text-left text-[12px] hover:bg-band"
              onClick={() => {
                send(event);
                setOpen(false);
              }}
            >
              {nameOf(project, event.entrance)} <span className="text-ink-2">{event.cold ? "app not running" : "app running"}</span>
            </button>
          ))}
          <button
            type="button"
            className="block min-h-7 w-full border-t border-hairline px-1 text-left text-[12px] hover:bg-band"
            onClick={() => {
              send({ do: "launch" });
              setOpen(false);
            }}
          >
            Launch anew
          </button>
        </div>
      )}
    </div>
  );
}

/** Facts from outside and the width, which nobody in the app can change. */
function Outside() {
  const project = useDocument((d) => d.project);
  const state = useWalkState();
  const send = useWalk((w) => w.send);
  if (!state) return null;
  const outside = project.facts.filter((fact) => fact.source === "outside");
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-1 text-[12px]">
      <label className="flex items-center gap-1 text-ink-2">
        width
        <select
          value={state.width}
          onChange={(event) => send({ do: "width", to: event.target.value as typeof state.width })}
          className="h-6 border border-hairline bg-paper text-ink"
        >
          <option value="narrow">narrow</option>
          <option value="middle">middle</option>
          <option value="wide">wide</option>
        </select>
      </label>
      {outside.map((fact) =>
        fact.type === "boolean" ? (
          <label key={fact.id} className="flex items-center gap-1 text-ink-2">
            <input
              type="checkbox"
              checked={state.facts[fact.id] === true}
              onChange={(event) => send({ do: "fact", fact: fact.id, value: event.target.checked })}
              className="accent-(--accent)"
            />
            {fact.name ?? fact.id}
          </label>
        ) : (
          <label key={fact.id} className="flex items-center gap-1 text-ink-2">
            {fact.name ?? fact.id}
            <select
              value={String(state.facts[fact.id])}
              onChange={(event) => send({ do: "fact", fact: fact.id, value: event.target.value })}
              className="h-6 border border-hairline bg-paper text-ink"
            >
              {fact.values?.map((value) => (
                <option key={value}>{value}</option>
              ))}
            </select>
          </label>
        ),
      )}
    </div>
  );
}

/** Legs that the clock would take now. */
function Waits({ onSend }: { onSend: ReturnType<typeof useWalk.getState>["send"] }) {
  const project = useDocument((d) => d.project);
  const state = useWalkState();
  if (!state) return null;
  const waits = available(project, state).filter((event) => event.do === "leg" && lookup(project).legs.get(event.leg)?.on.kind === "after");
  return waits.map((event) => (
    <Button key={JSON.stringify(event)} onClick={() => onSend(event)}>
      {eventText(project, event)}
    </Button>
  ));
}
