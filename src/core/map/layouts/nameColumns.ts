import { once } from "../../model/once.ts";
import type { Project } from "../../model/schema.ts";
import { fitted, textWidth } from "../../text/width.ts";
import { columnsOf } from "../columns.ts";
import { type Section, type Sections, sectionsOf } from "../sections.ts";
import type { Band, Card, MapLayout, Room } from "../types.ts";
import type { Density } from "./density.ts";
import { finished, hangingSpines, nameCard, nameWidths, waysIn } from "./made.ts";

/** Height of the ruler across the top. */
const RULER = 24;
/** Between two bands. */
const SPACE = 6;
/** Between two bands that stand side by side, where flows run. */
const APART = 16;
/** Width of the margin at the left for each level of containers. */
const LEVEL = 20;
/** At the right of every band, free for flows. */
const MARGIN = 46;
/** Between two cards of a row, where arrows run. */
const GAP = 26;
/** Of a card beside its name: room at both sides, a number. */
const BESIDE = 34;
/** The widest card; a longer name is cut. */
const WIDEST = 230;
/** The free line at the foot of each band. */
const FOOT = 8;

/**
 * Names in columns by the legs from the start of their band, one band beneath another, sheets side by side beneath them. Undefined
 * where that does not fit the room, or more than one name in twenty would be cut.
 * @param beside whether bands of one container may stand side by side, too; then there is no ruler across them
 */
export function layoutColumns(project: Project, from: Sections, room: Room, density: Density, beside: boolean): MapLayout | undefined {
  const ems = [...nameWidths(project).values()];
  const area = ems.reduce((sum, em) => sum + (em * density.size + BESIDE + GAP) * density.line, 0);
  return area > room.width * room.height ? undefined : new Columns(project, from, room, density, beside).finish();
}

const columnsBySection = (project: Project) => sectionsOf(project).sections.map(({ screens, start }) => columnsOf(project, screens, start));

class Columns {
  private readonly bands: Band[] = [];
  private readonly cards: Card[] = [];
  private readonly left: number;
  private readonly columns: ReadonlyArray<ReadonlyMap<string, number>>;
  private readonly pitch: number;
  private readonly count: number;
  private readonly ways: ReturnType<typeof waysIn>;
  private y = RULER + SPACE;
  private fits = true;

  constructor(
    private readonly project: Project,
    private readonly from: Sections,
    private readonly room: Room,
    private readonly density: Density,
    private readonly beside: boolean,
  ) {
    const { sections, modals, loose, groups } = from;
    this.left = Math.max(0, ...groups.map(({ level }) => level + 1)) * LEVEL + 30;
    this.ways = waysIn(project);
    this.columns = once(project, columnsBySection);
    const flat = sections.flatMap(({ modal }, i) => (modal ? [] : [...(this.columns[i]?.entries() ?? [])]));
    this.count = Math.max(1, ...flat.map(([, column]) => column + 1));
    const need = this.need(flat.map(([id]) => id)) + GAP;
    this.pitch = Math.min(need, (room.width - this.left - MARGIN - 12) / this.count);
    this.stack(0, modals);
    this.sheets(modals, loose);
    this.stack(loose, sections.length);
  }

  /** The width that cards want, up to a limit. */
  private need(ids: readonly string[]): number {
    const ems = nameWidths(this.project);
    let most = 64;
    for (const id of ids) most = Math.max(most, (ems.get(id) ?? 0) * this.density.size + BESIDE);
    return Math.min(WIDEST, most);
  }

  private stack(first: number, end: number) {
    for (let i = first; i < end && this.y <= this.room.height; ) {
      const shelf = this.beside ? this.shelf(i, end) : [i];
      if (shelf.length === 1) this.full(i);
      else this.together(shelf);
      i += shelf.length;
    }
  }

  /** Bands from one on that stand in the same containers and fit side by side. */
  private shelf(first: number, end: number): number[] {
    const around = (i: number) => this.from.groups.flatMap(({ from, to, container }) => (from <= i && i < to ? [container.id] : [])).join(" ");
    const shelf: number[] = [];
    let free = this.room.width - this.left - MARGIN;
    for (let i = first; i < end && around(i) === around(first); i++) {
      const columns = this.columns[i]?.size ?? 0;
      free -= this.wide(i) + (shelf.length > 0 ? APART : 0);
      if (free < 0 || columns === 0) break;
      shelf.push(i);
    }
    return shelf.length === 0 ? [first] : shelf;
  }

  /** The width that a band wants that stands beside others. */
  private wide(i: number): number {
    const section = this.from.sections[i];
    const cards = (1 + Math.max(0, ...(this.columns[i]?.values() ?? []))) * this.pitch - GAP + 30;
    return Math.max(cards, textWidth(section?.name || section?.id || "", this.density.size) * 1.15 + 30);
  }

  /** Bands side by side, as high as the highest; the last runs to the end of the room. */
  private together(shelf: readonly number[]) {
    const begun = this.bands.length;
    let x = this.left;
    for (const i of shelf) {
      const last = i === shelf.at(-1);
      const width = last ? this.room.width - 8 - x : this.wide(i);
      this.band(i, x, this.y, width, this.pitch);
      x += width + APART;
    }
    const made = this.bands.slice(begun);
    const height = Math.max(...made.map((band) => band.height));
    for (const band of made) {
      band.height = height;
      band.foot = this.y + height + SPACE / 2;
    }
    this.y += height + SPACE;
  }

  /** A band as wide as the room. */
  private full(i: number) {
    this.y += this.band(i, this.left, this.y, this.room.width - this.left - 8, this.pitch) + SPACE;
  }

  /** Sheets side by side, as many in a row as fit. */
  private sheets(first: number, end: number) {
    // The margin at the right is free beside sheets too.
    const right = this.room.width - MARGIN;
    let row = { x: this.left, bottom: this.y + SPACE, begun: this.bands.length };
    const nextRow = () => {
      for (const band of this.bands.slice(row.begun)) band.foot = row.bottom + SPACE / 2 + 2;
      this.y = row.bottom + SPACE + 4;
      row = { x: this.left, bottom: this.y, begun: this.bands.length };
    };
    if (first < end) this.y += SPACE;
    for (let i = first; i < end && this.y <= this.room.height; i++) {
      const section = this.from.sections[i];
      if (!section) continue;
      if (!section.modal) {
        nextRow();
        this.full(i);
        row = { x: this.left, bottom: this.y - SPACE, begun: this.bands.length };
        continue;
      }
      const { pitch, width } = this.sheetSize(section, this.columns[i] ?? new Map());
      if (row.x > this.left && row.x + width > right) nextRow();
      if (row.x + width > right + 1) this.fits = false;
      const height = this.band(i, row.x, this.y, width, pitch);
      row.bottom = Math.max(row.bottom, this.y + height);
      row.x += width + 16;
    }
    if (first < end) nextRow();
  }

  private sheetSize(section: Section, columns: ReadonlyMap<string, number>): { pitch: number; width: number } {
    const pitch = this.need([...columns.keys()]) + GAP - 6;
    const cards = (1 + Math.max(0, ...columns.values())) * pitch - GAP + 6 + 20;
    const caption = textWidth(section.name || section.id, this.density.size) * 1.15 + 24;
    return { pitch, width: Math.max(cards, caption) };
  }

  /** Places a band with its cards; gives its height. */
  private band(i: number, x: number, y: number, width: number, pitch: number): number {
    const section = this.from.sections[i];
    if (!section) return 0;
    const { line, caption, size } = this.density;
    const rows: number[] = [];
    for (const [id, column] of this.columns[i] ?? []) {
      const row = rows[column] ?? 0;
      rows[column] = row + 1;
      const box = { x: x + 10 + column * pitch, y: y + caption + row * line, width: pitch - GAP + (section.modal ? 6 : 0), height: line - 4 };
      const card = nameCard(this.project, id, {
        box,
        band: section.id,
        column,
        depth: column,
        size,
        beside: BESIDE,
        isStart: id === section.start,
        ways: this.ways,
      });
      if (card) this.cards.push(card);
    }
    const high = Math.max(0, ...rows.filter((count) => count !== undefined));
    const height = caption + high * line + (high > 0 ? FOOT - 4 : 2);
    const name = section.name || section.id;
    const label = fitted(name, size, (width - 20) / 1.15);
    this.bands.push({
      id: section.id,
      container: section.container,
      name: section.name,
      says: section.says,
      lifted: section.modal !== undefined,
      inRow: section.modal !== undefined,
      x,
      y,
      width,
      height,
      rows: [],
      scale: [],
      foot: y + height + SPACE / 2,
      further: [],
      caption: { x: x + 10, y: y + 2, width: Math.min(width - 14, textWidth(label, size) * 1.15 + 6), height: caption - 4, label },
    });
    return height;
  }

  finish(): MapLayout | undefined {
    const height = this.y;
    const cut = this.cards.filter((card) => card.label !== (card.screen.name || card.id)).length;
    if (!this.fits || height > this.room.height || cut > this.cards.length / 20) return undefined;
    return finished(this.project, {
      drawing: "names",
      form: "columns",
      size: this.density.size,
      width: this.room.width,
      height,
      left: this.left,
      ruled: this.bands.some(({ x, lifted }) => x !== this.left && !lifted) ? 0 : this.count,
      pitch: this.pitch,
      bands: this.bands,
      cards: this.cards,
      spines: hangingSpines(this.from, this.bands, { level: LEVEL, to: this.left, at: this.density.caption / 2 + 2 }),
      trunk: this.room.width - MARGIN + 8,
      channels: [],
      gaps: [],
    });
  }
}
