import { firstScreen, giveOf, lookup, targetOf } from "../model/lookup.ts";
import { moveWord } from "../model/propose.ts";
import type { Container, Entrance, Leg, Project, Screen } from "../model/schema.ts";
import { columnsOf, slotsOf } from "./columns.ts";
import {
  BAND_SPACE,
  CAPTION,
  CARD_FOOT,
  CARD_HEAD,
  CARD_SPACE,
  CARD_WIDTH,
  ENTRANCE_HEIGHT,
  GUTTER,
  LEVEL,
  PITCH,
  ROW_HEIGHT,
  RULER_HEIGHT,
  SCALE_HEIGHT,
} from "./measure.ts";
import { depthOf, ordered } from "./order.ts";
import { rowsOf } from "./rows.ts";
import { type Modal, modalSays, sheetWidth } from "./sheets.ts";
import type { Band, Card, MapLayout, Spine } from "./types.ts";

/** What the ground of a container says whose only rows are those it shares. */
export const SHARED = "on every screen in here";

/** Lays a project out: the same project always gives the same map, and a band depends on nothing outside itself but its height. */
export function layoutMap(project: Project): MapLayout {
  const plan = new Plan(project);
  plan.place(project.root, 0, "");
  plan.modals(project.containers.filter((container) => container.kind === "modal"));
  for (const place of [...project.containers, ...project.screens]) plan.place(place.id, 0, "in no container");
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

/** So many sheets, and no more, lie beneath one another. */
const FEW_SHEETS = 9;
/** Columns that a row of sheets may take where the ground is narrower. */
const WIDE_ROW = 12;

class Plan {
  private readonly bands: Band[] = [];
  private readonly cards: Card[] = [];
  private readonly spines: Spine[] = [];
  private readonly seen = new Set<string>();
  private readonly waysIn = new Map<string, Entrance[]>();
  private readonly levels: number;
  private y = RULER_HEIGHT + BAND_SPACE;
  /** Where a band starts, in columns; only sheets that stand side by side start elsewhere than at the left. */
  private shift = 0;
  private rows = false;

  constructor(private readonly project: Project) {
    this.levels = Math.max(1, depthOf(project, project.root, new Set()));
    for (const entrance of project.entrances) this.waysIn.set(entrance.to, [...(this.waysIn.get(entrance.to) ?? []), entrance]);
  }

  private get left(): number {
    return this.levels * LEVEL + 12;
  }

  /** Places a screen or container that has not been placed yet, and all that is in it. */
  place(id: string, level: number, says: string): void {
    if (this.seen.has(id)) return;
    const place = lookup(this.project).places.get(id);
    if (!place || (place.kind === "container" && place.container.kind === "modal")) return;
    this.seen.add(id);
    if (place.kind === "screen") {
      this.band(id, undefined, [place.screen.id], place.screen.id, place.screen.name, says || "a screen by itself", false);
      return;
    }
    const { container } = place;
    const top = this.y;
    if (container.kind === "stack") this.stack(container, level, says || "history", false);
    else if (container.kind !== "modal") this.lanes(container, level, top);
  }

  /** Few sheets lie beneath one another; many stand in rows as wide as the ground. */
  modals(list: readonly Modal[]): void {
    const room = Math.max(WIDE_ROW, ...this.bands.map((band) => band.width));
    this.rows = list.length > FEW_SHEETS;
    let row = { top: this.y, bottom: this.y };
    const nextRow = () => {
      row = { top: row.bottom, bottom: row.bottom };
      this.shift = 0;
    };
    for (const modal of list) {
      const columns = this.rows ? this.columnsOfSheet(modal) : room;
      if (this.shift + columns > room) nextRow();
      this.y = row.top;
      this.modal(modal);
      row.bottom = Math.max(row.bottom, this.y);
      this.shift += columns;
    }
    this.shift = 0;
    this.rows = false;
    this.y = row.bottom;
  }

  /** Columns that a sheet takes with the space after it; all there are where it holds more than screens. */
  private columnsOfSheet(modal: Modal): number {
    const { screens } = lookup(this.project);
    const inner = this.innerStack(modal);
    const members = (inner ?? modal).members;
    if (members.some((id) => !screens.has(id))) return Number.MAX_SAFE_INTEGER;
    const width = 1 + Math.max(0, ...slotsOf(columnsOf(this.project, members, (inner ?? modal).start)).slots.values());
    return Math.ceil((sheetWidth({ width, name: modal.name, says: modalSays(modal, inner !== undefined) }) + BAND_SPACE) / PITCH);
  }

  /** The stack that a modal holds where it holds nothing else: the two are drawn as one. */
  private innerStack(modal: Modal): Container | undefined {
    const [only, ...others] = ordered(this.project, modal).map((id) => lookup(this.project).places.get(id));
    return others.length === 0 && only?.kind === "container" && only.container.kind === "stack" ? only.container : undefined;
  }

  modal(container: Modal): void {
    this.seen.add(container.id);
    const inner = this.innerStack(container);
    if (inner) this.seen.add(inner.id);
    this.y += BAND_SPACE;
    this.stack(inner ?? container, 0, modalSays(container, inner !== undefined), true, container);
  }

  private stack(container: Container, level: number, says: string, lifted: boolean, named: Container = container): void {
    const { screens } = lookup(this.project);
    const members = ordered(this.project, container);
    const own = members.filter((id) => screens.has(id) && !this.seen.has(id));
    for (const id of own) this.seen.add(id);
    const top = this.y;
    const first = this.bands.length;
    this.band(named.id, named, own, container.start, named.name, says, lifted);
    const nested = members.filter((id) => !screens.has(id));
    for (const id of nested) this.place(id, level + 1, "");
    if (nested.length > 0) this.spine(container, level, top, first);
  }

  private lanes(container: Extract<Container, { kind: "tabs" | "drawer" }>, level: number, top: number): void {
    const first = this.bands.length;
    const members = ordered(this.project, container);
    const shares = (container.elements?.length ?? 0) > 0 || (lookup(this.project).legsFrom.get(container.id)?.length ?? 0) > 0;
    if (members.length === 0 || shares)
      this.band(container.id, container, [], undefined, container.name, members.length === 0 ? "nothing in it yet" : SHARED, false);
    members.forEach((id, i) => {
      this.place(id, level + 1, container.kind === "tabs" ? `tab ${i + 1}, own history` : `in the drawer ${container.name}`);
    });
    this.spine(container, level, top, first);
  }

  private spine(container: Container, level: number, top: number, firstBand: number): void {
    if (container.kind === "modal" || this.bands.length === firstBand) return;
    const kind = container.kind;
    const within = this.bands.slice(firstBand).filter((band) => kind !== "stack" || band.id !== container.id);
    const hung = within.filter((band) => container.members.includes(band.id));
    const knots = (hung.length > 0 ? hung : within.slice(0, 1)).map((band) => band.y + Math.min(band.height / 2, 60));
    this.spines.push({ id: container.id, kind, name: container.name, x: LEVEL * level + LEVEL / 2 + 4, top, bottom: this.y - BAND_SPACE, knots });
  }

  private band(
    id: string,
    container: Container | undefined,
    screenIds: string[],
    start: string | undefined,
    name: string,
    says: string,
    lifted: boolean,
  ): void {
    const { screens } = lookup(this.project);
    const { slots, starts, folded } = slotsOf(columnsOf(this.project, screenIds, start));
    const shared = rowsOf(this.project, id, container?.elements ?? [], 0);
    const top = this.y + CAPTION + (folded ? SCALE_HEIGHT : 0);
    const heights: number[] = [];
    for (const screenId of screenIds) {
      const screen = screens.get(screenId);
      if (!screen) continue;
      const column = slots.get(screenId) ?? 0;
      const y = top + (heights[column] ?? 0);
      const card = this.card(screen, id, column, y, screenId === start);
      this.cards.push(card);
      heights[column] = y - top + card.height + card.entrances.length * ENTRANCE_HEIGHT + CARD_SPACE;
    }
    const inside = Math.max(0, ...heights.filter((h) => h !== undefined));
    const height = screenIds.length > 0 ? top - this.y + inside + GUTTER - CARD_SPACE / 2 : CAPTION + 4;
    this.bands.push({
      id,
      container,
      name,
      says,
      lifted,
      inRow: this.rows,
      x: this.left + this.shift * PITCH,
      y: this.y,
      width: Math.max(1, ...[...slots.values()].map((slot) => slot + 1)),
      height,
      rows: shared,
      scale: folded ? starts.map((slot, depth) => ({ x: this.left + 14 + slot * PITCH, y: this.y + CAPTION + 8, depth })) : [],
    });
    this.y += height + BAND_SPACE;
  }

  private card(screen: Screen, band: string, column: number, y: number, isStart: boolean): Card {
    const legs = lookup(this.project).legsFrom.get(screen.id) ?? NO_LEGS;
    const waysIn = this.waysIn.get(screen.id) ?? NO_WAYS;
    const x = this.left + 14 + (this.shift + column) * PITCH;
    const known = drawn.get(screen);
    if (known && known.card.x === x && known.card.y === y && known.card.band === band && known.card.isStart === isStart)
      if (sameList(known.legs, legs) && sameList(known.waysIn, waysIn)) return known.card;
    const rows = rowsOf(this.project, screen.id, screen.elements, y + CARD_HEAD + 2);
    const height = CARD_HEAD + (rows.length > 0 ? 2 + rows.length * ROW_HEIGHT + CARD_FOOT : 0);
    const entrances = waysIn.map((e, i) => ({ id: e.id, name: e.name, kind: e.kind, y: y + height + 2 + i * ENTRANCE_HEIGHT }));
    const card: Card = { id: screen.id, screen, band, column, rows, entrances, isStart, x, y, width: CARD_WIDTH, height };
    drawn.set(screen, { legs, waysIn, card });
    return card;
  }

  finish(): MapLayout {
    const columns = Math.max(4, ...this.cards.map((card) => Math.round((card.x - this.left - 14) / PITCH) + 1));
    const width = this.left + 14 + columns * PITCH;
    const bands = this.bands.map((band) => ({ ...band, width: band.lifted ? sheetWidth(band) : width - this.left }));
    const first = firstScreen(this.project, this.project.root)?.id;
    const card = this.cards.find((c) => c.id === first);
    return {
      width,
      height: this.y + BAND_SPACE,
      left: this.left,
      ruled: bands.some((band) => band.inRow || band.scale.length > 0) ? 0 : columns,
      bands,
      cards: this.cards,
      spines: this.spines,
      launch: card && { x: card.x, y: card.y + CARD_HEAD / 2 },
    };
  }
}

/** What stands on a stub: the target's name, or what the move does. */
export function stubLabel(project: Project, leg: Leg): string {
  const to = targetOf(leg);
  const place = to === undefined ? undefined : lookup(project).places.get(to);
  if (place) return (place.kind === "screen" ? place.screen.name : place.container.name) || place.id;
  const given = Object.keys(giveOf(leg) ?? {});
  return to ?? `${moveWord(leg.move)}${given.length > 0 ? `: ${given.join(", ")}` : ""}`;
}
