import { lazy, Suspense, useMemo, useState } from "react";
import { eventText } from "../../../core/insight/explain.ts";
import type { Project } from "../../../core/model/schema.ts";
import type { State } from "../../../core/semantics/types.ts";
import { useWalk } from "../../session/hooks.ts";
import { Button } from "../../ui/Button.tsx";
import { swipesNow } from "./gestures.ts";
import { Time } from "./Time.tsx";
import type { Hands } from "./useHands.ts";

interface Props {
  project: Project;
  state: State;
  hands: Hands;
}

/** The list of ways in is loaded when it is opened first. */
const WaysIn = lazy(async () => ({ default: (await import("./WaysIn.tsx")).WaysIn }));

/** What is outside the device: the system's Back (which a phone has at hand already), the ways in, time, starting again. */
export function Controls({ project, state, hands, phone = false }: Props & { phone?: boolean }) {
  const { steps, restart, begun } = useWalk();
  const [open, setOpen] = useState(false);
  const ways = (
    <Button aria-haspopup="dialog" onClick={() => setOpen(!open)}>
      Ways in
    </Button>
  );
  const swipes = useMemo(() => swipesNow(project, state), [project, state]);
  return (
    <div className="flex flex-wrap gap-1.5">
      {!phone && <Button onClick={() => hands.send({ do: "back" })}>← Back</Button>}
      {open ? (
        <Suspense fallback={ways}>
          <WaysIn project={project} state={state} hands={hands} button={ways} onClose={() => setOpen(false)} />
        </Suspense>
      ) : (
        ways
      )}
      <Button onClick={restart} disabled={steps.length === 0 && !begun} title="R">
        From start
      </Button>
      {swipes.map((event) => (
        <Button key={JSON.stringify(event)} onClick={() => hands.send(event)}>
          {eventText(project, event)}
        </Button>
      ))}
      <Time project={project} hands={hands} />
    </div>
  );
}

/** Facts from outside and the width, which nobody in the app can change; and how the device is shown. */
export function Outside({
  project,
  state,
  hands,
  phone = false,
  marks = false,
  onMarks,
}: Props & { phone?: boolean; marks?: boolean; onMarks?: (on: boolean) => void }) {
  const { time, hold, slow, setSlow } = useWalk();
  const outside = project.facts.filter((fact) => fact.source === "outside");
  const label = "flex min-h-6 items-center gap-1 text-ink-2";
  return (
    <div className="flex flex-wrap items-center gap-x-3 text-[12px]">
      {!phone && (
        <label className={label}>
          width
          <select
            value={state.width}
            onChange={(event) => hands.send({ do: "width", to: event.target.value as State["width"] })}
            className="h-6 border border-hairline bg-paper text-ink"
          >
            <option value="narrow">narrow</option>
            <option value="middle">middle</option>
            <option value="wide">wide</option>
          </select>
        </label>
      )}
      {outside.map((fact) =>
        fact.type === "boolean" ? (
          <label key={fact.id} className={label}>
            <input
              type="checkbox"
              checked={state.facts[fact.id] === true}
              onChange={(event) => hands.send({ do: "fact", fact: fact.id, value: event.target.checked })}
              className="accent-(--accent)"
            />
            {fact.name ?? fact.id}
          </label>
        ) : (
          <label key={fact.id} className={label}>
            {fact.name ?? fact.id}
            <select
              value={String(state.facts[fact.id])}
              onChange={(event) => hands.send({ do: "fact", fact: fact.id, value: event.target.value })}
              className="h-6 border border-hairline bg-paper text-ink"
            >
              {fact.values?.map((value) => (
                <option key={value}>{value}</option>
              ))}
            </select>
          </label>
        ),
      )}
      {onMarks && (
        <label className={label}>
          <input type="checkbox" checked={marks} onChange={(event) => onMarks(event.target.checked)} className="accent-(--accent)" />
          mark what works
        </label>
      )}
      {project.legs.some((leg) => leg.on.kind === "after") && (
        <label className={label}>
          <input type="checkbox" checked={time === "held"} onChange={(event) => hold(event.target.checked)} className="accent-(--accent)" />
          hold time
        </label>
      )}
      <label className={label}>
        <input type="checkbox" checked={slow} onChange={(event) => setSlow(event.target.checked)} className="accent-(--accent)" />
        slow motion
      </label>
    </div>
  );
}
