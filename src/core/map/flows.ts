import { firstScreen, targetOf } from "../model/lookup.ts";
import type { Leg, Project } from "../model/schema.ts";
import { type End as Form, lineForm } from "./form.ts";
import { type End, routed } from "./route.ts";
import type { Band, Box, MapLayout, Point } from "./types.ts";

/** All legs from one ground to another, as one line. */
export interface Flow {
  from: string;
  to: string;
  legs: Leg[];
  points: Point[];
  /** Its width, in the map's units. */
  width: number;
}

/** Flows drawn at rest; where there are more, those of most legs. */
export const MOST_FLOWS = 12;
/** Lines side by side in one margin before they begin again at its edge. */
const LANES = 6;

/**
 * What leads from one ground to another, by number. A leg that a container shares counts once, from where its container stands.
 * @param only legs of one form, or those to and from one ground; then all of them are drawn
 * @returns the flows to draw, and how many there are in all
 */
export function flowsOf(project: Project, layout: MapLayout, only: { form?: Form | undefined; of?: string } = {}): { flows: Flow[]; all: number } {
  const grounds = groundsOf(layout);
  const found = new Map<string, { from: Band; to: Band; legs: Leg[] }>();
  for (const leg of project.legs) {
    const to = shownPlace(project, leg);
    if (to === undefined || (only.form !== undefined && lineForm(leg.move).end !== only.form)) continue;
    const [source, target] = [grounds.get(leg.from), grounds.get(to)];
    if (!source || !target || source === target || (only.of !== undefined && source.id !== only.of && target.id !== only.of)) continue;
    const key = `${source.id} ${target.id}`;
    const known = found.get(key);
    if (known) known.legs.push(leg);
    else found.set(key, { from: source, to: target, legs: [leg] });
  }
  const busiest = [...found.values()]
    .sort((a, b) => b.legs.length - a.legs.length)
    .slice(0, only.form === undefined && only.of === undefined ? MOST_FLOWS : MOST_FLOWS * 3);
  const blocked = layout.bands.flatMap((band) => [portOf(layout, band).ground, ...band.further]);
  const flows = busiest.map(({ from, to, legs }, i): Flow => {
    const aisle = layout.drawing === "rows" ? 12 : reachesRight(layout, from) && reachesRight(layout, to) ? 7 + (i % LANES) * 5 : 4 + (i % LANES) * 1.8;
    const ends: [End, End] = [portOf(layout, from), portOf(layout, to)];
    const points = routed(layout, ends[0], ends[1], blocked, { out: aisle, into: aisle });
    return { from: from.id, to: to.id, legs, points, width: Math.min(6, 1.4 + Math.log2(legs.length)) };
  });
  return { flows, all: found.size };
}

/** The place that shows after a leg: a screen, where there is one. */
export function shownPlace(project: Project, leg: Leg): string | undefined {
  const { move } = leg;
  const to = move?.kind === "open" && move.show !== undefined ? move.show : targetOf(leg);
  return to === undefined ? undefined : (firstScreen(project, to)?.id ?? to);
}

/** By the id of a screen or a container, the ground that it stands on. */
function groundsOf(layout: MapLayout): ReadonlyMap<string, Band> {
  const bands = new Map(layout.bands.map((band) => [band.id, band]));
  const out = new Map(bands);
  for (const card of layout.cards) {
    const band = bands.get(card.band);
    if (band) out.set(card.id, band);
  }
  return out;
}

/** Where the flows of a band start and end: the line of its caption. */
export function portOf(layout: MapLayout, band: Band): End & { ground: Box } {
  const width = reachesRight(layout, band) ? band.width - 40 : band.width;
  const ground = { x: band.x, y: band.y, width, height: band.height };
  const box = { ...ground, y: band.y + 1, height: Math.min(18, band.height - 2) };
  return { box, ground, y: box.y + box.height / 2, foot: band.foot, rightOnly: layout.form === "columns" };
}

/** Whether a band of names runs to the right end of the room, where a margin in it is kept free. */
function reachesRight(layout: MapLayout, band: Band): boolean {
  return layout.drawing === "names" && layout.form === "columns" && !band.lifted && band.x + band.width > layout.width - 20;
}
