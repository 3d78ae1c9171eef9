import { use, useMemo, useRef } from "react";
import { keepCards, keepLines } from "../../../core/map/keep.ts";
import { layoutRows } from "../../../core/map/layouts/rows.ts";
import { type Line, linesOf } from "../../../core/map/lines.ts";
import type { Card, Drawing, MapLayout, Room } from "../../../core/map/types.ts";
import type { Project } from "../../../core/model/schema.ts";

type Layouts = typeof import("../../../core/map/layouts/far.ts");

/** The layouts of the other drawings are loaded beside the first one. */
const others: { loaded: Layouts | undefined; loading: Promise<Layouts> } = {
  loaded: undefined,
  loading: import("../../../core/map/layouts/far.ts").then((layouts) => {
    others.loaded = layouts;
    return layouts;
  }),
};
others.loading.catch(() => undefined);

/** The layout, with what came out the same as before kept as it was; lines at rest are those of rows. Before the room is known it is a usual one. */
export function useMapLayout(project: Project, drawing: Drawing, far: boolean, room: Room | undefined): { layout: MapLayout; lines: Line[] } {
  const lines = useRef<Line[] | undefined>(undefined);
  const cards = useRef<Card[] | undefined>(undefined);
  const layouts = drawing === "rows" ? undefined : (others.loaded ?? use(others.loading));
  // Rows are the same in every room.
  const { width = 0, height = 0 } = layouts ? (room ?? layouts.USUAL_ROOM) : {};
  return useMemo(() => {
    const made = layouts && drawing !== "rows" ? layouts.layoutFar(project, drawing, { width, height }, far) : layoutRows(project);
    if (drawing === "rows") {
      lines.current = keepLines(lines.current, linesOf(project, made));
      return { layout: made, lines: lines.current };
    }
    cards.current = keepCards(cards.current, made.cards);
    return { layout: { ...made, cards: cards.current }, lines: [] };
  }, [project, layouts, drawing, far, width, height]);
}
