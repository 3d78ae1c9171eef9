import { lookup } from "../../model/lookup.ts";
import { once } from "../../model/once.ts";
import type { Project } from "../../model/schema.ts";
import { type Outlined, outlined } from "../columns.ts";
import { type Sections, sectionsOf } from "../sections.ts";
import type { MapLayout, Room } from "../types.ts";
import type { Density } from "./density.ts";
import { type Column, type Entry, entriesOf, filled, type Gaps, INDENT, LEVEL, laidOut, PADDING, SHORT } from "./indexed.ts";
import { nameCard, nameWidths, waysIn } from "./made.ts";

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
  if (isTooMuch(project, density, gaps, { ...room, height }, cut)) return undefined;
  const found = widestThatFits(project, from, density, (entries, most) => !isCut(entries, most, cut) && fits(filled(entries, height, gaps), most, room.width));
  if (!found) return undefined;
  const { widest, entries } = found;
  // The lowest height at which it still fits: columns of nearly the same length, over the whole width.
  // A short band is not broken over two columns for it.
  let [low, high] = [Math.min(height, Math.max(height / 12, density.caption + (SHORT + 2) * density.line)), height];
  for (let i = 0; i < 9; i++) {
    const middle = (low + high) / 2;
    if (fits(filled(entries, middle, gaps), widest, room.width)) high = middle;
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

/** The outline of each section, with the width of each name at a size of one pixel. */
function outlinesOf(project: Project): ReadonlyMap<string, Array<Outlined & { em: number }>> {
  const ems = nameWidths(project);
  return new Map(
    sectionsOf(project).sections.map((section) => [
      section.id,
      outlined(project, section.screens, section.start).map((one) => ({ ...one, em: ems.get(one.id) ?? 0 })),
    ]),
  );
}

function names(project: Project, from: Sections, { size, line, caption, beside }: Density, most: number): Entry[] {
  const { screens } = lookup(project);
  const outlines = once(project, outlinesOf);
  return entriesOf(from, { size, caption, beside: beside ? most : undefined }, (section) =>
    (outlines.get(section.id) ?? []).map(({ id, depth, parent, em }) => ({
      ids: [id],
      named: screens.get(id)?.name ?? id,
      depth,
      parent,
      height: line,
      width: Math.min(depth, DEEPEST) * INDENT + em * size + BESIDE,
    })),
  );
}

/**
 * Whether the names cannot fit, as can be told without laying them out: so many lines need so many columns, and a column is no narrower
 * than its names are on average.
 */
function isTooMuch(project: Project, { size, line }: Density, { above, below }: Gaps, room: Room, cut: number): boolean {
  const ems = once(project, sortedWidths);
  // As few may be cut as may be, columns are at least so wide.
  const widest = Math.max(WIDEST.at(-1) ?? 0, (ems[Math.ceil(ems.length * (1 - cut)) - 1] ?? 0) * size + BESIDE);
  let sum = 0;
  for (const em of ems) sum += Math.min(em * size + BESIDE, widest);
  const mean = sum / Math.max(1, ems.length);
  const lines = ems.length * line + once(project, outlinesOf).size * (above + below);
  return (lines / room.height) * (mean + PADDING + GUTTER) > room.width;
}

const sortedWidths = (project: Project) => [...nameWidths(project).values()].sort((a, b) => a - b);

function widthOf(column: Column, widest: number): number {
  let most = 70;
  for (const { width, level } of column) most = Math.max(most, Math.min(width, widest) + level * LEVEL + PADDING);
  return most;
}

function fits(columns: readonly Column[], widest: number, room: number): boolean {
  let wide = GUTTER;
  for (const column of columns) {
    wide += widthOf(column, widest) + GUTTER;
    if (wide > room) return false;
  }
  return true;
}

/** Whether more than a share of the names would be cut at a width. */
function isCut(entries: readonly Entry[], widest: number, share: number): boolean {
  let [cut, all] = [0, 0];
  for (const { ids, width } of entries) {
    if (ids.length === 0) continue;
    all += 1;
    if (width > widest) cut += 1;
  }
  return cut > all * share;
}

/** The lines at the widest columns that do; captions beside names depend on the width. */
function widestThatFits(project: Project, from: Sections, density: Density, does: (entries: Entry[], widest: number) => boolean) {
  let entries: Entry[] | undefined;
  for (const widest of WIDEST) {
    if (!entries || density.beside) entries = names(project, from, density, widest);
    if (does(entries, widest)) return { widest, entries };
  }
  return undefined;
}
