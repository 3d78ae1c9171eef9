import { Popover } from "radix-ui";
import { useMemo, useState } from "react";
import { available } from "../../core/insight/available.ts";
import { eventText } from "../../core/insight/explain.ts";
import { lookup, nameOf } from "../../core/model/lookup.ts";
import type { NavEvent, Project } from "../../core/model/schema.ts";
import type { State } from "../../core/semantics/types.ts";
import { Button } from "../parts/Button.tsx";
import { useWalk } from "../store/walk.ts";
import { swipesNow } from "./gestures.ts";
import { setSlow } from "./play.ts";
import { Time } from "./Time.tsx";
import type { Hands } from "./useHands.ts";

interface Props {
  project: Project;
  state: State;
  hands: Hands;
}

/** What is outside the device: the system's Back (which a phone has at hand already), the ways in, time, starting again. */
export function Controls({ project, state, hands, phone = false }: Props & { phone?: boolean }) {
  const { steps, restart, begun } = useWalk();
  const swipes = useMemo(() => swipesNow(project, state), [project, state]);
  return (
    <div className="flex flex-wrap gap-1.5">
      {!phone && <Button onClick={() => hands.send({ do: "back" })}>← Back</Button>}
      <WaysIn project={project} state={state} hands={hands} />
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

/** The ways in as a device would offer them, with the app running or not; and an address to be typed. */
function WaysIn({ project, state, hands }: Props) {
  const [open, setOpen] = useState(false);
  const ways = available(project, state).flatMap((event) => (event.do === "enter" ? [event] : []));
  const take = (event: NavEvent) => {
    hands.send(event);
    setOpen(false);
  };
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger asChild>
        <Button>Ways in</Button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          collisionPadding={8}
          sideOffset={4}
          className="z-30 max-h-(--radix-popover-content-available-height) w-72 overflow-y-auto border border-ink bg-sheet p-2 text-ink shadow-[0_8px_24px_var(--lift)]"
          role="group"
          aria-label="Ways in"
        >
          {ways.length === 0 && <p className="m-0 text-[12px] text-ink-2">No way in can be used now. The outline has a + to add one.</p>}
          {ways.map((event) => (
            <button
              key={`${event.entrance} ${event.cold}`}
              type="button"
              className="flex min-h-7 w-full items-baseline gap-2 px-1 text-left text-[12px] hover:bg-band"
              onClick={() => take(event)}
            >
              <span className="min-w-0 flex-1 truncate" title={nameOf(project, event.entrance)}>
                {nameOf(project, event.entrance)} <span className="text-ink-2">{lookup(project).entrances.get(event.entrance)?.kind}</span>
              </span>
              <span className="shrink-0 text-[11px] text-ink-2">{event.cold ? "app not running" : "app running"}</span>
            </button>
          ))}
          <form
            className="mt-1 flex gap-1 border-t border-hairline pt-2"
            onSubmit={(event) => {
              event.preventDefault();
              hands.goTo(String(new FormData(event.currentTarget).get("address")));
              setOpen(false);
            }}
          >
            <input
              name="address"
              aria-label="Address of a link"
              placeholder="/hives/tansy"
              className="h-7 min-w-0 flex-1 border border-hairline bg-paper px-1.5 font-mono text-[11.5px]"
            />
            <Button type="submit">Go</Button>
          </form>
          <button
            type="button"
            className="mt-1 block min-h-7 w-full border-t border-hairline px-1 text-left text-[12px] hover:bg-band"
            onClick={() => take({ do: "launch" })}
          >
            Launch again
          </button>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
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
  const [slow, setSlowState] = useState(false);
  const { time, hold } = useWalk();
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
        <input
          type="checkbox"
          checked={slow}
          onChange={(event) => {
            setSlowState(event.target.checked);
            setSlow(event.target.checked);
          }}
          className="accent-(--accent)"
        />
        slow motion
      </label>
    </div>
  );
}
