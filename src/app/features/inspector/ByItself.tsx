import { triggerLabel } from "../../../core/model/describe.ts";
import { elementIdOf, lookup } from "../../../core/model/lookup.ts";
import { moveSentence } from "../../../core/model/propose.ts";
import { triggerOf } from "../../session/actions/triggers.ts";
import { useDocument, useSelection } from "../../session/hooks.ts";

/** Legs of a place that start at no element of it yet: as soon as it shows, after a while, by a swipe, when it is left; and the ways to make one more. */
export function ByItself({ place }: { place: string }) {
  const project = useDocument((d) => d.project);
  const { select, link } = useSelection();
  const { legsFrom, screens } = lookup(project);
  const legs = (legsFrom.get(place) ?? []).filter((leg) => elementIdOf(leg) === undefined);
  const kinds = screens.has(place) ? (["after", "arrive", "swipe", "depart"] as const) : (["swipe", "depart"] as const);
  const says = { after: "after a while…", arrive: "as soon as it shows…", swipe: "by a swipe…", depart: "when it is left…" };
  return (
    <div className="text-[12.5px]">
      {legs.map((leg) => (
        <button
          key={leg.id}
          type="button"
          className="block min-h-6 w-full truncate border-l-2 border-accent pl-2 text-left hover:bg-band"
          title={leg.move ? moveSentence(project, place, leg.move) : "Only sets facts."}
          onClick={() => select({ kind: "leg", id: leg.id })}
        >
          <i>{triggerLabel(leg)}</i> <span className="text-ink-2">{leg.move ? moveSentence(project, place, leg.move) : "Only sets facts."}</span>
        </button>
      ))}
      <p className="m-0 flex flex-wrap items-center gap-x-2 text-[11.5px] text-ink-2">
        Lead
        <button type="button" aria-label="Lead somewhere with a new button" className="min-h-6 text-accent hover:underline" onClick={() => link({ place })}>
          with a new button…
        </button>
        {kinds.map((kind) => (
          <button key={kind} type="button" className="min-h-6 text-accent hover:underline" onClick={() => link({ place, on: triggerOf(kind) })}>
            {says[kind]}
          </button>
        ))}
      </p>
    </div>
  );
}
