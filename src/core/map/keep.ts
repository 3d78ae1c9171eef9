import type { Line } from "./lines.ts";

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
