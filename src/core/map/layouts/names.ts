import type { Project } from "../../model/schema.ts";
import { sectionsOf } from "../sections.ts";
import type { MapLayout, Room } from "../types.ts";
import type { Density } from "./density.ts";
import { layoutDots } from "./dots.ts";
import { layoutColumns } from "./nameColumns.ts";
import { layoutIndex } from "./nameIndex.ts";

/** Names in columns, from roomy to close. */
const COLUMNS: readonly Density[] = [
  { size: 14, line: 34, caption: 26 },
  { size: 13, line: 28, caption: 23 },
  { size: 12.5, line: 25, caption: 20 },
];
/** Names in an index. */
const INDEX: readonly Density[] = [
  { size: 14, line: 27, caption: 28 },
  { size: 13, line: 22, caption: 24 },
  { size: 12.5, line: 19, caption: 22 },
  { size: 12, line: 17, caption: 19 },
  { size: 11.5, line: 15.5, caption: 17 },
  { size: 11, line: 14, caption: 16 },
  { size: 11.5, line: 15.5, caption: 17, beside: true },
  { size: 11, line: 14, caption: 16, beside: true },
  { size: 11, line: 13, caption: 14, beside: true },
];

/** Shares of names that may be cut: a name that is cut can still be read in full by pointing at it, a dot cannot be told from others. */
const CUT = [0.05, 0.3, 0.8] as const;
/** For names that need not fit into the room's height. */
const READABLE: Density = { size: 12, line: 17, caption: 19 };

/** The far drawing: a line for each screen, in the most roomy way in which all of it fits the room. */
export function layoutNames(project: Project, room: Room, far: boolean): MapLayout {
  const sections = sectionsOf(project);
  for (const beside of [false, true])
    for (const density of COLUMNS) {
      const layout = layoutColumns(project, sections, room, density, beside);
      if (layout) return layout;
    }
  for (const cut of CUT)
    for (const density of INDEX) {
      const layout = layoutIndex(project, sections, room, density, { height: room.height, cut });
      if (layout) return layout;
    }
  if (far) return layoutDots(project, sections, room);
  for (let height = room.height * 1.5; ; height *= 1.5) {
    const layout = layoutIndex(project, sections, room, READABLE, { height, cut: CUT[0] });
    if (layout) return layout;
  }
}
