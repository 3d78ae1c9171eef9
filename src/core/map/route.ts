import type { Box, MapLayout, Point } from "./types.ts";

/** How far from a box a line runs along it, and how far apart the lines of several lanes are. */
export interface Aisles {
  out: number;
  into: number;
}

/** What no line may cross: the cards, and the captions of the grounds. */
export function obstacles(layout: MapLayout): Box[] {
  return [
    ...layout.cards,
    ...layout.bands.flatMap(({ caption, further }) => [caption, ...further.map((part) => part.caption)].filter(({ width }) => width > 0)),
  ];
}

/** One end of a line: a box, and the height at which the line leaves or meets it. */
export interface End {
  box: Box;
  y: number;
  /** A height free of cards at the foot of the ground that it stands on. */
  foot: number;
  /** The line may leave or meet the box at its right side alone. */
  rightOnly?: boolean;
}

/**
 * The corners of the shortest line between two boxes that crosses nothing, of a few that run down the space beside a box, along the
 * free foot of a ground, or down the free margin at the right. The last of these is always free.
 */
export function routed(layout: MapLayout, from: End, to: End, blocked: readonly Box[], aisles: Aisles): Point[] {
  const outs = sides(from, aisles.out);
  const ins = sides(to, aisles.into);
  const levels = [...new Set([to.foot, from.foot, ...layout.channels])];
  let best: { points: Point[]; length: number } | undefined;
  for (const out of outs)
    for (const into of ins) {
      const [start, end] = [
        { x: out.edge, y: from.y },
        { x: into.edge, y: to.y },
      ];
      const tried: Point[][] = [
        [start, { x: out.aisle, y: from.y }, { x: out.aisle, y: to.y }, end],
        [start, { x: into.aisle, y: from.y }, { x: into.aisle, y: to.y }, end],
        ...levels.map((level) => [
          start,
          { x: out.aisle, y: from.y },
          { x: out.aisle, y: level },
          { x: into.aisle, y: level },
          { x: into.aisle, y: to.y },
          end,
        ]),
        ...layout.gaps.map((gap) => [
          start,
          { x: out.aisle, y: from.y },
          { x: out.aisle, y: from.foot },
          { x: gap, y: from.foot },
          { x: gap, y: to.foot },
          { x: into.aisle, y: to.foot },
          { x: into.aisle, y: to.y },
          end,
        ]),
      ];
      for (const points of tried) {
        if (!entersWell(points, into)) continue;
        const length = lengthOf(points);
        if ((best === undefined || length < best.length) && isClear(points, blocked)) best = { points, length };
      }
    }
  if (best) return best.points;
  const [out, into] = [outs[0], ins[0]];
  if (!out || !into) return [];
  return [
    { x: out.edge, y: from.y },
    { x: out.aisle, y: from.y },
    { x: out.aisle, y: from.foot },
    { x: layout.trunk, y: from.foot },
    { x: layout.trunk, y: to.foot },
    { x: into.aisle, y: to.foot },
    { x: into.aisle, y: to.y },
    { x: into.edge, y: to.y },
  ];
}

interface Side {
  edge: number;
  aisle: number;
}

function sides({ box, rightOnly }: End, gap: number): Side[] {
  const right = { edge: box.x + box.width, aisle: box.x + box.width + gap };
  return rightOnly ? [right] : [right, { edge: box.x, aisle: box.x - gap }];
}

/** The last stretch comes from outside the box, not through it. */
function entersWell(points: readonly Point[], { edge, aisle }: Side): boolean {
  const [before, end] = [points.at(-2), points.at(-1)];
  return before !== undefined && end !== undefined && (aisle < edge ? before.x < end.x : before.x > end.x);
}

function lengthOf(points: readonly Point[]): number {
  let length = 0;
  points.forEach((point, i) => {
    const next = points[i + 1];
    if (next) length += Math.abs(next.x - point.x) + Math.abs(next.y - point.y) + 12;
  });
  return length;
}

/** Whether a line with level and upright stretches runs through none of some boxes. */
export function isClear(points: readonly Point[], boxes: readonly Box[]): boolean {
  return points.every((point, i) => {
    const next = points[i + 1];
    if (!next) return true;
    const [left, right] = point.x < next.x ? [point.x, next.x] : [next.x, point.x];
    const [top, bottom] = point.y < next.y ? [point.y, next.y] : [next.y, point.y];
    return boxes.every((box) => right <= box.x + 0.5 || left >= box.x + box.width - 0.5 || bottom <= box.y + 0.5 || top >= box.y + box.height - 0.5);
  });
}
