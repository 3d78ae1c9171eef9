import { useRef } from "react";
import { usePreferences } from "../ui/preferences.ts";
import { NARROWEST, WIDEST } from "./sides.ts";

/** Pixels by which an arrow key moves an edge. */
const STEP = 24;

/** The edge of a side: dragged, moved by the arrows, set back by a double click; its handle folds the side away and brings it back. */
export function Edge({ side, width }: { side: "left" | "right"; width: number }) {
  const { foldedLeft, foldedRight, fold, set } = usePreferences();
  const folded = side === "left" ? foldedLeft : foldedRight;
  const drag = useRef<{ x: number; width: number } | undefined>(undefined);
  const name = side === "left" ? "the outline" : "the walk";
  const wider = (by: number) => set({ [side]: Math.max(0, width + by) });
  return (
    <div className={`absolute inset-y-0 z-10 flex w-0 items-center ${side === "left" ? "left-0" : "right-0"}`}>
      {!folded && (
        <div
          role="separator"
          aria-orientation="vertical"
          aria-label={`Resize ${name}`}
          aria-valuenow={width}
          aria-valuemin={NARROWEST}
          aria-valuemax={WIDEST}
          tabIndex={0}
          title="Drag to make it wider or narrower; double click sets it back"
          className="absolute inset-y-0 -left-1 w-2 cursor-col-resize touch-none hover:bg-accent/30 focus-visible:bg-accent/40"
          onPointerDown={(event) => {
            // Else the browser takes it for the beginning of a selection, or of a drag of its own.
            event.preventDefault();
            event.currentTarget.focus();
            event.currentTarget.setPointerCapture(event.pointerId);
            drag.current = { x: event.clientX, width };
          }}
          onPointerMove={(event) => {
            if (drag.current) set({ [side]: drag.current.width + (event.clientX - drag.current.x) * (side === "left" ? 1 : -1) });
          }}
          onPointerUp={() => {
            drag.current = undefined;
          }}
          onDoubleClick={() => set({ [side]: undefined })}
          onKeyDown={(event) => {
            if (event.key !== "ArrowLeft" && event.key !== "ArrowRight") return;
            event.preventDefault();
            wider((event.key === "ArrowRight") === (side === "left") ? STEP : -STEP);
          }}
        />
      )}
      <button
        type="button"
        aria-expanded={!folded}
        aria-label={folded ? `Bring back ${name}` : `Fold ${name} away`}
        title={`${folded ? `Bring back ${name}` : `Fold ${name} away`}: Alt Shift ${side === "left" ? "←" : "→"}`}
        onClick={() => fold(side)}
        className={`absolute top-0 flex h-6 w-6 items-center justify-center border-b border-hairline bg-sheet text-ink-2 hover:text-ink ${side === "left" ? "left-0 border-r" : "right-0 border-l"}`}
      >
        <svg width={8} height={12} aria-hidden="true">
          <path d={folded === (side === "left") ? "M1 1l5 5-5 5" : "M6 1L1 6l5 5"} fill="none" stroke="currentColor" strokeWidth={1.5} />
        </svg>
      </button>
    </div>
  );
}
