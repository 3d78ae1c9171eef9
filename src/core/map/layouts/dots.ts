import { lookup } from "../../model/lookup.ts";
import type { Project } from "../../model/schema.ts";
import { textWidth } from "../../text/width.ts";
import { columnsOf } from "../columns.ts";
import type { Sections } from "../sections.ts";
import type { Card, MapLayout, Room } from "../types.ts";
import { entriesOf, filled, LEVEL, laidOut } from "./indexed.ts";

/** From one dot to the next. */
const PITCH = 11;
const DOT = 8;
const GUTTER = 16;
/** Of the captions. */
const SIZE = 11;
const CAPTION = 15;
const GAPS = { above: 4, below: 2 };
/** Widths of columns that are tried, from wide to narrow. */
const WIDTHS = [180, 150, 126, 108];

/** So many screens that their names would not fit: a dot for each, nearest to the start of its band first, under the band's caption. */
export function layoutDots(project: Project, from: Sections, room: Room): MapLayout {
  const tried = WIDTHS.map((width) => ({ width, columns: filled(dots(project, from, width), room.height - 12, GAPS) }));
  const fits = tried.find(({ width, columns }) => columns.length * (width + GUTTER) + GUTTER <= room.width);
  const { width } = fits ?? { width: 108 };
  const columns = fits?.columns ?? lowest(dots(project, from, width), Math.max(1, Math.floor((room.width - GUTTER) / (width + GUTTER))), room.height);
  return laidOut(project, from, columns, {
    form: "dots",
    room,
    size: SIZE,
    gutter: GUTTER,
    gaps: GAPS,
    width: () => width,
    cards: ({ ids, section }, box) => ids.flatMap((id, i): Card[] => dotOf(project, id, section.id, i, box, id === section.start)),
  });
}

/** Columns of the least height at which there are no more than so many. */
function lowest(entries: ReturnType<typeof dots>, most: number, height: number) {
  for (let high = height; ; high *= 1.08) {
    const columns = filled(entries, high, GAPS);
    if (columns.length <= most) return columns;
  }
}

function dots(project: Project, from: Sections, width: number) {
  return entriesOf(from, { size: SIZE, caption: CAPTION }, ({ screens, start, level }) => {
    const byDepth = [...columnsOf(project, screens, start)].sort(([, a], [, b]) => a - b).map(([id]) => id);
    const each = Math.max(1, Math.floor((width - 16 - level * LEVEL) / PITCH));
    return Array.from({ length: Math.ceil(byDepth.length / each) }, (_, i) => ({
      ids: byDepth.slice(i * each, (i + 1) * each),
      height: PITCH,
      width: textWidth("", SIZE),
    }));
  });
}

function dotOf(project: Project, id: string, band: string, i: number, box: { x: number; y: number }, isStart: boolean): Card[] {
  const screen = lookup(project).screens.get(id);
  if (!screen) return [];
  const place = { x: box.x + i * PITCH, y: box.y + 1, width: DOT, height: DOT };
  return [{ ...place, id, screen, band, column: i, depth: 0, rows: [], label: "", entrances: [], isStart }];
}
