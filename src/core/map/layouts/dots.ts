import { lookup } from "../../model/lookup.ts";
import { once } from "../../model/once.ts";
import type { Project } from "../../model/schema.ts";
import { columnsOf } from "../columns.ts";
import { type Sections, sectionsOf } from "../sections.ts";
import type { Card, MapLayout, Room } from "../types.ts";
import { type Column, entriesOf, filled, LEVEL, laidOut } from "./indexed.ts";

/** From one dot to the next. */
const PITCH = 11;
const DOT = 8;
const GUTTER = 16;
/** Of the captions, as they are seen. */
const SIZE = 11;
const CAPTION = 15;
const GAPS = { above: 4, below: 2 };
/** Widths of columns that are tried, from wide to narrow. */
const WIDTHS = [180, 150, 126, 108];
/** How much smaller than drawn the map may be seen, from not at all; captions are drawn larger by as much. */
const SMALLER = [1, 1.2, 1.45, 1.75, 2.1, 2.5, 3];

/** So many screens that their names would not fit: a dot for each, nearest to the start of its band first, under the band's caption. */
export function layoutDots(project: Project, from: Sections, room: Room): MapLayout {
  for (const scale of SMALLER)
    for (const width of WIDTHS.map((wide) => wide * Math.sqrt(scale))) {
      const columns = filled(dots(project, from, width, scale), room.height * scale - 12, GAPS);
      if (columns.length * (width + GUTTER) + GUTTER <= room.width * scale) return laid(project, from, columns, width, scale, room);
    }
  const scale = SMALLER.at(-1) ?? 1;
  const width = 108 * Math.sqrt(scale);
  return laid(project, from, filled(dots(project, from, width, scale), room.height * scale * 2, GAPS), width, scale, room);
}

function laid(project: Project, from: Sections, columns: Column[], width: number, scale: number, room: Room): MapLayout {
  return laidOut(project, from, columns, {
    form: "dots",
    room: { width: room.width * scale, height: room.height * scale },
    size: SIZE * scale,
    gutter: GUTTER,
    gaps: GAPS,
    width: () => width,
    cards: ({ ids, section }, box) => ids.flatMap((id, i): Card[] => dotOf(project, id, section.id, i, box, id === section.start)),
  });
}

/** The screens of each section, those nearest to its start first. */
function nearestFirst(project: Project): ReadonlyMap<string, string[]> {
  return new Map(
    sectionsOf(project).sections.map(({ id, screens, start }) => [
      id,
      [...columnsOf(project, screens, start)].sort(([, a], [, b]) => a - b).map(([screen]) => screen),
    ]),
  );
}

function dots(project: Project, from: Sections, width: number, scale: number) {
  const nearest = once(project, nearestFirst);
  return entriesOf(from, { size: SIZE * scale, caption: CAPTION * scale, beside: width - 10 }, ({ id, level }) => {
    const byDepth = nearest.get(id) ?? [];
    const each = Math.max(1, Math.floor((width - 16 - level * LEVEL) / PITCH));
    return Array.from({ length: Math.ceil(byDepth.length / each) }, (_, i) => {
      const ids = byDepth.slice(i * each, (i + 1) * each);
      return { ids, height: PITCH, width: ids.length * PITCH + 6 };
    });
  });
}

function dotOf(project: Project, id: string, band: string, i: number, box: { x: number; y: number }, isStart: boolean): Card[] {
  const screen = lookup(project).screens.get(id);
  if (!screen) return [];
  const place = { x: box.x + i * PITCH, y: box.y + 1, width: DOT, height: DOT };
  return [{ ...place, id, screen, band, column: i, depth: 0, rows: [], label: "", entrances: [], isStart }];
}
