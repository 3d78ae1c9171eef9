import { useRef } from "react";
import { modalOf, nameOf } from "../../../core/model/lookup.ts";
import type { Modal, NavEvent } from "../../../core/model/schema.ts";
import { topBranch } from "../../../core/semantics/state.ts";
import type { Layer } from "../../../core/semantics/types.ts";
import { Page } from "./Page.tsx";
import { usePicture } from "./usePicture.ts";
import type { Within } from "./within.ts";

/** A modal that is up: what dims or blocks what lies beneath, and what is shown in it. */
export function LayerView({ layer, ...within }: Within & { layer: Layer }) {
  const { project, state, branch, hands } = within;
  const modal = modalOf(project, layer.at);
  const top = branch === topBranch(state);
  const shows = usePicture(project, state, branch);
  const size = modal?.shape === "full" ? "inset-0" : sizeOf(modal);
  const closable = modal?.closeOn.includes("button") && top && !shows?.picture.areas.some(({ control }) => control === "close");
  const close = (event: NavEvent) => hands.send(event);
  return (
    <>
      {modal?.shape !== "full" && (modal?.blocks ?? true) && (
        <button
          type="button"
          aria-label={`Outside ${nameOf(project, layer.at)}`}
          className={`absolute inset-0 ${modal?.dims ? "bg-black/30" : ""}`}
          onClick={() => close({ do: "close", via: "outside" })}
        />
      )}
      {modal?.shape !== "full" && modal?.blocks === false && modal.dims && <div className="pointer-events-none absolute inset-0 bg-black/30" />}
      <section
        data-layer={branch}
        className={`absolute flex flex-col overflow-hidden border border-ink/50 bg-sheet shadow-lg ${size}`}
        style={modal && shows && heightBy(modal)}
        aria-label={nameOf(project, layer.at)}
      >
        {modal?.closeOn.includes("swipe") && top && modal.edge === "bottom" && <Grip onClose={() => close({ do: "close", via: "swipe" })} />}
        <div
          className="relative min-h-0 flex-1"
          style={modal && shows && heightBy(modal) ? { flex: "0 1 auto", aspectRatio: shows.picture.size.join(" / ") } : undefined}
        >
          <Page {...within} />
          {closable && (
            <button
              type="button"
              aria-label="Close"
              data-close
              className="absolute top-1.5 right-1.5 h-7 w-7 border border-hairline bg-sheet text-[13px]"
              onClick={() => close({ do: "close", via: "button" })}
            >
              ×
            </button>
          )}
        </div>
      </section>
    </>
  );
}

/** What comes in from above or below, or stands in the middle, is as high as its picture, as long as it fits. */
function heightBy({ shape, edge }: Modal): React.CSSProperties | undefined {
  if (shape === "full" || edge === "left" || edge === "right") return undefined;
  return { height: "auto", minHeight: 0, maxHeight: "94%" };
}

/** Pixels that a sheet is dragged down before it goes. */
const DRAGGED_AWAY = 60;
/** Pixels that a finger may tremble without dragging. */
const SLACK = 6;

/** The grip of a sheet: dragged down far enough it closes the sheet, which follows the finger meanwhile; a press closes it too. */
function Grip({ onClose }: { onClose: () => void }) {
  const from = useRef<number | undefined>(undefined);
  const dragged = useRef(false);
  const sheet = (event: React.PointerEvent) => event.currentTarget.closest<HTMLElement>("[data-layer]");
  const letGo = (event: React.PointerEvent) => {
    const moved = from.current === undefined ? 0 : event.clientY - from.current;
    from.current = undefined;
    const element = sheet(event);
    if (element) element.style.transform = "";
    dragged.current = moved > SLACK;
    return moved;
  };
  return (
    <button
      type="button"
      aria-label="Swipe away"
      title="Drag it down"
      className="flex min-h-6 w-full shrink-0 cursor-grab touch-none items-center justify-center active:cursor-grabbing"
      onPointerDown={(event) => {
        event.stopPropagation();
        event.currentTarget.setPointerCapture(event.pointerId);
        from.current = event.clientY;
      }}
      onPointerMove={(event) => {
        const element = sheet(event);
        if (from.current !== undefined && element) element.style.transform = `translateY(${Math.max(0, event.clientY - from.current)}px)`;
      }}
      onPointerUp={(event) => {
        if (letGo(event) > DRAGGED_AWAY) onClose();
      }}
      onPointerCancel={letGo}
      onClick={() => {
        // A press, or the keyboard; what was dragged is dealt with.
        if (!dragged.current) onClose();
        dragged.current = false;
      }}
    >
      <span className="h-1.5 w-10 rounded bg-hairline" />
    </button>
  );
}

/** Where a modal lies and how much of the page it takes. What only needs a little is aligned along its edge. */
function sizeOf(modal: Modal | undefined): string {
  if (modal?.shape === "dialog" || modal?.edge === "center") return "left-[8%] right-[8%] top-1/2 -translate-y-1/2 min-h-[38%] max-h-[80%] rounded";
  const edge = modal?.edge ?? "bottom";
  const level = edge === "top" || edge === "bottom";
  const extent = modal?.extent ?? "most";
  const side = { top: "top-0", bottom: "bottom-0 rounded-t", left: "left-0", right: "right-0" }[edge];
  const size = level ? { fit: "h-2/5", half: "h-1/2", most: "h-[86%]" }[extent] : { fit: "w-2/5", half: "w-[70%]", most: "w-[86%]" }[extent];
  const whole = level ? "inset-x-0" : "inset-y-0";
  if (extent !== "fit" || modal?.align === undefined) return `${whole} ${side} ${size}`;
  const along = level
    ? { start: "left-0 w-3/4", center: "left-[12.5%] w-3/4", end: "right-0 w-3/4" }
    : { start: "top-0 h-3/4", center: "top-[12.5%] h-3/4", end: "bottom-0 h-3/4" };
  return `${along[modal.align]} ${side} ${size}`;
}
