import { motionWith } from "../../../core/model/edits/motionWith.ts";
import { elementOf, firstScreen, lookup, targetOf } from "../../../core/model/lookup.ts";
import type { Leg, Motion, Project } from "../../../core/model/schema.ts";
import { usePointing } from "../../session/hooks.ts";
import { Button } from "../../ui/Button.tsx";

interface Props {
  project: Project;
  leg: Leg;
  usual: Motion | undefined;
  onChange: (motion: Motion) => void;
}

/** Elements that move from the one screen onto the other, chosen by pointing at both on the map. */
export function Carries({ project, leg, usual, onChange }: Props) {
  const { pointing, begin, end } = usePointing();
  const to = targetOf(leg);
  const target = to === undefined ? undefined : firstScreen(project, to);
  if (!target || !lookup(project).screens.has(leg.from)) return null;
  const carries = leg.motion?.carries ?? [];
  const name = (place: string, id: string) => elementOf(project, place, id)?.label ?? id;
  return (
    <div className="text-[12px]">
      {carries.map((carry) => (
        <p key={`${carry.from} ${carry.to}`} className="m-0 flex items-center gap-2">
          <span className="min-w-0 flex-1 truncate">
            {name(leg.from, carry.from)} moves onto {name(target.id, carry.to)}
          </span>
          <button
            type="button"
            aria-label={`No longer carry ${name(leg.from, carry.from)}`}
            className="min-h-6 min-w-6 text-ink-2 hover:text-ink"
            onClick={() =>
              onChange(
                motionWith(
                  leg,
                  usual,
                  carries.filter((one) => one !== carry),
                ),
              )
            }
          >
            ×
          </button>
        </p>
      ))}
      {pointing?.leg === leg.id ? (
        <p role="status" className="m-0 flex items-center gap-2 border-l-2 border-accent pl-2">
          {pointing.from === undefined
            ? `Point at what is carried, on “${lookup(project).screens.get(leg.from)?.name}”.`
            : `Now point at where it arrives, on “${target.name}”.`}
          <Button tone="quiet" onClick={end}>
            Stop
          </Button>
        </p>
      ) : (
        <Button onClick={() => begin({ leg: leg.id, place: leg.from, target: target.id })}>Carry an element over…</Button>
      )}
    </div>
  );
}
