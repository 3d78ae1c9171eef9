import { select } from "d3-selection";
import { type D3ZoomEvent, type ZoomBehavior, zoom, zoomIdentity, zoomTransform } from "d3-zoom";
import { useCallback, useEffect, useRef, useState } from "react";

import type { Box } from "../../core/map/layout.ts";

/** How much of a card shows: all of it, its name, or a dot. */
export type Detail = "full" | "names" | "dots";

function detailAt(scale: number): Detail {
  return scale >= 0.55 ? "full" : scale >= 0.28 ? "names" : "dots";
}

/** Pan and zoom of the map. Moving it changes one attribute and two CSS variables; nothing is drawn again. */
export function useZoom(width: number, height: number, look: (seen: Box) => void) {
  const svg = useRef<SVGSVGElement>(null);
  const ground = useRef<SVGGElement>(null);
  const frame = useRef<HTMLDivElement>(null);
  const behavior = useRef<ZoomBehavior<SVGSVGElement, unknown> | null>(null);
  const [detail, setDetail] = useState<Detail>("full");

  useEffect(() => {
    const element = svg.current;
    if (!element) return;
    const handler = zoom<SVGSVGElement, unknown>()
      .scaleExtent([0.08, 2])
      .filter(
        (event: Event) =>
          !(event.target instanceof Element && event.target.closest("[data-row]") && (event.type === "mousedown" || event.type === "touchstart")) &&
          !(event as MouseEvent).button,
      )
      .on("zoom", (event: D3ZoomEvent<SVGSVGElement, unknown>) => {
        const { x, y, k } = event.transform;
        ground.current?.setAttribute("transform", `translate(${x} ${y}) scale(${k})`);
        frame.current?.style.setProperty("--map-x", `${x}px`);
        frame.current?.style.setProperty("--map-k", String(k));
        setDetail(detailAt(k));
        look({ x: -x / k, y: -y / k, width: element.clientWidth / k, height: element.clientHeight / k });
      });
    behavior.current = handler;
    const chosen = select(element);
    chosen.call(handler).on("dblclick.zoom", null);
    chosen.on("wheel.zoom", (event: WheelEvent) => {
      event.preventDefault();
      if (event.ctrlKey || event.metaKey) handler.scaleBy(chosen, 2 ** (-event.deltaY * 0.01), [event.offsetX, event.offsetY]);
      else handler.translateBy(chosen, -event.deltaX / currentScale(element), -event.deltaY / currentScale(element));
    });
    look({ x: 0, y: 0, width: element.clientWidth, height: element.clientHeight });
    return () => {
      chosen.on(".zoom", null).on("wheel.zoom", null);
    };
  }, [look]);

  useEffect(() => {
    behavior.current?.translateExtent([
      [0, 0],
      [width + 400, height + 300],
    ]);
  }, [width, height]);

  /** Brings a box into view, at the scale that is set, unless it is in view already. */
  const show = useCallback((box: { x: number; y: number; width: number; height: number }) => {
    const element = svg.current;
    if (!element || !behavior.current) return;
    const k = currentScale(element);
    const { x, y } = currentShift(element);
    const [left, top] = [box.x * k + x, box.y * k + y];
    const { clientWidth, clientHeight } = element;
    const inside = left >= 0 && top >= 24 && left + box.width * k <= clientWidth && top + box.height * k <= clientHeight;
    if (!inside) behavior.current.translateTo(select(element), box.x + box.width / 2, box.y + box.height / 2);
  }, []);

  const scaleBy = useCallback((factor: number) => {
    if (svg.current && behavior.current) behavior.current.scaleBy(select(svg.current), factor);
  }, []);

  const showAll = useCallback(() => {
    const element = svg.current;
    if (!element || !behavior.current) return;
    const k = Math.min(1, (element.clientWidth - 24) / width, (element.clientHeight - 24) / height);
    behavior.current.transform(select(element), zoomIdentity.translate(0, 0).scale(Math.max(0.08, k)));
  }, [width, height]);

  return { svg, ground, frame, detail, show, scaleBy, showAll };
}

function currentScale(element: SVGSVGElement): number {
  return zoomTransform(element).k;
}

function currentShift(element: SVGSVGElement): { x: number; y: number } {
  return zoomTransform(element);
}
