import { startTransition, useCallback, useRef, useState } from "react";
import type { Box } from "../../../core/map/types.ts";

/** How far beyond what is seen the map is drawn, as a share of the view; within it, panning draws nothing new. */
const MARGIN = 1;

/** The part of the map that is drawn: what is seen, with a margin. It is renewed only when the view leaves it or is much smaller. */
export function useVisible() {
  const [drawn, setDrawn] = useState<Box>({ x: 0, y: 0, width: 2400, height: 1600 });
  const kept = useRef(drawn);
  const look = useCallback((seen: Box) => {
    const { x, y, width, height } = kept.current;
    const inside = seen.x >= x && seen.y >= y && seen.x + seen.width <= x + width && seen.y + seen.height <= y + height;
    if (inside && width < seen.width * 6) return;
    const [dx, dy] = [seen.width * MARGIN, seen.height * MARGIN];
    kept.current = { x: seen.x - dx, y: seen.y - dy, width: seen.width + 2 * dx, height: seen.height + 2 * dy };
    const next = kept.current;
    // In slices between frames, so that panning goes on meanwhile.
    startTransition(() => setDrawn(next));
  }, []);
  return { drawn, look };
}

export function meets(a: Box, b: Box): boolean {
  return a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;
}
