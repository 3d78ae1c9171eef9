import type { LegStart, PlaceTrigger } from "../../../core/model/edits/link.ts";
import { lookup } from "../../../core/model/lookup.ts";
import type { Project } from "../../../core/model/schema.ts";
import { triggerOf } from "../../session/actions/triggers.ts";

const BY: ReadonlyArray<{ kind: PlaceTrigger["kind"]; says: string; screens: boolean }> = [
  { kind: "arrive", says: "as soon as it shows", screens: true },
  { kind: "after", says: "after a while", screens: true },
  { kind: "swipe", says: "by a swipe", screens: false },
  { kind: "depart", says: "when it is left", screens: false },
];

/** By what a leg without an element is taken: chosen while its target is picked. */
export function TriggerChoice({ project, from, onChange }: { project: Project; from: LegStart & { on: PlaceTrigger }; onChange: (on: PlaceTrigger) => void }) {
  const { on } = from;
  const screen = lookup(project).screens.has(from.place);
  const box = "h-7 border border-hairline bg-paper px-1 text-[12.5px]";
  return (
    <p className="m-0 mb-2 flex flex-wrap items-center gap-2 text-[12px] text-ink-2">
      <select aria-label="By what" value={on.kind} onChange={(event) => onChange(triggerOf(event.target.value as PlaceTrigger["kind"]))} className={box}>
        {BY.filter((one) => screen || !one.screens).map(({ kind, says }) => (
          <option key={kind} value={kind}>
            {says}
          </option>
        ))}
      </select>
      {on.kind === "after" && (
        <label className="flex items-center gap-1">
          <input
            type="number"
            min={0}
            step={100}
            value={on.ms}
            aria-label="Milliseconds"
            onFocus={(event) => event.target.select()}
            onChange={(event) => onChange({ kind: "after", ms: Math.max(0, Number(event.target.value) || 0) })}
            className={`${box} w-24 font-mono`}
          />
          ms
        </label>
      )}
      {on.kind === "swipe" && (
        <select
          aria-label="Towards"
          value={on.to}
          onChange={(event) => onChange({ kind: "swipe", to: event.target.value as (typeof on)["to"] })}
          className={box}
        >
          {["left", "right", "up", "down"].map((to) => (
            <option key={to} value={to}>
              to the {to}
            </option>
          ))}
        </select>
      )}
    </p>
  );
}
