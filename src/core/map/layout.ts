import { firstScreen, lookup, targetOf } from "../model/lookup.ts";
import { moveWord } from "../model/propose.ts";
import type { Container, Element, Entrance, Leg, Project, Screen } from "../model/schema.ts";
import { columnsOf } from "./columns.ts";
import {
  BAND_SPACE,
  CAPTION,
  CARD_FOOT,
  CARD_HEAD,
  CARD_SPACE,
  CARD_WIDTH,
  ENTRANCE_HEIGHT,
  GAP,
  GUTTER,
  LEVEL,
  PITCH,
  ROW_HEIGHT,
  RULER_HEIGHT,
} from "./measure.ts";
import { rowsOf } from "./rows.ts";

export interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}
/** One element of a place as a row, with the legs that start at it. */
export interface Row {
  element: Element | undefined;
  /** What the row says: the element's label, or the trigger of legs without an element. */
  label: string;
  /** Centre line, from the top of the map. */
  y: number;
  legs: Leg[];
}
export interface Card extends Box {
  id: string;
  screen: Screen;
  band: string;
  column: number;
  rows: Row[];
  entrances: Array<{ id: string; name: string; kind: string; y: number }>;
  isStart: boolean;
}
/** A strip of ground for the screens of one container, or for one screen that is a lane by itself. */
export interface Band extends Box {
  id: string;
  container: Container | undefined;
  name: string;
  /** What the ground is, in words: "tab 1, own history". */
  says: string;
  lifted: boolean;
  /** Elements that the container shows on every screen in it. */
  rows: Row[];
}
/** The line on which the lanes of a tab set or drawer hang. */
export interface Spine {
  id: string;
  kind: "tabs" | "drawer" | "stack";
  name: string;
  x: number;
  top: number;
  bottom: number;
  /** Heights at which a lane hangs. */
  knots: number[];
}
export interface MapLayout {
  width: number;
  height: number;
  left: number;
  columns: number;
  bands: Band[];
  cards: Card[];
  spines: Spine[];
  launch: { x: number; y: number } | undefined;
}

/** What the ground of a container says whose only rows are those it shares. */
export const SHARED = "on every screen in here";

/** Lays a project out: the same project always gives the same map, and a band depends on nothing outside itself but its height. */
export function layoutMap(project: Project): MapLayout {
  const plan = new Plan(project);
  plan.place(project.root, 0, "");
  for (const container of project.containers) if (container.kind === "modal") plan.modal(container);
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

class Plan {
  private readonly bands: Band[] = [];
  private readonly cards: Card[] = [];
  private readonly spines: Spine[] = [];
  private readonly seen = new Set<string>();
  private readonly waysIn = new Map<string, Entrance[]>();
  private readonly levels: number;
  private y = RULER_HEIGHT + BAND_SPACE;

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

  modal(container: Extract<Container, { kind: "modal" }>): void {
    this.seen.add(container.id);
    const within = ordered(this.project, container).map((id) => lookup(this.project).places.get(id));
    const only = within[0];
    const inner = within.length === 1 && only?.kind === "container" && only.container.kind === "stack" ? only.container : undefined;
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
    const columns = columnsOf(this.project, screenIds, start);
    const shared = rowsOf(this.project, id, container?.elements ?? [], 0);
    const top = this.y + CAPTION;
    const heights: number[] = [];
    for (const screenId of screenIds) {
      const screen = screens.get(screenId);
      if (!screen) continue;
      const column = columns.get(screenId) ?? 0;
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
      x: 0,
      y: this.y,
      width: Math.max(1, ...[...columns.values()].map((c) => c + 1)),
      height,
      rows: shared,
    });
    this.y += height + BAND_SPACE;
  }

  private card(screen: Screen, band: string, column: number, y: number, isStart: boolean): Card {
    const legs = lookup(this.project).legsFrom.get(screen.id) ?? NO_LEGS;
    const waysIn = this.waysIn.get(screen.id) ?? NO_WAYS;
    const x = this.left + 14 + column * PITCH;
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
    const columns = Math.max(4, ...this.cards.map((card) => card.column + 1));
    const width = this.left + 14 + columns * PITCH;
    const bands = this.bands.map((band) => ({
      ...band,
      x: this.left,
      width: band.lifted ? Math.max(14 + band.width * PITCH - GAP + 92, captionWidth(band)) : width - this.left,
    }));
    const first = firstScreen(this.project, this.project.root)?.id;
    const card = this.cards.find((c) => c.id === first);
    return {
      width,
      height: this.y + BAND_SPACE,
      left: this.left,
      columns,
      bands,
      cards: this.cards,
      spines: this.spines,
      launch: card && { x: card.x, y: card.y + CARD_HEAD / 2 },
    };
  }
}

/** Room for a band's caption, by the usual width of a letter. */
export function captionWidth(band: Pick<Band, "name" | "says">): number {
  return 40 + band.name.length * 8 + band.says.length * 6.2;
}

/** Members in the map's own order where the document gives one. */
function ordered(project: Project, container: Container): string[] {
  const wanted = project.mapOrder?.[container.id]?.filter((id) => container.members.includes(id)) ?? [];
  return [...wanted, ...container.members.filter((id) => !wanted.includes(id))];
}

function depthOf(project: Project, id: string, seen: Set<string>): number {
  const container = lookup(project).containers.get(id);
  if (!container || seen.has(id)) return 0;
  const within = new Set([...seen, id]);
  const nested = Math.max(0, ...container.members.map((member) => depthOf(project, member, within)));
  const draws = container.kind !== "stack" || container.members.some((member) => lookup(project).containers.has(member));
  return nested + (draws ? 1 : 0);
}

function modalSays(modal: Extract<Container, { kind: "modal" }>, ownHistory: boolean): string {
  const closing = modal.closeOn
    .filter((way) => way !== "outside" || modal.shape !== "full")
    .map((way) => (way === "button" ? "×" : way === "outside" ? "a tap outside" : way === "back" ? "Back" : "swipe"));
  return [
    "comes up over the page",
    ...(ownHistory ? ["own history"] : []),
    closing.length > 0 ? `closes by ${closing.join(", ")}` : "closes by its legs alone",
  ].join(" · ");
}

/** What stands on a stub: the target's name, or what the move does. */
export function stubLabel(project: Project, leg: Leg): string {
  const to = targetOf(leg);
  const place = to === undefined ? undefined : lookup(project).places.get(to);
  if (place) return (place.kind === "screen" ? place.screen.name : place.container.name) || place.id;
  return to ?? moveWord(leg.move);
}
