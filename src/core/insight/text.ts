import { compile } from "../model/expression.ts";
import { keyField, lookup } from "../model/lookup.ts";
import type { Element, Json, Project, Row } from "../model/schema.ts";
import { placeScope } from "../model/scope.ts";
import { templateParts } from "../model/template.ts";
import type { Values } from "../plan/expression.ts";
import type { Shown, State } from "../semantics/types.ts";
import { type Input, valuesFor } from "../semantics/values.ts";
import { appOf } from "./app.ts";
import { evaluate } from "./evaluate.ts";

/**
 * The text of a template on a screen, its holes filled from facts, arguments and, in lists, the row.
 * A hole that has no value, or is not well typed, shows as a dash.
 */
export function templateText(
  project: Project,
  state: Pick<State, "facts" | "width">,
  screen: Shown,
  placeId: string,
  template: string,
  input: Input & { of?: string } = {},
): string {
  const parts = templateParts(template);
  if (!parts.some((part) => "hole" in part)) return template;
  const scope = placeScope(project, placeId);
  const row = input.of === undefined ? undefined : scope.records[input.of];
  const names = row ? { ...scope.names, item: { type: `record:${input.of}` as const, fields: row } } : scope.names;
  const values: Values = valuesFor(appOf(project), state, screen, input);
  return parts.map((part) => ("text" in part ? part.text : holeText(compile(part.hole, { ...scope, names }), values))).join("");
}

function holeText(compiled: ReturnType<typeof compile>, values: Values): string {
  const value = evaluate(compiled, values);
  return value === undefined ? "–" : valueText(value);
}

/** A value as people read it; a record by its first field. */
export function valueText(value: Json): string {
  if (typeof value === "object" && value !== null) return String(Object.values(value)[0] ?? "");
  return String(value);
}

/** The title of a screen: its template, else its name, else its id. */
export function screenTitle(project: Project, state: Pick<State, "facts" | "width">, screen: Shown): string {
  const declared = lookup(project).screens.get(screen.at);
  if (!declared) return screen.at;
  return declared.title === undefined ? declared.name || declared.id : templateText(project, state, screen, screen.at, declared.title);
}

/** What a row of a list says: its template, else its name, else its key. */
export function rowText(project: Project, state: Pick<State, "facts" | "width">, screen: Shown, placeId: string, element: Element, row: Row): string {
  if (element.text !== undefined) return templateText(project, state, screen, placeId, element.text, { item: row, of: element.of });
  const type = element.of === undefined ? undefined : lookup(project).types.get(element.of);
  return valueText(row.name ?? (type ? row[keyField(type)] : undefined) ?? element.label);
}
