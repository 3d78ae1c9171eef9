import type { Args, Json } from "../plan/data.ts";
import type { Values } from "../plan/expression.ts";
import { sameValue } from "../plan/expression.ts";
import { inOrder, type Leg } from "../plan/plan.ts";
import type { App, Shown, State } from "./types.ts";

/** What comes with an event: the row used and what was typed. */
export interface Input {
  readonly item?: Args | undefined;
  readonly fields?: Args | undefined;
}

/** The values that expressions see on a screen. Neighbours are looked up only when they are read. */
export function valuesFor(app: App, state: Pick<State, "facts" | "width">, screen: Shown, input: Input = {}): Values {
  return new ScreenValues(app, state, screen, input);
}

class ScreenValues implements Values {
  readonly fact: Args;
  readonly width: State["width"];
  readonly screen: string;
  readonly param: Args;
  readonly item: Args | undefined;
  readonly field: Args | undefined;
  private readonly app: App;
  private readonly shown: Shown;

  constructor(app: App, state: Pick<State, "facts" | "width">, shown: Shown, input: Input) {
    this.fact = state.facts;
    this.width = state.width;
    this.screen = shown.at;
    this.param = shown.args;
    this.item = input.item;
    this.field = input.fields;
    this.app = app;
    this.shown = shown;
  }

  get next(): Args | undefined {
    return neighbour(this.app, this.shown, 1);
  }

  get prev(): Args | undefined {
    return neighbour(this.app, this.shown, -1);
  }
}

/** The row after (1) or before (-1) that of a screen with pages; undefined at the ends. */
export function neighbour(app: App, screen: Shown, by: 1 | -1): Args | undefined {
  const pages = app.plan.pages.get(screen.at);
  if (!pages) return undefined;
  const own = app.rows?.(pages.over);
  const rows = own ? inOrder(own, pages.order) : pages.rows;
  const wanted = screen.args[pages.by];
  const at = rows.findIndex((row) => sameValue(row[pages.key], wanted) || sameValue(row, wanted));
  return at < 0 ? undefined : rows[at + by];
}

/** The rows of a record type: the app's own, else the samples. */
export function rowsOf(app: App, type: string): readonly Args[] {
  return app.rows?.(type) ?? app.plan.types.get(type)?.rows ?? [];
}

/**
 * The row that an event names: the row itself, the key of one, or its position.
 * "unknown" where a key or position names none.
 */
export function resolveItem(app: App, leg: Leg, item: Json | undefined): Args | undefined | "unknown" {
  if (item === undefined) return undefined;
  if (typeof item === "object" && item !== null && !Array.isArray(item)) return item;
  const type = leg.rows === undefined ? undefined : app.plan.types.get(leg.rows);
  if (leg.rows === undefined || !type) return undefined;
  const rows = rowsOf(app, leg.rows);
  const byKey = rows.find((row) => sameValue(row[type.key], item) || String(row[type.key]) === item);
  return byKey ?? (typeof item === "number" ? rows[item] : undefined) ?? "unknown";
}

/** Values of an address's variables as the parameters' types want them; what does not fit stays out. */
export function argumentsFromText(params: ReadonlyArray<{ readonly name: string; readonly type: string }>, values: Args): Args {
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
