import { useCallback, useEffect, useRef, useState } from "react";
import type { Area, Picture } from "../../../core/model/schema.ts";
import { type Luma, type Rect, snapped } from "../../../core/pictures/snap.ts";

/** Pixels on the screen within which a side is drawn to an edge of the picture. */
const REACH = 9;
/** Pixels on the screen that a pointer has to go to draw or move something. */
const LEAST = 5;

export type Grip = "move" | "n" | "e" | "s" | "w" | "ne" | "nw" | "se" | "sw";
interface Going {
  grip: Grip | "draw";
  area: number | undefined;
  from: { x: number; y: number };
  was: Rect;
  moved: boolean;
  /** Where it is by now. */
  rect?: Rect;
}

export interface Stage {
  /** A rectangle that is being drawn, or that is drawn and not named yet. */
  drawing: Rect | undefined;
  /** The area that is being moved, where it is now. */
  moving: { area: number; rect: Rect } | undefined;
  onDown: (event: React.PointerEvent, on: { grip: Grip; area: number } | undefined) => void;
  onMove: (event: React.PointerEvent) => void;
  onUp: (event: React.PointerEvent) => void;
  onCancel: () => void;
  /** Moves (or, `by` a side, makes larger) an area by pixels of the picture; told when the key is let go. */
  nudge: (area: number, dx: number, dy: number, grow: boolean) => void;
  settle: () => void;
}

interface Told {
  picture: Picture;
  frame: React.RefObject<HTMLElement | null>;
  luma: Luma | undefined;
  snap: boolean;
  drawn: (rect: Rect) => void;
  chosen: (area: number | undefined) => void;
  changed: (area: Area, rect: Rect) => void;
}

/** Drawing, moving and sizing areas on a picture, by pointer and by keys. Rectangles are in pixels of the picture. */
export function useStage(told: Told): Stage {
  const now = useRef(told);
  now.current = told;
  const going = useRef<Going | undefined>(undefined);
  const [drawing, setDrawing] = useState<Rect>();
  const [moving, setMoving] = useState<{ area: number; rect: Rect }>();
  const latest = useRef(moving);
  latest.current = moving;

  const at = (event: React.PointerEvent) => {
    const { frame, picture } = now.current;
    const box = frame.current?.getBoundingClientRect();
    const scale = box && box.width > 0 ? picture.size[0] / box.width : 1;
    return { x: (event.clientX - (box?.left ?? 0)) * scale, y: (event.clientY - (box?.top ?? 0)) * scale, scale };
  };

  const settle = useCallback(() => {
    const move = latest.current;
    const area = move && now.current.picture.areas[move.area];
    // Told once, though two keys may be let go before the page is drawn again.
    latest.current = undefined;
    if (move && area) now.current.changed(area, move.rect);
    setMoving(undefined);
  }, []);

  const follow = (event: React.PointerEvent) => {
    const move = going.current;
    if (!move) return;
    const { x, y, scale } = at(event);
    const { picture, luma, snap } = now.current;
    if (!move.moved && Math.hypot(x - move.from.x, y - move.from.y) < LEAST * scale) return;
    move.moved = true;
    const [dx, dy] = [x - move.from.x, y - move.from.y];
    const free = move.grip === "draw" ? between(move.from, { x, y }) : pulled(move.was, move.grip, dx, dy);
    const rect = within(snap && luma && !event.altKey ? snappedBy(luma, free, move.grip, Math.round(REACH * scale)) : (free.map(Math.round) as Rect), picture);
    move.rect = rect;
    if (move.grip === "draw") setDrawing(rect);
    else if (move.area !== undefined) {
      latest.current = { area: move.area, rect };
      setMoving(latest.current);
    }
  };

  // Another picture: nothing of the last one goes on.
  const { file } = told.picture;
  useEffect(() => {
    void file;
    going.current = undefined;
    setDrawing(undefined);
    setMoving(undefined);
  }, [file]);

  return {
    drawing,
    moving,
    onDown: (event, on) => {
      if (event.button !== 0) return;
      const { x, y } = at(event);
      const area = on && now.current.picture.areas[on.area];
      going.current = { grip: on?.grip ?? "draw", area: on?.area, from: { x, y }, was: area ? [...area.at] : [x, y, 0, 0], moved: false };
      (event.currentTarget as Element).setPointerCapture?.(event.pointerId);
      now.current.chosen(on?.area);
      setDrawing(undefined);
    },
    onMove: follow,
    onUp: (event) => {
      // What was not drawn yet counts too: the finger may be lifted before the next frame.
      follow(event);
      const move = going.current;
      going.current = undefined;
      if (!move?.moved) return;
      if (move.grip !== "draw") return settle();
      const rect = move.rect;
      if (rect && rect[2] >= 4 && rect[3] >= 4) now.current.drawn(rect);
      else setDrawing(undefined);
    },
    onCancel: () => {
      going.current = undefined;
      setDrawing(undefined);
      setMoving(undefined);
    },
    nudge: (area, dx, dy, grow) => {
      const { picture } = now.current;
      const rect = latest.current?.area === area ? latest.current.rect : picture.areas[area]?.at;
      if (!rect) return;
      const next = pulled([...rect], grow ? "se" : "move", dx, dy);
      latest.current = { area, rect: within(next, picture) };
      setMoving(latest.current);
    },
    settle,
  };
}

function between(a: { x: number; y: number }, b: { x: number; y: number }): Rect {
  return [Math.min(a.x, b.x), Math.min(a.y, b.y), Math.abs(a.x - b.x), Math.abs(a.y - b.y)];
}

/** A rectangle that is pulled at one of its sides or corners, or moved. */
export function pulled([x, y, w, h]: Rect, grip: Grip, dx: number, dy: number): Rect {
  if (grip === "move") return [x + dx, y + dy, w, h];
  const [west, north, east, south] = [grip.includes("w"), grip.includes("n"), grip.includes("e"), grip.includes("s")];
  const [x0, x1] = [west ? Math.min(x + dx, x + w - 4) : x, east ? Math.max(x + w + dx, x + 4) : x + w];
  const [y0, y1] = [north ? Math.min(y + dy, y + h - 4) : y, south ? Math.max(y + h + dy, y + 4) : y + h];
  return [x0, y0, x1 - x0, y1 - y0];
}

/** What is moved keeps its size: it goes to where most of its sides find edges. What is pulled has only the pulled sides moved. */
function snappedBy(luma: Luma, rect: Rect, grip: Grip | "draw", reach: number): Rect {
  const to = snapped(luma, rect, reach);
  const [x, y, w, h] = rect;
  if (grip === "draw") return to;
  if (grip === "move") {
    const pick = (near: number, far: number) => (near !== 0 && (far === 0 || Math.abs(near) <= Math.abs(far)) ? near : far);
    const dx = pick(to[0] - Math.round(x), to[0] + to[2] - Math.round(x + w));
    const dy = pick(to[1] - Math.round(y), to[1] + to[3] - Math.round(y + h));
    return [Math.round(x) + dx, Math.round(y) + dy, Math.round(w), Math.round(h)];
  }
  const x0 = grip.includes("w") ? to[0] : x;
  const x1 = grip.includes("e") ? to[0] + to[2] : x + w;
  const y0 = grip.includes("n") ? to[1] : y;
  const y1 = grip.includes("s") ? to[1] + to[3] : y + h;
  return [x0, y0, Math.max(1, x1 - x0), Math.max(1, y1 - y0)].map(Math.round) as Rect;
}

function within([x, y, w, h]: Rect, { size: [width, height] }: Picture): Rect {
  const [dx, dy] = [Math.min(w, width), Math.min(h, height)];
  return [Math.max(0, Math.min(x, width - dx)), Math.max(0, Math.min(y, height - dy)), dx, dy].map((n) => Math.round(n)) as Rect;
}
