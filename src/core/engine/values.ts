import { sameValue, type Values } from "../model/expression.ts";
import { elementIdOf, elementOf, lookup } from "../model/lookup.ts";
import type { Json, Leg, Project, RecordType, Row } from "../model/schema.ts";
import type { Args, Shown, State } from "./state.ts";

/** What comes with an event: the row used and what was typed. */
export interface Input {
  item?: Row;
  fields?: Record<string, Json>;
}

/** The values that expressions see on a screen. Neighbours are looked up only when read. */
export function valuesFor(project: Project, state: Pick<State, "facts" | "width">, screen: Shown, input: Input = {}): Values {
  return new ScreenValues(project, state, screen, input) as unknown as Values;
}

class ScreenValues {
  readonly fact: State["facts"];
  readonly width: State["width"];
  /** The screen's id; no expression can name it, but whoever runs one may ask. */
  readonly screen: string;
  readonly param: Args;
  readonly item: Row | undefined;
  readonly field: Input["fields"];
  private readonly shown: Shown;
  private readonly project: Project;

  constructor(project: Project, state: Pick<State, "facts" | "width">, shown: Shown, input: Input) {
    this.fact = state.facts;
    this.width = state.width;
    this.screen = shown.at;
    this.param = shown.args;
    this.item = input.item;
    this.field = input.fields;
    this.shown = shown;
    this.project = project;
  }

  get next() {
    return neighbour(this.project, this.shown, 1);
  }

  get prev() {
    return neighbour(this.project, this.shown, -1);
  }
}

/** The row after (1) or before (-1) that of a screen with `pages`; undefined at the ends. */
export function neighbour(project: Project, screen: Shown, step: 1 | -1): Row | undefined {
  const { screens, types } = lookup(project);
  const pages = screens.get(screen.at)?.pages;
  const type = pages && types.get(pages.over);
  if (!pages || !type) return undefined;
  const rows = orderedRows(type, pages.order);
  const by = screen.args[pages.by];
  const key = keyField(type);
  const at = rows.findIndex((row) => sameValue(row[key], by) || sameValue(row, by));
  return at < 0 ? undefined : rows[at + step];
}

/** The key of a record type is its first field. */
export function keyField(type: RecordType): string {
  return type.fields[0]?.name ?? "";
}

const orders = new WeakMap<RecordType, Map<string, Row[]>>();

function orderedRows(type: RecordType, order: string | undefined): Row[] {
  if (order === undefined) return type.samples;
  let byField = orders.get(type);
  if (!byField) {
    byField = new Map();
    orders.set(type, byField);
  }
  let rows = byField.get(order);
  if (!rows) {
    rows = [...type.samples].sort((a, b) => compareJson(a[order], b[order]));
    byField.set(order, rows);
  }
  return rows;
}

function compareJson(a: Json | undefined, b: Json | undefined): number {
  if (typeof a === "number" && typeof b === "number") return a - b;
  const [x, y] = [String(a ?? ""), String(b ?? "")];
  return x < y ? -1 : x > y ? 1 : 0;
}

/** The record type of the rows that a leg's element lists, or undefined. */
export function rowTypeOf(project: Project, leg: Leg): RecordType | undefined {
  const elementId = elementIdOf(leg);
  const of = elementId === undefined ? undefined : elementOf(project, leg.from, elementId)?.of;
  return of === undefined ? undefined : lookup(project).types.get(of);
}

/**
 * The row that an event names: the row itself, the key of a sample, or a sample's position.
 * "unknown" where a key or position names no sample.
 */
export function resolveItem(project: Project, leg: Leg, item: Json | undefined): Row | undefined | "unknown" {
  if (item === undefined) return undefined;
  if (typeof item === "object" && item !== null && !Array.isArray(item)) return item;
  const type = rowTypeOf(project, leg);
  if (!type) return undefined;
  const key = keyField(type);
  const byKey = type.samples.find((row) => sameValue(row[key], item) || String(row[key]) === item);
  return byKey ?? (typeof item === "number" ? type.samples[item] : undefined) ?? "unknown";
}

/** Values of an address's variables as the parameters' types want them; what does not fit stays out. */
export function argumentsFromText(params: ReadonlyArray<{ name: string; type: string }>, values: Args): Args {
  const out: Record<string, Json> = {};
  for (const param of params) {
    const value = Object.hasOwn(values, param.name) ? values[param.name] : undefined;
    const converted = value === undefined ? undefined : convert(value, param.type);
    if (converted !== undefined) out[param.name] = converted;
  }
  return out;
}

function convert(value: Json, type: string): Json | undefined {
  if (typeof value !== "string") return value;
  switch (type) {
    case "integer":
      return /^[+-]?\d+$/.test(value) ? Number(value) : undefined;
    case "number":
      return value.trim() !== "" && Number.isFinite(Number(value)) ? Number(value) : undefined;
    case "boolean":
      return value === "true" ? true : value === "false" ? false : undefined;
    default:
      return value;
  }
}
