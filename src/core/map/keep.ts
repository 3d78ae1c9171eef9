import type { Line } from "./lines.ts";
import type { Card } from "./types.ts";

/** Lines with those of an earlier time wherever they came out the same, so that who draws them can tell by identity. */
export function keepLines(before: readonly Line[] | undefined, after: Line[]): Line[] {
  if (!before) return after;
  const known = new Map(before.map((line) => [line.leg, line]));
  return after.map((line) => {
    const old = known.get(line.leg);
    return old !== undefined && sameLine(old, line) ? old : line;
  });
}

function sameLine(a: Line, b: Line): boolean {
  return (
    a.drawn === b.drawn &&
    a.count === b.count &&
    a.points.length === b.points.length &&
    a.points.every((point, i) => point.x === b.points[i]?.x && point.y === b.points[i]?.y)
  );
}

/** Cards with those of an earlier time wherever they came out the same, so that who draws them can tell by identity. */
export function keepCards(before: readonly Card[] | undefined, after: Card[]): Card[] {
  if (!before) return after;
  const known = new Map(before.map((card) => [card.id, card]));
  return after.map((card) => {
    const old = known.get(card.id);
    return old !== undefined && sameCard(old, card) ? old : card;
  });
}

function sameCard(a: Card, b: Card): boolean {
  const { entrances: ways, ...one } = a;
  const { entrances: others, ...other } = b;
  const keys = Object.keys({ ...one, ...other }) as Array<keyof typeof one>;
  return (
    ways.length === others.length && ways.every(({ name }, i) => name === others[i]?.name) && keys.every((key) => key === "rows" || one[key] === other[key])
  );
}
