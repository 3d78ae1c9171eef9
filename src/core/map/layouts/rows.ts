import { firstScreen, lookup } from "../../model/lookup.ts";
import type { Entrance, Leg, Project, Screen } from "../../model/schema.ts";
import { columnsOf, slotsOf } from "../columns.ts";
import {
  BAND_SPACE,
  CAPTION,
  CARD_FOOT,
  CARD_HEAD,
  CARD_SPACE,
  CARD_WIDTH,
  cut,
  ENTRANCE_HEIGHT,
  GUTTER,
  LEVEL,
  NAME_FITS,
  PITCH,
  ROW_HEIGHT,
  RULER_HEIGHT,
  SCALE_HEIGHT,
} from "../measure.ts";
import { rowsOf } from "../rows.ts";
import { type Section, type Sections, sectionsOf } from "../sections.ts";
import { captionWidth, sheetWidth } from "../sheets.ts";
import type { Band, Card, MapLayout } from "../types.ts";

/**
 * The near drawing: a card for each screen, with its elements as rows, in columns by the legs from the start of its band. The same
 * project always gives the same map, and a band depends on nothing outside itself but its height.
 */
export function layoutRows(project: Project): MapLayout {
  const plan = new Rows(project, sectionsOf(project));
  return plan.finish();
}

/**
 * The card that a screen had when it was last laid out. Where nothing that it is made from has
 * changed, the same object is given again, so that who draws cards can tell by identity.
 */
const drawn = new WeakMap<Screen, { legs: readonly Leg[]; waysIn: readonly Entrance[]; card: Card }>();
const NO_LEGS: readonly Leg[] = [];
const NO_WAYS: readonly Entrance[] = [];

function sameList<T>(a: readonly T[], b: readonly T[]): boolean {
  return a.length === b.length && a.every((entry, i) => entry === b[i]);
}

/** Width of an element that a band shares, behind its caption. */
const SHARED_ROW = 156;
/** So many sheets, and no more, lie beneath one another. */
const FEW_SHEETS = 9;
/** Columns that a row of sheets may take where the ground is narrower. */
const WIDE_ROW = 12;

class Rows {
  private readonly bands: Band[] = [];
  private readonly cards: Card[] = [];
  private readonly waysIn = new Map<string, Entrance[]>();
  private readonly left: number;
  private y = RULER_HEIGHT + BAND_SPACE;
  /** Where a band starts, in columns; only sheets that stand side by side start elsewhere than at the left. */
  private shift = 0;
  private inRow = false;

  constructor(
    private readonly project: Project,
    private readonly from: Sections,
  ) {
    this.left = (Math.max(0, ...from.groups.map(({ level }) => level)) + 1) * LEVEL + 12;
    for (const entrance of project.entrances) this.waysIn.set(entrance.to, [...(this.waysIn.get(entrance.to) ?? []), entrance]);
    for (const section of from.sections.slice(0, from.modals)) this.band(section);
    this.sheets(from.sections.slice(from.modals, from.loose));
    for (const section of from.sections.slice(from.loose)) this.band(section);
  }

  /** Few sheets lie beneath one another; many stand in rows as wide as the ground. */
  private sheets(list: readonly Section[]) {
    const room = Math.max(WIDE_ROW, ...this.bands.map((band) => band.width));
    this.inRow = list.filter(({ modal }) => modal).length > FEW_SHEETS;
    let row = { top: this.y, bottom: this.y };
    let begun = this.bands.length;
    const nextRow = () => {
      for (const band of this.bands.slice(begun)) band.foot = row.bottom - BAND_SPACE / 2;
      begun = this.bands.length;
      row = { top: row.bottom, bottom: row.bottom };
      this.shift = 0;
    };
    for (const { sheet, within } of sheetsOf(list)) {
      const columns = this.inRow && within.length === 0 ? this.columnsOfSheet(sheet) : Number.MAX_SAFE_INTEGER;
      if (this.shift + columns > room) nextRow();
      this.y = row.top + BAND_SPACE;
      this.band(sheet);
      for (const section of within) this.band(section);
      row.bottom = Math.max(row.bottom, this.y);
      this.shift += columns;
    }
    nextRow();
    this.inRow = false;
    this.y = row.top;
  }

  /** Columns that a sheet takes with the space after it. */
  private columnsOfSheet({ screens, start, name, says }: Section): number {
    const width = 1 + Math.max(0, ...slotsOf(columnsOf(this.project, screens, start)).slots.values());
    return Math.ceil((sheetWidth({ width, name, says }) + BAND_SPACE) / PITCH);
  }

  private band({ id, container, screens: ids, start, name, says, modal }: Section) {
    const { screens } = lookup(this.project);
    const columns = columnsOf(this.project, ids, start);
    const { slots, starts, folded } = slotsOf(columns);
    const top = this.y + CAPTION + (folded ? SCALE_HEIGHT : 0);
    const heights: number[] = [];
    for (const screenId of ids) {
      const screen = screens.get(screenId);
      if (!screen) continue;
      const column = slots.get(screenId) ?? 0;
      const y = top + (heights[column] ?? 0);
      const card = this.card(screen, id, column, columns.get(screenId) ?? 0, y, screenId === start);
      this.cards.push(card);
      heights[column] = y - top + card.height + card.entrances.length * ENTRANCE_HEIGHT + CARD_SPACE;
    }
    const inside = Math.max(0, ...heights.filter((h) => h !== undefined));
    const height = ids.length > 0 ? top - this.y + inside + GUTTER - CARD_SPACE / 2 : CAPTION + 4;
    const x = this.left + this.shift * PITCH;
    this.bands.push({
      id,
      container,
      name,
      says,
      lifted: modal !== undefined,
      inRow: this.inRow,
      x,
      y: this.y,
      width: Math.max(1, ...[...slots.values()].map((slot) => slot + 1)),
      height,
      rows: rowsOf(this.project, id, container?.elements ?? [], 0),
      scale: folded ? starts.map((slot, depth) => ({ x: this.left + 14 + slot * PITCH, y: this.y + CAPTION + 8, depth })) : [],
      foot: this.y + height - GUTTER / 2,
      further: [],
      caption: { x: x + 12, y: this.y + 4, width: 0, height: 18, label: name || id },
    });
    this.y += height + BAND_SPACE;
  }

  private card(screen: Screen, band: string, column: number, depth: number, y: number, isStart: boolean): Card {
    const legs = lookup(this.project).legsFrom.get(screen.id) ?? NO_LEGS;
    const waysIn = this.waysIn.get(screen.id) ?? NO_WAYS;
    const x = this.left + 14 + (this.shift + column) * PITCH;
    const known = drawn.get(screen);
    if (known && known.card.x === x && known.card.y === y && known.card.band === band && known.card.isStart === isStart && known.card.depth === depth)
      if (sameList(known.legs, legs) && sameList(known.waysIn, waysIn)) return known.card;
    const rows = rowsOf(this.project, screen.id, screen.elements, y + CARD_HEAD + 2);
    const height = CARD_HEAD + (rows.length > 0 ? 2 + rows.length * ROW_HEIGHT + CARD_FOOT : 0);
    const entrances = waysIn.map((e, i) => ({ id: e.id, name: e.name, kind: e.kind, y: y + height + 2 + i * ENTRANCE_HEIGHT }));
    const label = cut(screen.name || screen.id, NAME_FITS);
    const card: Card = { id: screen.id, screen, band, column, depth, rows, label, entrances, isStart, x, y, width: CARD_WIDTH, height };
    drawn.set(screen, { legs, waysIn, card });
    return card;
  }

  finish(): MapLayout {
    const columns = Math.max(4, ...this.cards.map((card) => Math.round((card.x - this.left - 14) / PITCH) + 1));
    const width = this.left + 14 + columns * PITCH;
    const bands = this.bands.map((band) => {
      const wide = band.lifted ? sheetWidth(band) : width - this.left;
      // What it shares with all its screens stands behind the caption.
      const said = captionWidth(band) - 16 + band.rows.length * SHARED_ROW;
      return { ...band, width: wide, caption: { ...band.caption, width: Math.min(wide - 24, said) } };
    });
    const first = firstScreen(this.project, this.project.root)?.id;
    const card = this.cards.find((c) => c.id === first);
    return {
      drawing: "rows",
      form: "columns",
      size: 13,
      width,
      height: this.y + BAND_SPACE,
      left: this.left,
      ruled: bands.some((band) => band.inRow || band.scale.length > 0) ? 0 : columns,
      pitch: PITCH,
      bands,
      cards: this.cards,
      spines: this.spines(),
      launch: card && { x: card.x, y: card.y + CARD_HEAD / 2 },
      trunk: width + 16,
      channels: [],
      gaps: Array.from({ length: columns }, (_, i) => this.left + 14 + (i + 1) * PITCH - 14),
    };
  }

  private spines(): MapLayout["spines"] {
    return this.from.groups.map(({ container, level, from, to, hung }) => {
      const last = this.bands[to - 1];
      return {
        id: container.id,
        kind: container.kind,
        name: container.name,
        x: LEVEL * level + LEVEL / 2 + 4,
        top: this.bands[from]?.y ?? 0,
        bottom: last ? last.y + last.height : 0,
        knots: hung.flatMap((i) => {
          const band = this.bands[i];
          return band ? [band.y + Math.min(band.height / 2, 60)] : [];
        }),
        to: this.left,
      };
    });
  }
}

/** Each sheet with the sections of what its modal holds beside screens. */
function sheetsOf(list: readonly Section[]): Array<{ sheet: Section; within: Section[] }> {
  const sheets: Array<{ sheet: Section; within: Section[] }> = [];
  for (const section of list) {
    if (section.modal) sheets.push({ sheet: section, within: [] });
    else sheets.at(-1)?.within.push(section);
  }
  return sheets;
}
