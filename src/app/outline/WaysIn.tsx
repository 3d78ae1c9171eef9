import { addWayIn } from "../commands/arranging.ts";
import { contextNow } from "../commands/context.ts";
import { useDocument } from "../store/document.ts";
import { useSelection } from "../store/selection.ts";

/** The ways in from outside, below the tree. */
export function WaysIn() {
  const entrances = useDocument((d) => d.project.entrances);
  const { selected, select } = useSelection();
  return (
    <>
      <h2 className="caption mx-3 mt-3 mb-1 flex items-center justify-between border-t border-hairline pt-2">
        Ways in
        <button
          type="button"
          aria-label="Add a way in"
          title="Add a link to what is chosen"
          className="min-h-6 min-w-6 font-normal text-ink-2 hover:text-ink"
          onClick={() => addWayIn(contextNow(), "link")}
        >
          +
        </button>
      </h2>
      <p className="m-0 px-[14px] text-[12.5px] leading-[21px] text-ink-2">Launch</p>
      {entrances.map((entrance) => (
        <button
          key={entrance.id}
          type="button"
          onClick={() => select({ kind: "entrance", id: entrance.id })}
          className={`block min-h-6 w-full truncate px-[14px] text-left text-[12.5px] ${selected?.kind === "entrance" && selected.id === entrance.id ? "bg-accent-soft" : "hover:bg-band"}`}
        >
          {entrance.name} <span className="text-[11px] text-ink-2">{entrance.pattern ?? entrance.kind}</span>
        </button>
      ))}
    </>
  );
}
