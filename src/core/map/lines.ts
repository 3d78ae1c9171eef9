import { lookup, targetOf } from "../model/lookup.ts";
import type { Leg, Project } from "../model/schema.ts";
import { CARD_HEAD, GUTTER, PITCH, STUB_SPACE } from "./measure.ts";
import type { Card, MapLayout } from "./types.ts";

/** A leg as it is drawn: a line to its target, or a stub that names it. */
export interface Line {
  leg: Leg;
  from: { x: number; y: number };
  /** Corners of the line, from its start to its end; two for a stub. */
  points: Array<{ x: number; y: number }>;
  drawn: "line" | "stub";
  /** How many legs share the stub's place; this one is the first. */
  count: number;
}

/** Legs that start at a row, drawn for the map at rest: pushes to the next column as lines, the others as stubs. */
export function linesOf(_project: Project, layout: MapLayout): Line[] {
  const cards = new Map(layout.cards.map((card) => [card.id, card]));
  const arriving = new Map<string, number>();
  return layout.cards.flatMap((card) =>
    card.rows.flatMap((row): Line[] => {
      const [first] = row.legs;
      if (!first) return [];
      const from = { x: card.x + card.width, y: row.y };
      const along = row.legs.find((leg) => isAlong(card, cards.get(targetOf(leg) ?? ""), leg));
      if (along && row.legs.length === 1) {
        const target = cards.get(targetOf(along) ?? "") as Card;
        const lane = arriving.get(`${card.band} ${card.column}`) ?? 0;
        arriving.set(`${card.band} ${card.column}`, lane + 1);
        return [{ leg: along, from, points: across(from, target, lane), drawn: "line", count: 1 }];
      }
      return [{ leg: first, from, points: [from, { x: from.x + 12, y: from.y }], drawn: "stub", count: row.legs.length }];
    }),
  );
}

function isAlong(card: Card, target: Card | undefined, leg: Leg): boolean {
  return target !== undefined && target.band === card.band && target.column === card.column + 1 && (leg.move?.kind === "push" || leg.move?.kind === "replace");
}

function across(from: { x: number; y: number }, target: Card, lane: number): Line["points"] {
  const channel = target.x - 10 - (lane % 3) * 4;
  const y = target.y + CARD_HEAD / 2;
  return [from, { x: channel, y: from.y }, { x: channel, y }, { x: target.x - 2, y }];
}

/**
 * The whole line of a leg in focus. It runs down the free space behind its column, along the
 * foot of the target's band and up the free space before its target, so that it crosses no card.
 * Undefined where the target is not on the map.
 */
export function routeOf(project: Project, layout: MapLayout, leg: Leg): Line | undefined {
  const { containers } = lookup(project);
  const source = layout.cards.find((card) => card.id === leg.from);
  const row = (source?.rows ?? layout.bands.find((band) => band.id === leg.from)?.rows)?.find((r) => r.legs.includes(leg));
  const to = targetOf(leg);
  if (!source || !row || to === undefined) return undefined;
  const band = layout.bands.find((b) => b.id === to);
  const target = layout.cards.find((card) => card.id === to) ?? layout.cards.find((card) => card.id === firstIn(containers, to));
  const from = { x: source.x + source.width, y: row.y };
  if (!target) return band ? { leg, from, points: toBand(from, band.x + 30, band.y), drawn: "line", count: 1 } : undefined;
  if (isAlong(source, target, leg)) return { leg, from, points: across(from, target, 0), drawn: "line", count: 1 };
  const home = layout.bands.find((b) => b.id === target.band);
  const foot = (home ? home.y + home.height : target.y + target.height) - GUTTER / 2;
  const out = from.x + STUB_SPACE + 6;
  const before = target.x - 12;
  const y = target.y + CARD_HEAD / 2;
  return {
    leg,
    from,
    points: [from, { x: out, y: from.y }, { x: out, y: foot }, { x: before, y: foot }, { x: before, y }, { x: target.x - 2, y }],
    drawn: "line",
    count: 1,
  };
}

function toBand(from: { x: number; y: number }, x: number, y: number): Line["points"] {
  const out = from.x + STUB_SPACE + 6;
  return [from, { x: out, y: from.y }, { x: out, y: y - 4 }, { x, y: y - 4 }, { x, y }];
}

function firstIn(containers: ReturnType<typeof lookup>["containers"], id: string): string {
  const seen = new Set<string>();
  let at = id;
  while (containers.has(at) && !seen.has(at)) {
    seen.add(at);
    at = containers.get(at)?.start ?? at;
  }
  return at;
}

/** Corners as an SVG path with small round bends. */
export function pathOf(points: Line["points"], radius = 6): string {
  const [start, ...rest] = points;
  if (!start) return "";
  let d = `M${start.x} ${start.y}`;
  rest.forEach((corner, i) => {
    const before = points[i] as { x: number; y: number };
    const after = rest[i + 1];
    if (!after) {
      d += `L${corner.x} ${corner.y}`;
      return;
    }
    const into = Math.min(radius, distance(before, corner) / 2);
    const out = Math.min(radius, distance(corner, after) / 2);
    const a = towards(corner, before, into);
    const b = towards(corner, after, out);
    d += `L${a.x} ${a.y}Q${corner.x} ${corner.y} ${b.x} ${b.y}`;
  });
  return d;
}

function distance(a: { x: number; y: number }, b: { x: number; y: number }): number {
  return Math.hypot(a.x - b.x, a.y - b.y);
}

function towards(from: { x: number; y: number }, to: { x: number; y: number }, by: number): { x: number; y: number } {
  const whole = distance(from, to) || 1;
  return { x: from.x + ((to.x - from.x) * by) / whole, y: from.y + ((to.y - from.y) * by) / whole };
}

export const columnX = (layout: MapLayout, column: number): number => layout.left + 14 + column * PITCH;
