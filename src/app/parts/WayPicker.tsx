import { ToggleGroup } from "radix-ui";
import { moveSentence } from "../../core/model/propose.ts";
import type { Leg } from "../../core/model/schema.ts";
import { goAnotherWay } from "../session/actions/goAnotherWay.ts";
import { chosenWay, waysOf } from "../session/actions/moveKinds.ts";
import { useDocument, useSession } from "../session/hooks.ts";

/** The ways in which a leg can get to its target, each with the digit that takes it; the arrows go from one to the next. */
export function WayPicker({ leg }: { leg: Leg }) {
  const session = useSession();
  const project = useDocument((d) => d.project);
  const ways = waysOf(project, leg);
  const take = (key: string) => {
    const way = ways.find((one) => one.key === key);
    if (way) goAnotherWay(session, leg, way.move);
  };
  return (
    <ToggleGroup.Root type="single" value={chosenWay(project, leg) ?? ""} onValueChange={take} aria-label="How it gets there" className="flex flex-wrap gap-1">
      {ways.map((way, i) => (
        <ToggleGroup.Item
          key={way.key}
          value={way.key}
          title={moveSentence(project, leg.from, way.move)}
          className="flex min-h-6 items-center gap-1 border border-hairline px-1.5 text-[11.5px] hover:border-ink data-[state=on]:border-accent data-[state=on]:bg-accent-soft data-[state=on]:font-semibold"
        >
          <span className="font-mono text-[10px] text-ink-2" aria-hidden>
            {i + 1}
          </span>
          {way.label}
          {way.says !== undefined && <span className="font-normal text-ink-2">{way.says}</span>}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
}
