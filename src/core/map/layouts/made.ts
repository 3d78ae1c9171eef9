import { firstScreen, lookup } from "../../model/lookup.ts";
import { once } from "../../model/once.ts";
import type { Entrance, Project } from "../../model/schema.ts";
import { fitted, textWidth } from "../../text/width.ts";
import { grouped } from "../grouped.ts";
import type { Sections } from "../sections.ts";
import type { Band, Box, Card, MapLayout, Spine } from "../types.ts";

interface NameWanted {
  box: Box;
  band: string;
  column: number;
  depth: number;
  /** Of the type, in pixels. */
  size: number;
  /** Pixels of the card that are not for its name. */
  beside: number;
  isStart: boolean;
  ways: ReadonlyMap<string, readonly Entrance[]>;
}

/** A screen as a name in a box; undefined where there is no such screen. */
export function nameCard(project: Project, id: string, { box, band, column, depth, size, beside, isStart, ways }: NameWanted): Card | undefined {
  const screen = lookup(project).screens.get(id);
  if (!screen) return undefined;
  const entrances = (ways.get(id) ?? []).map((entrance) => ({ id: entrance.id, name: entrance.name, kind: entrance.kind, y: box.y + box.height / 2 }));
  return { ...box, id, screen, band, column, depth, rows: [], label: fitted(screen.name || id, size, box.width - beside), entrances, isStart };
}

/** The width of each screen's name at a size of one pixel, by the screen's id; measured once for a project object. */
export function nameWidths(project: Project): ReadonlyMap<string, number> {
  return once(project, widthsOf);
}

const widthsOf = (project: Project) => new Map(project.screens.map(({ id, name }) => [id, textWidth(name || id, 1)]));

/** The ways in from outside, by the screen that they show. */
export function waysIn(project: Project): ReadonlyMap<string, readonly Entrance[]> {
  return grouped(project.entrances, (entrance) => firstScreen(project, entrance.to)?.id ?? entrance.to);
}

/** A layout with the place where the app starts. */
export function finished(project: Project, layout: Omit<MapLayout, "launch">): MapLayout {
  const first = firstScreen(project, project.root)?.id;
  const card = layout.cards.find(({ id }) => id === first);
  const leaving = new Set(project.legs.flatMap(({ from, move }) => (move?.kind === "leave" ? [from] : [])));
  const cards = layout.cards.map((one) => (leaving.has(one.id) ? { ...one, leaves: true } : one));
  return { ...layout, cards, launch: card && { x: card.x, y: card.y + Math.min(14, card.height / 2) } };
}

/** The lines at the left on which whole bands hang, one level beside another. */
export function hangingSpines(
  { groups }: Sections,
  bands: readonly Band[],
  { level: width, to: reach, at }: { level: number; to: number; at: number },
): Spine[] {
  return groups.flatMap(({ container, level, from, to, hung }) => {
    const [first, last] = [bands[from], bands[to - 1]];
    if (!first || !last) return [];
    return {
      id: container.id,
      kind: container.kind,
      name: container.name,
      x: width * level + width / 2 + 8,
      top: first.y,
      bottom: Math.max(...bands.slice(from, to).map((band) => band.y + band.height)),
      knots: hung.flatMap((i) => {
        const band = bands[i];
        return band ? [band.y + at] : [];
      }),
      to: reach,
    };
  });
}
