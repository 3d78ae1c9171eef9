import { lookup } from "../../model/lookup.ts";
import type { Project } from "../../model/schema.ts";
import { textWidth } from "../../text/width.ts";
import { outlined } from "../columns.ts";
import type { Sections } from "../sections.ts";
import type { MapLayout, Room } from "../types.ts";
import type { Density } from "./density.ts";
import { type Column, type Entry, entriesOf, filled, type Gaps, INDENT, LEVEL, laidOut, PADDING } from "./indexed.ts";
import { nameCard, waysIn } from "./made.ts";

/** Between two columns of the index, where lines run. */
const GUTTER = 14;
/** Of a line beside its name: a number, a mark. */
const BESIDE = 22;
const ROOMY: Gaps = { above: 5, below: 2 };
const CLOSE: Gaps = { above: 2.5, below: 0.5 };
/** The widest columns that are tried, from wide to narrow. */
const WIDEST = [210, 190, 170, 155, 140, 128, 116, 104];
/** Depths that are told by how far a name is set in. */
const DEEPEST = 4;

interface Wanted {
  /** Pixels that no column is higher than. */
  height: number;
  /** The share of names that may be cut. */
  cut: number;
}

/**
 * Names as the index of a book: bands beneath one another in columns of one height, in each band every screen beneath the one that
 * leads to it first. Undefined where that does not fit the room's width at a height, or a larger share of names would be cut than may be.
 */
export function layoutIndex(project: Project, from: Sections, room: Room, density: Density, { height, cut }: Wanted): MapLayout | undefined {
  const gaps = density.line < 14 ? CLOSE : ROOMY;
  const tried = (density.beside ? WIDEST : WIDEST.slice(0, 1)).map((most) => names(project, from, density, most));
  const at = WIDEST.findIndex((most, i) => fits(filled(tried[i] ?? tried[0] ?? [], height, gaps), most, room.width, cut));
  const [widest, entries] = [WIDEST[at], tried[at] ?? tried[0]];
  if (widest === undefined || !entries) return undefined;
  // The lowest height at which it still fits: columns of nearly the same length, over the whole width.
  let [low, high] = [height / 12, height];
  for (let i = 0; i < 12; i++) {
    const middle = (low + high) / 2;
    if (fits(filled(entries, middle, gaps), widest, room.width, cut)) high = middle;
    else low = middle;
  }
  const columns = filled(entries, high, gaps);
  const ways = waysIn(project);
  return laidOut(project, from, columns, {
    form: "index",
    room,
    size: density.size,
    gutter: GUTTER,
    gaps,
    width: (column) => widthOf(column, widest),
    cards: ({ ids, depth = 0, parent, section }, box) => {
      const inset = Math.min(depth, DEEPEST) * INDENT;
      const inner = { ...box, x: box.x + inset, width: box.width - inset };
      return ids.flatMap((id) => {
        const card = nameCard(project, id, {
          box: inner,
          band: section.id,
          column: depth,
          depth,
          size: density.size,
          beside: BESIDE,
          isStart: id === section.start,
          ways,
        });
        return card ? [parent === undefined ? card : { ...card, parent }] : [];
      });
    },
  });
}

function names(project: Project, from: Sections, { size, line, caption, beside }: Density, most: number): Entry[] {
  const { screens } = lookup(project);
  return entriesOf(from, { size, caption, beside: beside ? most : undefined }, (section) =>
    outlined(project, section.screens, section.start).map(({ id, depth, parent }) => ({
      ids: [id],
      named: screens.get(id)?.name ?? id,
      depth,
      parent,
      height: line,
      width: Math.min(depth, DEEPEST) * INDENT + textWidth(screens.get(id)?.name || id, size) + BESIDE,
    })),
  );
}

function widthOf(column: Column, widest: number): number {
  return Math.max(70, ...column.map(({ width, level }) => Math.min(width, widest) + level * LEVEL + PADDING));
}

function fits(columns: readonly Column[], widest: number, room: number, cut: number): boolean {
  const wide = columns.reduce((sum, column) => sum + widthOf(column, widest) + GUTTER, GUTTER);
  const all = columns.flat().filter(({ ids }) => ids.length > 0);
  return wide <= room && all.filter(({ width }) => width > widest).length <= all.length * cut;
}
