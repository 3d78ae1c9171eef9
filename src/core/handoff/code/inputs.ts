/** What a call in generated code has to give for a leg: only what the design cannot work out. */

import type { Compiled } from "../../model/expression.ts";
import { type Located, legExpressions, placeExpressions } from "../../model/expressions.ts";
import { elementIdOf, elementsOf, ownersAround, rowTypeOf, treeOf } from "../../model/lookup.ts";
import type { Leg, Project, RecordType } from "../../model/schema.ts";
import { triggerKey } from "../../plan/lower/legs.ts";

/** What a call gives: fields of the row that was used, or the whole row, and what was typed. */
export interface Inputs {
  row: { type: RecordType; fields: readonly string[] | "all" } | undefined;
  fields: ReadonlyArray<{ id: string; type: "text" | "boolean" }>;
}

/** What a call for some legs has to give: what their expressions read of a row or of what was typed, and what those that come before them on the same trigger read. */
export function inputsOf(project: Project, legs: readonly Leg[]): Inputs {
  const keys = new Set(legs.map(triggerKey));
  const last = Math.max(...legs.map((leg) => project.legs.indexOf(leg)));
  const asked = project.legs.slice(0, last + 1).filter((leg) => keys.has(triggerKey(leg)));
  const reads = asked.flatMap((leg) => [...legExpressions(project, leg), ...elementExpressions(project, leg)]).flatMap(({ compiled }) => readsOf(compiled));
  const type = legs.map((leg) => rowTypeOf(project, leg)).find((one) => one !== undefined);
  const rows = reads.filter(({ name }) => name === "item");
  const typed = new Set(reads.flatMap(({ name, field }) => (name === "field" && field !== undefined ? [field] : [])));
  const whole = rows.some(({ field }) => field === undefined);
  return {
    row: type && rows.length > 0 ? { type, fields: whole ? "all" : [...new Set(rows.flatMap(({ field }) => field ?? []))] } : undefined,
    fields: [...typed].sort().map((id) => ({ id, type: fieldType(project, legs[0]?.from ?? "", id) })),
  };
}

function readsOf(compiled: Compiled): Array<{ name: string; field?: string }> {
  return compiled.ok ? compiled.reads : [];
}

/** The conditions of a leg's element. */
function elementExpressions(project: Project, leg: Leg): Located[] {
  const id = elementIdOf(leg);
  return id === undefined ? [] : placeExpressions(project, leg.from).filter(({ element, role }) => element === id && role !== "template");
}

/** What is typed into a field is text, what a switch says is a truth value. */
function fieldType(project: Project, place: string, id: string): "text" | "boolean" {
  const places = [...treeOf(project, place), ...ownersAround(project, place).map((container) => container.id)];
  return places.flatMap((one) => elementsOf(project, one)).find((element) => element.id === id)?.kind === "switch" ? "boolean" : "text";
}
