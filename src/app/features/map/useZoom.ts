import { select } from "d3-selection";
import { type D3ZoomEvent, type ZoomBehavior, zoom, zoomIdentity, zoomTransform } from "d3-zoom";
import { useCallback, useEffect, useRef } from "react";
import type { Box, Drawing, Point, Room } from "../../../core/map/types.ts";
import { DRAWN_FROM } from "./useDrawLeg.ts";

/** Pixels at the foot that the counts and the zoom's buttons take. */
const FOOT = 44;
/** Pixels at the top that the ruler covers. */
const RULER = 26;
/** The largest scale. */
const MOST = 2;

/** The scales of each drawing: below the first, and above the second, another drawing has more to say. */
const RANGE: Record<Drawing, readonly [number, number]> = { rows: [0.6, MOST], faces: [0.6, MOST], names: [0.94, 1.5] };

export interface Zoomed {
  drawing: Drawing;
  width: number;
  height: number;
  /** The part of the map that is seen. */
  look: (seen: Box) => void;
  /** Somebody zooms beyond what the drawing is for; whether another one is shown. The point is on the map, and on the screen. */
  pass: (towards: "out" | "in", at: Point, screen: Point) => boolean;
  /** Is told the room that the map has, above the controls at its foot. */
  measured: (room: Room) => void;
}

/** Pan and zoom of the map. Moving it changes one attribute and two CSS variables; nothing is drawn again. */
export function useZoom({ drawing, width, height, look, pass, measured }: Zoomed) {
  const svg = useRef<SVGSVGElement>(null);
  const ground = useRef<SVGGElement>(null);
  const frame = useRef<HTMLDivElement>(null);
  const behavior = useRef<ZoomBehavior<SVGSVGElement, unknown> | null>(null);
  // Kept, because asking the element for it lays the page out again.
  const size = useRef({ width: 800, height: 600 });
  const now = useRef({ drawing, pass });
  now.current = { drawing, pass };

  /** Zooms at a point of the screen; beyond what the drawing is for, another one is shown. */
  const zoomBy = useCallback((factor: number, screen?: Point) => {
    const element = svg.current;
    if (!element || !behavior.current) return;
    const { x, y, k } = zoomTransform(element);
    const at = screen ?? { x: size.current.width / 2, y: size.current.height / 2 };
    const [least, most] = RANGE[now.current.drawing];
    const next = k * factor;
    const towards = factor < 1 && next < least ? "out" : factor > 1 && next > most ? "in" : undefined;
    if (towards && now.current.pass(towards, { x: (at.x - x) / k, y: (at.y - y) / k }, at)) return;
    behavior.current.scaleTo(select(element), Math.max(Math.min(least, k), Math.min(MOST, next)), [at.x, at.y]);
  }, []);

  useEffect(() => {
    const element = svg.current;
    if (!element) return;
    const handler = zoom<SVGSVGElement, unknown>()
      .extent(() => [
        [0, 0],
        [size.current.width, size.current.height],
      ])
      .scaleExtent([0.05, MOST])
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
        look({ x: -x / k, y: -y / k, width: size.current.width / k, height: size.current.height / k });
      });
    behavior.current = handler;
    const chosen = select(element);
    chosen.call(handler).on("dblclick.zoom", null);
    chosen.on("wheel.zoom", (event: WheelEvent) => {
      event.preventDefault();
      if (event.ctrlKey || event.metaKey) zoomBy(2 ** (-event.deltaY * 0.01), { x: event.offsetX, y: event.offsetY });
      else handler.translateBy(chosen, -event.deltaX / currentScale(element), -event.deltaY / currentScale(element));
    });
    const watched = new ResizeObserver(([entry]) => {
      if (!entry) return;
      size.current = { width: entry.contentRect.width, height: entry.contentRect.height };
      measured({ width: Math.round(size.current.width), height: Math.round(size.current.height - FOOT) });
      const { x, y, k } = zoomTransform(element);
      look({ x: -x / k, y: -y / k, width: size.current.width / k, height: size.current.height / k });
    });
    watched.observe(element);
    return () => {
      watched.disconnect();
      chosen.on(".zoom", null).on("wheel.zoom", null);
    };
  }, [look, measured, zoomBy]);

  useEffect(() => {
    // Faces and names may be held anywhere under the pointer that zoomed to them.
    const free = drawing === "rows" ? 0 : height;
    behavior.current?.translateExtent([
      [-width - 400, -free - 300],
      [2 * width + 400, height + free + 300],
    ]);
  }, [drawing, width, height]);

  /** Brings a box into view, at the scale that is set, unless it is in view already; `below` pixels at the foot are covered. */
  const show = useCallback((box: Box, below = 0) => {
    const element = svg.current;
    if (!element || !behavior.current) return;
    const { x, y, k } = zoomTransform(element);
    const [left, top] = [box.x * k + x, box.y * k + y];
    const { width: seenWidth, height: seenHeight } = size.current;
    const inside = left >= 0 && top >= 24 && left + box.width * k <= seenWidth && top + box.height * k <= seenHeight - below;
    if (!inside) behavior.current.translateTo(select(element), box.x + box.width / 2, box.y + box.height / 2 + below / 2 / k);
  }, []);

  /** Puts a point of the map at a point of the screen, at a scale. */
  const put = useCallback((point: Point, screen: Point, k: number) => {
    const element = svg.current;
    if (element) behavior.current?.transform(select(element), zoomIdentity.translate(screen.x - point.x * k, screen.y - point.y * k).scale(k));
  }, []);

  /** The scale at which all of a map is seen; 1 where it is smaller than the room. */
  const fit = useCallback((of: Room) => Math.min(1, (size.current.width - 8) / of.width, (size.current.height - RULER - FOOT) / of.height), []);

  /** Shows all of the map, in the middle. */
  const showAll = useCallback(() => {
    const k = now.current.drawing === "names" ? Math.min(1, size.current.width / width, (size.current.height - FOOT) / height) : fit({ width, height });
    const top = now.current.drawing === "rows" ? RULER : 0;
    put({ x: width / 2, y: 0 }, { x: Math.max(width * k, size.current.width) / 2, y: top }, k);
  }, [width, height, fit, put]);

  return { svg, ground, frame, show, put, fit, zoomBy, showAll };
}

function currentScale(element: SVGSVGElement): number {
  return zoomTransform(element).k;
}
