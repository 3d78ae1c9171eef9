import { triggerLabel } from "../model/describe.ts";
import { elementIdOf, lookup } from "../model/lookup.ts";
import type { Element, Project } from "../model/schema.ts";
import { ROW_HEIGHT } from "./measure.ts";
import type { Row } from "./types.ts";

/** Elements as rows, then one row for each trigger that needs no element. */
export function rowsOf(project: Project, placeId: string, elements: readonly Element[], top: number): Row[] {
  const legs = lookup(project).legsFrom.get(placeId) ?? [];
  const rows: Array<Omit<Row, "y">> = elements.map((element) => ({
    element,
    label: element.label || element.id,
    legs: legs.filter((leg) => elementIdOf(leg) === element.id),
  }));
  for (const leg of legs) {
    if (elementIdOf(leg) !== undefined) continue;
    const label = triggerLabel(leg);
    const known = rows.find((row) => row.element === undefined && row.label === label);
    if (known) known.legs.push(leg);
    else rows.push({ element: undefined, label, legs: [leg] });
  }
  return rows.map((row, i) => ({ ...row, y: top + i * ROW_HEIGHT + ROW_HEIGHT / 2 }));
}
