import { moveSentence } from "../../core/model/propose.ts";
import type { Leg } from "../../core/model/schema.ts";
import { useDocument } from "../store/document.ts";
import { goAnotherWay } from "./goAnotherWay.ts";
import { wayKey, waysOf } from "./moveKinds.ts";

/** The ways in which a leg can get to its target, each with the digit that takes it. */
export function WayPicker({ leg }: { leg: Leg }) {
  const project = useDocument((d) => d.project);
  return (
    <div role="radiogroup" aria-label="How it gets there" className="flex flex-wrap gap-1">
      {waysOf(project, leg).map((way, i) => {
        const chosen = leg.move !== undefined && wayKey(leg.move) === way.key;
        return (
          <button
            key={way.key}
            type="button"
            role="radio"
            aria-checked={chosen}
            title={moveSentence(project, leg.from, way.move)}
            onClick={() => goAnotherWay(leg, way.move)}
            className={`flex min-h-6 items-center gap-1 border px-1.5 text-[11.5px] ${chosen ? "border-accent bg-accent-soft font-semibold" : "border-hairline hover:border-ink"}`}
          >
            <span className="font-mono text-[10px] text-ink-2" aria-hidden>
              {i + 1}
            </span>
            {way.label}
          </button>
        );
      })}
    </div>
  );
}
