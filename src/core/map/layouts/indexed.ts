import type { Project } from "../../model/schema.ts";
import { fitted, textWidth } from "../../text/width.ts";
import type { Group, Section, Sections } from "../sections.ts";
import type { Band, Box, Card, MapLayout, Room, Spine } from "../types.ts";
import { finished } from "./made.ts";

/** Pixels that a name is set in for each leg from its band's start. */
export const INDENT = 8;
/** Width at the left of a column for each level of containers. */
export const LEVEL = 8;
/** Of a band at both sides of its names. */
export const PADDING = 10;
/** Above the first line of each column. */
const TOP = 24;

/** The widest caption beside a name. */
const CAPTION_BESIDE = 70;

/** A section of so many further lines is not broken over two columns. */
export const SHORT = 6;

/** A line of an index: a caption, or one or several screens. */
export interface Entry {
  is: "group" | "caption" | "screens";
  section: Section;
  /** Its place among the sections. */
  at: number;
  /** The container that a group's line names. */
  group?: Group;
  ids: readonly string[];
  /** The name of its one screen. */
  named?: string;
  depth?: number;
  parent?: string | undefined;
  height: number;
  /** The width that it wants. */
  width: number;
  /** Levels of containers around it. */
  level: number;
  /** Pixels at its end for the caption of its section, which has no line of its own. */
  beside?: number;
}
export type Column = Entry[];

type Screens = Pick<Entry, "ids" | "depth" | "parent" | "height" | "width" | "named">;

/**
 * All lines of an index, in order.
 * @param type its sizes; a sheet's caption stands beside its first name where the two are no wider than `beside`
 */
export function entriesOf(
  { sections, groups }: Sections,
  type: { size: number; caption: number; beside?: number | undefined },
  screensOf: (section: Section) => Screens[],
): Entry[] {
  return sections.flatMap((section, at): Entry[] => {
    const level = groups.filter(({ from, to }) => from <= at && at < to).length;
    const caption = (name: string) => ({ ids: [], height: type.caption, width: textWidth(name, type.size) * 1.15 + 18 });
    const begun = groups.filter(({ from, container }) => from === at && container.kind !== "stack" && container.id !== section.id);
    const heads = begun
      .sort((a, b) => a.level - b.level)
      .map((group) => ({ ...caption(`${group.container.name}, ${group.container.kind}`), is: "group" as const, section, at, group, level: group.level + 1 }));
    const lines = screensOf(section).map((line) => ({ ...line, is: "screens" as const, section, at, level }));
    const own = { ...caption(section.name || section.id), is: "caption" as const, section, at, level };
    const [only] = lines;
    // A screen that is a lane by itself needs no caption above it, nor one in a modal of its own name.
    const first = lines[0];
    const wide = Math.min(textWidth(section.name || section.id, type.size) * 1.15 + 12, CAPTION_BESIDE * (type.size / 11));
    if (type.beside && section.modal && heads.length === 0 && first && first.width + wide <= type.beside)
      return [{ ...first, width: first.width + wide, beside: wide, height: Math.max(first.height, type.caption - 2) }, ...lines.slice(1)];
    const alone = lines.length === 1 && only?.named === section.name;
    return [...heads, ...((section.container && !alone) || !only ? [own] : []), ...lines];
  });
}

/** Lines in columns of a height at most; a caption never stands at a column's foot, and the next column says what goes on. */
export function filled(entries: readonly Entry[], height: number, { above, below }: Gaps): Column[] {
  const columns: Column[] = [];
  let column: Column = [];
  let free = 0;
  entries.forEach((entry, i) => {
    const last = column.at(-1);
    const begins = last === undefined || last.at !== entry.at;
    let together = entry.height + (begins ? above + below : 0);
    if (begins) together += unbroken(entries, i);
    else for (let j = i; entries[j]?.is !== "screens" && entries[j + 1]?.at === entry.at; j++) together += entries[j + 1]?.height ?? 0;
    if (last === undefined || together > free) {
      column = [];
      columns.push(column);
      free = height - TOP;
      const goesOn = entry.is === "screens" && entries[i - 1]?.at === entry.at && entry.section.container ? captionOf(entries, i) : undefined;
      if (goesOn) {
        column.push(goesOn);
        free -= goesOn.height;
      }
      free -= entry.height + below;
    } else free -= entry.height + (begins ? above + below : 0);
    column.push(entry);
  });
  return columns;
}

/** Height of the lines after a section's first that stay in one column with it: all of a short section, else its captions with what follows them. */
function unbroken(entries: readonly Entry[], first: number): number {
  const at = entries[first]?.at;
  let [all, captions, named] = [0, 0, entries[first]?.is === "screens"];
  for (let i = first + 1; entries[i]?.at === at; i++) {
    // A section that is not short is broken anyway.
    if (i - first > SHORT) return captions;
    all += entries[i]?.height ?? 0;
    if (!named) captions = all;
    named ||= entries[i]?.is === "screens";
  }
  return all;
}

function captionOf(entries: readonly Entry[], i: number): Entry | undefined {
  for (let j = i - 1; j >= 0 && entries[j]?.at === entries[i]?.at; j--) if (entries[j]?.is === "caption") return entries[j];
  return undefined;
}

/** Pixels of free ground: above each band but the first of a column; and in a band, beneath its last line. */
export interface Gaps {
  above: number;
  below: number;
}

interface Laying {
  form: "index" | "dots";
  room: Room;
  size: number;
  gutter: number;
  gaps: Gaps;
  width: (column: Column) => number;
  /** The cards of a line of screens, in the box that it has. */
  cards: (entry: Entry, box: Box) => Card[];
}

/** Columns of lines side by side, as bands, cards and spines; what room is left over goes to the columns and the space between them. */
export function laidOut(project: Project, from: Sections, columns: readonly Column[], laying: Laying): MapLayout {
  const { form, room, size, gutter, width } = laying;
  const widths = columns.map(width);
  const used = widths.reduce((sum, wide) => sum + wide + gutter, gutter);
  const over = Math.max(0, room.width - used) / Math.max(1, columns.length);
  const bands = new Map<string, Band>();
  const cards: Card[] = [];
  const spines: Spine[] = [];
  let x = gutter;
  let bottom = 0;
  columns.forEach((column, i) => {
    const wide = (widths[i] ?? 0) + Math.min(over * 0.7, 46);
    const made = columnOf(column, { x, width: wide }, laying, from);
    for (const band of made.bands) {
      const before = bands.get(band.id);
      if (before) before.further.push({ x: band.x, y: band.y, width: band.width, height: band.height, caption: band.caption });
      else bands.set(band.id, band);
    }
    cards.push(...made.cards);
    spines.push(...made.spines);
    bottom = Math.max(bottom, made.bottom);
    x += wide + gutter + Math.min(over * 0.3, 30);
  });
  for (const band of bands.values()) band.foot = bottom + 8;
  const all = { form, size, width: Math.max(room.width, x), height: bottom + 16, left: gutter, ruled: 0, pitch: 0, bands: [...bands.values()], cards, spines };
  return finished(project, { drawing: "names", ...all, trunk: x - gutter / 2, channels: [TOP - 12, bottom + 8], gaps: [] });
}

interface Made {
  bands: Band[];
  cards: Card[];
  spines: Spine[];
  bottom: number;
}

function columnOf(column: Column, { x, width }: { x: number; width: number }, { size, cards, gaps: { above, below } }: Laying, from: Sections): Made {
  const made: Made = { bands: [], cards: [], spines: [], bottom: 0 };
  let y = TOP;
  column.forEach((entry, i) => {
    const before = column[i - 1];
    const band = made.bands.at(-1);
    if (before && before.at !== entry.at) y += below + above;
    const left = x + entry.level * LEVEL;
    if (entry.is === "group" && entry.group) made.spines.push(headOf(entry.group, { x: left, y, height: entry.height }));
    else if (entry.is === "caption" || before?.at !== entry.at || before.is === "group") {
      made.bands.push(bandOf(entry, { x: left, y, width: x + width - left, height: entry.height + below }, size));
    }
    const own = made.bands.at(-1);
    if (entry.is === "screens" && own) {
      if (own === band) own.height = y + entry.height + below - own.y;
      made.cards.push(...cards(entry, { x: left + 6, y: y + 0.5, width: own.width - PADDING - (entry.beside ?? 0), height: entry.height - 1 }));
    }
    y += entry.height;
  });
  made.bottom = y + below;
  for (const group of from.groups) {
    const within = made.bands.filter((_, i) => bandIn(column, made.bands, i, group));
    const head = made.spines.find(({ id }) => id === group.container.id);
    const [first, last] = [within[0], within.at(-1)];
    if (!first || !last) continue;
    const spine = {
      id: group.container.id,
      kind: group.container.kind,
      name: head?.name ?? "",
      x: x + group.level * LEVEL + 3,
      to: x + (group.level + 1) * LEVEL,
    };
    const line = { ...spine, top: head?.top ?? first.y, bottom: last.y + last.height, knots: [] };
    if (head) made.spines.splice(made.spines.indexOf(head), 1, line);
    else made.spines.push(line);
  }
  return made;
}

/** Whether a band of a column stands in a group. */
function bandIn(column: Column, bands: readonly Band[], i: number, { from, to }: Group): boolean {
  const at = column.find(({ section }) => section.id === bands[i]?.id)?.at ?? -1;
  return from <= at && at < to;
}

/** The line of a group's name; where it runs to is known when all of its column stands. */
function headOf({ container }: Group, { x, y, height }: { x: number; y: number; height: number }): Spine {
  return { id: container.id, kind: container.kind, name: container.name, x, top: y, bottom: y + height, knots: [], to: x };
}

function bandOf({ is, section, height, width, beside }: Entry, box: Box, size: number): Band {
  const captioned = is === "caption" || beside !== undefined;
  const label = captioned ? fitted(section.name || section.id, size, (beside === undefined ? box.width - 12 : beside - 8) / 1.15) : "";
  const place =
    beside === undefined ? { x: box.x + 6, width: captioned ? Math.min(box.width - 8, width - 10) : 0 } : { x: box.x + box.width - beside, width: beside - 4 };
  return {
    ...box,
    id: section.id,
    container: section.container,
    name: section.name,
    says: section.says,
    lifted: section.modal !== undefined,
    inRow: false,
    rows: [],
    scale: [],
    foot: 0,
    further: [],
    caption: { ...place, y: box.y + 1, height: height - 2, label, ...(beside === undefined ? {} : { light: true }) },
  };
}
