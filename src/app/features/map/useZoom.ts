import { select } from "d3-selection";
import { type D3ZoomEvent, type ZoomBehavior, zoom, zoomIdentity, zoomTransform } from "d3-zoom";
import { startTransition, useCallback, useEffect, useRef, useState } from "react";
import type { Box } from "../../../core/map/types.ts";
import { DRAWN_FROM } from "./useDrawLeg.ts";

/** How much of a card shows: all of it, its name, or a dot. */
export type Detail = "full" | "names" | "dots";

/** Pixels at the foot that the counts and the zoom's buttons take. */
const FOOT = 56;
/** The smallest scale. */
const LEAST = 0.05;
/** The scale below which names are not drawn: a column is no wider than a syllable there. */
const LEAST_NAMED = 0.17;
/** Pixels at the top that the ruler covers. */
const RULER = 26;

function detailAt(scale: number): Detail {
  return scale >= 0.55 ? "full" : scale >= 0.28 ? "names" : "dots";
}

/** Pan and zoom of the map. Moving it changes one attribute and two CSS variables; nothing is drawn again. */
export function useZoom(width: number, height: number, look: (seen: Box) => void) {
  const svg = useRef<SVGSVGElement>(null);
  const ground = useRef<SVGGElement>(null);
  const frame = useRef<HTMLDivElement>(null);
  const behavior = useRef<ZoomBehavior<SVGSVGElement, unknown> | null>(null);
  // Kept, because asking the element for it lays the page out again.
  const size = useRef({ width: 800, height: 600 });
  const [detail, setDetail] = useState<Detail>("full");

  useEffect(() => {
    const element = svg.current;
    if (!element) return;
    const handler = zoom<SVGSVGElement, unknown>()
      .extent(() => [
        [0, 0],
        [size.current.width, size.current.height],
      ])
      .scaleExtent([LEAST, 2])
      .filter(
        (event: Event) =>
          !(event.target instanceof Element && event.target.closest(DRAWN_FROM) && (event.type === "mousedown" || event.type === "touchstart")) &&
          !(event as MouseEvent).button,
      )
      .on("zoom", (event: D3ZoomEvent<SVGSVGElement, unknown>) => {
        const { x, y, k } = event.transform;
        ground.current?.setAttribute("transform", `translate(${x} ${y}) scale(${k})`);
        frame.current?.style.setProperty("--map-x", `${x}px`);
        frame.current?.style.setProperty("--map-k", String(k));
        if (frame.current) frame.current.dataset.tiny = String(k < LEAST_NAMED);
        startTransition(() => setDetail(detailAt(k)));
        look({ x: -x / k, y: -y / k, width: size.current.width / k, height: size.current.height / k });
      });
    behavior.current = handler;
    const chosen = select(element);
    chosen.call(handler).on("dblclick.zoom", null);
    chosen.on("wheel.zoom", (event: WheelEvent) => {
      event.preventDefault();
      if (event.ctrlKey || event.metaKey) handler.scaleBy(chosen, 2 ** (-event.deltaY * 0.01), [event.offsetX, event.offsetY]);
      else handler.translateBy(chosen, -event.deltaX / currentScale(element), -event.deltaY / currentScale(element));
    });
    const measured = new ResizeObserver(([entry]) => {
      if (!entry) return;
      size.current = { width: entry.contentRect.width, height: entry.contentRect.height };
      const { x, y, k } = zoomTransform(element);
      look({ x: -x / k, y: -y / k, width: size.current.width / k, height: size.current.height / k });
    });
    measured.observe(element);
    return () => {
      measured.disconnect();
      chosen.on(".zoom", null).on("wheel.zoom", null);
    };
  }, [look]);

  useEffect(() => {
    behavior.current?.translateExtent([
      [-width - 400, -300],
      [2 * width + 400, height + 300],
    ]);
  }, [width, height]);

  /** Brings a box into view, at the scale that is set, unless it is in view already; `below` pixels at the foot are covered. */
  const show = useCallback((box: Box, below = 0) => {
    const element = svg.current;
    if (!element || !behavior.current) return;
    const k = currentScale(element);
    const { x, y } = currentShift(element);
    const [left, top] = [box.x * k + x, box.y * k + y];
    const { width: seenWidth, height: seenHeight } = size.current;
    const inside = left >= 0 && top >= 24 && left + box.width * k <= seenWidth && top + box.height * k <= seenHeight - below;
    if (!inside) behavior.current.translateTo(select(element), box.x + box.width / 2, box.y + box.height / 2 + below / 2 / k);
  }, []);

  const scaleBy = useCallback((factor: number) => {
    if (svg.current && behavior.current) behavior.current.scaleBy(select(svg.current), factor);
  }, []);

  const showAll = useCallback(() => {
    const element = svg.current;
    if (!element || !behavior.current) return;
    const k = Math.max(LEAST, Math.min(1, (size.current.width - 24) / width, (size.current.height - RULER - FOOT) / height));
    const beside = Math.max(0, (size.current.width - width * k) / 2);
    behavior.current.transform(select(element), zoomIdentity.translate(beside, RULER).scale(k));
  }, [width, height]);

  return { svg, ground, frame, detail, show, scaleBy, showAll };
}

function currentScale(element: SVGSVGElement): number {
  return zoomTransform(element).k;
}

function currentShift(element: SVGSVGElement): { x: number; y: number } {
  return zoomTransform(element);
}
