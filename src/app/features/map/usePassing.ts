import { useCallback, useEffect, useRef } from "react";
import type { Card, Drawing, MapLayout, Point } from "../../../core/map/types.ts";
import { useSeeing } from "../../session/hooks.ts";
import { usePreferences } from "../../ui/preferences.ts";

/** The scale at which a drawing is shown that was zoomed into, or out to. */
const SCALE: Record<Drawing, number> = { rows: 0.85, faces: 0.85, names: 1 };

interface Held {
  /** The screen that stays in its place, and where that is. */
  card: string;
  screen: Point;
  scale: number;
}

/** Passing from one drawing of the map to another: what is under the pointer stays there. */
export function usePassing(layout: MapLayout) {
  const { drawing, near, far, draw } = useSeeing();
  const held = useRef<Held | undefined>(undefined);
  const latest = useRef(layout);
  latest.current = layout;

  const pass = useCallback(
    (towards: "out" | "in", at: Point, screen: Point): boolean => {
      const { cards, form } = latest.current;
      const dots = drawing === "names" && form === "dots";
      const next: [Drawing, boolean] | undefined =
        towards === "out"
          ? drawing !== "names"
            ? ["names", true]
            : far
              ? undefined
              : ["names", true]
          : drawing !== "names"
            ? undefined
            : dots
              ? ["names", false]
              : [near, true];
      const card = nearest(cards, at);
      if (!next || !card) return false;
      held.current = { card: card.id, screen, scale: SCALE[next[0]] };
      draw(...next);
      usePreferences.getState().set({ drawing: next[0] });
      return true;
    },
    [drawing, near, far, draw],
  );
  /** Where the card that is held stands now; asked once after each new layout. */
  const take = useCallback((): { point: Point; screen: Point; scale: number } | undefined => {
    const hold = held.current;
    held.current = undefined;
    const card = hold && latest.current.cards.find(({ id }) => id === hold.card);
    return hold && card ? { point: middleOf(card), screen: hold.screen, scale: hold.scale } : undefined;
  }, []);
  return { pass, take };
}

/** Puts what was held where it was, or else shows the whole, when another drawing is laid out. */
export function usePlaced(
  layout: MapLayout,
  take: ReturnType<typeof usePassing>["take"],
  put: (point: Point, screen: Point, scale: number) => void,
  otherwise: () => void,
) {
  const { drawing, form } = layout;
  const shown = useRef(`${drawing} ${form === "dots"}`);
  const latest = useRef(otherwise);
  latest.current = otherwise;
  useEffect(() => {
    const now = `${drawing} ${form === "dots"}`;
    if (shown.current === now) return;
    shown.current = now;
    const held = take();
    if (held) put(held.point, held.screen, held.scale);
    else latest.current();
  }, [drawing, form, take, put]);
}

function middleOf({ x, y, width, height }: Card): Point {
  return { x: x + width / 2, y: y + height / 2 };
}

function nearest(cards: readonly Card[], { x, y }: Point): Card | undefined {
  let best: { card: Card; distance: number } | undefined;
  for (const card of cards) {
    const [dx, dy] = [Math.max(card.x - x, 0, x - card.x - card.width), Math.max(card.y - y, 0, y - card.y - card.height)];
    const distance = dx * dx + dy * dy;
    if (best === undefined || distance < best.distance) best = { card, distance };
  }
  return best?.card;
}
