import { lazy, Suspense, useState } from "react";
import { useDocument, useSelection } from "../../session/hooks.ts";

/** The menu is loaded when it is opened first. */
const AddWayIn = lazy(async () => ({ default: (await import("./AddWayIn.tsx")).AddWayIn }));

/** The ways in from outside, below the tree. */
export function WaysIn() {
  const entrances = useDocument((d) => d.project.entrances);
  const { selected, select } = useSelection();
  const [adding, setAdding] = useState(false);
  const button = (
    <button
      type="button"
      aria-label="Add a way in"
      aria-haspopup="menu"
      title="Add a way in to what is chosen"
      className="min-h-6 min-w-6 font-normal text-ink-2 hover:text-ink"
      onClick={() => setAdding(true)}
    >
      +
    </button>
  );
  return (
    <>
      <h2 className="caption mx-3 mt-3 mb-1 flex items-center justify-between border-t border-hairline pt-2">
        Ways in
        {adding ? (
          <Suspense fallback={button}>
            <AddWayIn button={button} onClose={() => setAdding(false)} />
          </Suspense>
        ) : (
          button
        )}
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
