import type { Card, MapLayout, Row } from "./layout.ts";
import type { Line } from "./lines.ts";

/** The layout with the cards of an earlier one wherever they came out the same, so that who draws them can tell by identity. */
export function keepCards(before: MapLayout | undefined, after: MapLayout): MapLayout {
  if (!before) return after;
  const known = new Map(before.cards.map((card) => [card.id, card]));
  return { ...after, cards: after.cards.map((card) => kept(known.get(card.id), card, sameCard)) };
}

/** The same for lines. */
export function keepLines(before: readonly Line[] | undefined, after: Line[]): Line[] {
  if (!before) return after;
  const known = new Map(before.map((line) => [line.leg.id, line]));
  return after.map((line) => kept(known.get(line.leg.id), line, sameLine));
}

function kept<T>(old: T | undefined, now: T, same: (a: T, b: T) => boolean): T {
  return old !== undefined && same(old, now) ? old : now;
}

function sameCard(a: Card, b: Card): boolean {
  return (
    a.screen === b.screen &&
    a.x === b.x &&
    a.y === b.y &&
    a.height === b.height &&
    a.band === b.band &&
    a.isStart === b.isStart &&
    a.rows.length === b.rows.length &&
    a.rows.every((row, i) => sameRow(row, b.rows[i])) &&
    a.entrances.length === b.entrances.length &&
    a.entrances.every((e, i) => e.id === b.entrances[i]?.id && e.name === b.entrances[i]?.name && e.y === b.entrances[i]?.y)
  );
}

function sameRow(a: Row, b: Row | undefined): boolean {
  return (
    b !== undefined &&
    a.element === b.element &&
    a.label === b.label &&
    a.y === b.y &&
    a.legs.length === b.legs.length &&
    a.legs.every((leg, i) => leg === b.legs[i])
  );
}

function sameLine(a: Line, b: Line): boolean {
  return (
    a.leg === b.leg &&
    a.drawn === b.drawn &&
    a.count === b.count &&
    a.points.length === b.points.length &&
    a.points.every((point, i) => point.x === b.points[i]?.x && point.y === b.points[i]?.y)
  );
}
