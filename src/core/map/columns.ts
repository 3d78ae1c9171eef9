import { lookup, targetOf, upTarget } from "../model/lookup.ts";
import type { Project } from "../model/schema.ts";

/**
 * The column of each screen of one band: how many legs lie between it and the band's start,
 * by breadth-first search over the legs within the band. A screen that no leg of the band
 * leads to stands one to the right of its up target, else in the second column.
 * Depends on nothing outside the band, so edits elsewhere move nothing here.
 */
export function columnsOf(project: Project, screens: readonly string[], start: string | undefined): Map<string, number> {
  const inside = new Set(screens);
  const columns = new Map<string, number>();
  const first = start !== undefined && inside.has(start) ? start : screens[0];
  if (first === undefined) return columns;
  const spread = (from: string, column: number) => {
    columns.set(from, column);
    const queue = [from];
    for (let id = queue.shift(); id !== undefined; id = queue.shift()) {
      for (const leg of lookup(project).legsFrom.get(id) ?? []) {
        const to = targetOf(leg);
        if (to === undefined || !inside.has(to) || columns.has(to)) continue;
        columns.set(to, (columns.get(id) ?? 0) + 1);
        queue.push(to);
      }
    }
  };
  spread(first, 0);
  for (const id of screens) if (!columns.has(id)) spread(id, aboveOf(project, id, columns) + 1);
  return columns;
}

function aboveOf(project: Project, screen: string, columns: Map<string, number>): number {
  const up = upTarget(project, screen);
  return (up === undefined ? undefined : columns.get(up)) ?? 0;
}

/** A column of more cards than this is folded into several side by side. */
const TALLEST = 8;
/** Cards that a folded column is cut into at most. */
const FOLDED = 5;

/** Where the screens of one band stand: a depth may take several slots side by side, so that no band grows into a tower. */
export interface Slots {
  /** By screen the slot that it stands in, from the band's start. */
  slots: Map<string, number>;
  /** By depth the first of its slots. */
  starts: number[];
  /** Some depth takes more than one slot. */
  folded: boolean;
}

/** The slots of the screens of one band, from their columns; screens keep their order from top to bottom, then slot by slot. */
export function slotsOf(columns: ReadonlyMap<string, number>): Slots {
  const byDepth: string[][] = [];
  for (const [id, depth] of columns) {
    const list = byDepth[depth] ?? [];
    byDepth[depth] = list;
    list.push(id);
  }
  const slots = new Map<string, number>();
  const starts: number[] = [];
  let next = 0;
  for (const list of byDepth) {
    const ids = list ?? [];
    const parts = ids.length > TALLEST ? Math.ceil(ids.length / FOLDED) : 1;
    const each = Math.ceil(ids.length / parts);
    ids.forEach((id, i) => {
      slots.set(id, next + Math.floor(i / Math.max(1, each)));
    });
    starts.push(next);
    next += Math.max(1, Math.ceil(ids.length / Math.max(1, each)));
  }
  return { slots, starts, folded: next > byDepth.length };
}

/** A screen of a band in the order of an outline: each after the one that leads to it. */
export interface Outlined {
  id: string;
  depth: number;
  /** The screen that leads to it by the fewest legs within the band. */
  parent: string | undefined;
}

/** The screens of one band as an outline: first its start, beneath each screen those that it leads to first. */
export function outlined(project: Project, screens: readonly string[], start: string | undefined): Outlined[] {
  const columns = columnsOf(project, screens, start);
  const children = new Map<string | undefined, string[]>();
  const taken = new Set<string>();
  for (const [id, depth] of columns)
    for (const leg of lookup(project).legsFrom.get(id) ?? []) {
      const to = targetOf(leg);
      if (to === undefined || taken.has(to) || columns.get(to) !== depth + 1) continue;
      taken.add(to);
      children.set(id, [...(children.get(id) ?? []), to]);
    }
  const out: Outlined[] = [];
  const tell = (id: string, parent: string | undefined) => {
    out.push({ id, depth: columns.get(id) ?? 0, parent });
    for (const child of children.get(id) ?? []) tell(child, id);
  };
  for (const id of columns.keys()) if (!taken.has(id)) tell(id, undefined);
  return out;
}
