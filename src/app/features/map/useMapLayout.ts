import { useMemo, useRef } from "react";
import { keepCards, keepLines } from "../../../core/map/keep.ts";
import { layoutMap, USUAL_ROOM } from "../../../core/map/layout.ts";
import { type Line, linesOf } from "../../../core/map/lines.ts";
import type { Card, Drawing, MapLayout, Room } from "../../../core/map/types.ts";
import type { Project } from "../../../core/model/schema.ts";

/** The layout, with what came out the same as before kept as it was; lines at rest are those of rows. Before the room is known it is a usual one. */
export function useMapLayout(project: Project, drawing: Drawing, far: boolean, room: Room | undefined): { layout: MapLayout; lines: Line[] } {
  const lines = useRef<Line[] | undefined>(undefined);
  const cards = useRef<Card[] | undefined>(undefined);
  // Rows are the same in every room.
  const { width, height } = drawing === "rows" ? USUAL_ROOM : (room ?? USUAL_ROOM);
  return useMemo(() => {
    const made = layoutMap(project, drawing, { width, height }, far);
    if (drawing === "rows") {
      lines.current = keepLines(lines.current, linesOf(project, made));
      return { layout: made, lines: lines.current };
    }
    cards.current = keepCards(cards.current, made.cards);
    return { layout: { ...made, cards: cards.current }, lines: [] };
  }, [project, drawing, far, width, height]);
}
