import { type RefObject, useRef, useState } from "react";
import type { LegStart } from "../../../core/model/edits/link.ts";

interface Drawing {
  from: LegStart;
  x1: number;
  y1: number;
  x2: number;
  y2: number;
  /** False until the pointer has moved far enough to be a drag and not a click. */
  moved: boolean;
}

/** Parts of the map from which a leg is drawn; everything else is ground, by which the map is moved. */
export const DRAWN_FROM = "[data-row], [data-trigger], [data-head]";

/** Pixels that a pointer may move before a press counts as a drag. */
const SLACK = 6;

/**
 * Drawing a leg: press on an element's row, on a leg that starts without one, or on a card's head (a button is then made for it); drag,
 * let go on a place. Let go on free ground, it ends without a place, and the target is then picked by name.
 */
export function useDrawLeg(svg: RefObject<SVGSVGElement | null>, done: (from: LegStart, to: string | undefined) => void) {
  const drawing = useRef<Drawing | undefined>(undefined);
  const [line, setLine] = useState<Drawing>();
  const [over, setOver] = useState<string>();

  const local = (event: React.PointerEvent) => {
    const ground = svg.current?.querySelector<SVGGElement>(":scope > g");
    const matrix = ground?.getScreenCTM()?.inverse();
    if (!matrix) return { x: 0, y: 0 };
    const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix);
    return { x: point.x, y: point.y };
  };
  const stop = () => {
    drawing.current = undefined;
    setLine(undefined);
    setOver(undefined);
  };
  const handlers = {
    onPointerDown: (event: React.PointerEvent) => {
      const from = startOf(event.target as Element);
      if (!from || event.button !== 0) return;
      const { x, y } = local(event);
      drawing.current = { from, x1: x, y1: y, x2: x, y2: y, moved: false };
    },
    onPointerMove: (event: React.PointerEvent) => {
      const now = drawing.current;
      if (!now) return;
      const { x, y } = local(event);
      if (!now.moved && Math.hypot(x - now.x1, y - now.y1) < SLACK) return;
      drawing.current = { ...now, x2: x, y2: y, moved: true };
      setLine(drawing.current);
      setOver(placeAt(event));
    },
    onPointerUp: (event: React.PointerEvent) => {
      const now = drawing.current;
      stop();
      if (!now?.moved) return;
      const to = placeAt(event);
      const swallow = (click: Event) => click.stopPropagation();
      window.addEventListener("click", swallow, { capture: true });
      setTimeout(() => {
        window.removeEventListener("click", swallow, { capture: true });
        done(now.from, to);
      }, 0);
    },
    onPointerCancel: stop,
    onKeyDown: (event: React.KeyboardEvent) => {
      if (event.key === "Escape") stop();
    },
  };
  return { handlers, line, over };
}

/** What a leg can be drawn from: the marks of {@link DRAWN_FROM}. */
function startOf(target: Element): LegStart | undefined {
  const from = target.closest<SVGElement>(DRAWN_FROM);
  const place = from?.closest("[data-place]")?.getAttribute("data-place");
  if (!from || !place) return undefined;
  const { row, trigger } = from.dataset;
  return { place, ...(row === undefined ? {} : { element: row }), ...(trigger === undefined ? {} : { leg: trigger }) };
}

/** The card under the pointer; a modal or stack where it is let go on the caption of its ground. */
function placeAt(event: React.PointerEvent): string | undefined {
  const target = document.elementFromPoint(event.clientX, event.clientY);
  return target?.closest("[data-card]")?.getAttribute("data-place") ?? target?.closest("text")?.closest("[data-band]")?.getAttribute("data-place") ?? undefined;
}
