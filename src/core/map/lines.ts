import { targetOf, treeOf } from "../model/lookup.ts";
import type { Leg, Project } from "../model/schema.ts";
import { portOf, shownPlace } from "./flows.ts";
import { CARD_HEAD, FACE_HEIGHT, STUB_SPACE } from "./measure.ts";
import { type Aisles, type End, obstacles, routed } from "./route.ts";
import type { Band, Box, Card, MapLayout } from "./types.ts";

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
 * The whole line of a leg in focus, in any of the drawings; it crosses no card and no caption. A leg that a container shares starts at
 * the ground of its container. Undefined where it leads to no place on the map.
 */
export function routeOf(project: Project, layout: MapLayout, leg: Leg, blocked: readonly Box[] = obstacles(layout)): Line | undefined {
  const to = shownPlace(project, leg) ?? targetOf(leg);
  const source = sourceOf(project, layout, leg);
  const target = to === undefined ? undefined : endAt(layout, to);
  if (!source || !target) return undefined;
  const [card, other] = [layout.cards.find(({ id }) => id === leg.from), layout.cards.find(({ id }) => id === to)];
  const start = { x: source.box.x + source.box.width, y: source.y };
  if (layout.drawing === "rows" && card && isAlong(card, other, leg))
    return { leg, from: start, points: across(start, other as Card, 0), drawn: "line", count: 1 };
  const points = routed(layout, source, target, blocked, aislesOf(layout));
  return { leg, from: points[0] ?? start, points, drawn: "line", count: 1 };
}

function aislesOf({ drawing }: MapLayout): Aisles {
  return drawing === "rows" ? { out: STUB_SPACE + 6, into: 12 } : drawing === "faces" ? { out: 10, into: 10 } : { out: 8, into: 8 };
}

/** Where the line of a leg starts: at its element's row, at its screen, or at the ground of the container that shares it. */
function sourceOf(project: Project, layout: MapLayout, leg: Leg): End | undefined {
  const card = layout.cards.find(({ id }) => id === leg.from);
  if (!card) return bandEnd(layout, groundOf(project, layout, leg.from));
  const end = endAt(layout, card.id);
  const row = card.rows.find(({ legs }) => legs.includes(leg));
  return end && row ? { ...end, y: row.y, rightOnly: true } : end;
}

/** The ground of a container, or the first that stands in it. */
function groundOf(project: Project, layout: MapLayout, id: string): Band | undefined {
  const inside = new Set(treeOf(project, id));
  return layout.bands.find((band) => band.id === id) ?? layout.bands.find((band) => inside.has(band.id));
}

function endAt(layout: MapLayout, id: string): End | undefined {
  const card = layout.cards.find((one) => one.id === id);
  // Dots stand too close for lines: those run from ground to ground.
  if (card && layout.form === "dots") return endAt(layout, card.band);
  if (!card)
    return bandEnd(
      layout,
      layout.bands.find((band) => band.id === id),
    );
  const foot = layout.bands.find((band) => band.id === card.band)?.foot ?? card.y + card.height;
  const y = card.y + (layout.drawing === "rows" ? CARD_HEAD / 2 : layout.drawing === "faces" ? FACE_HEIGHT / 2 : card.height / 2);
  return { box: card, y, foot };
}

function bandEnd(layout: MapLayout, band: Band | undefined): End | undefined {
  return band && portOf(layout, band);
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

export const columnX = (layout: MapLayout, column: number): number => layout.left + 14 + column * layout.pitch;
