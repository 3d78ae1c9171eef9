import { firstScreen } from "./make.ts";
import type { Args, Expression, Json, LegPlan, Plan, Values } from "./plan.ts";
import { type Shown, type State, same, screenOf } from "./state.ts";

/** What expressions read on a screen. */
export function valuesOn(plan: Plan, state: State, screen: Shown, item?: Args, field?: Args): Values {
  return {
    fact: state.facts,
    width: state.width,
    param: screen.args,
    item,
    field,
    link: undefined,
    get next() {
      return neighbour(plan, screen, 1);
    },
    get prev() {
      return neighbour(plan, screen, -1);
    },
  };
}

/** The row after or before that of a screen with pages; undefined at the ends. */
function neighbour(plan: Plan, screen: Shown, step: 1 | -1): Args | undefined {
  const pages = screenOf(plan, screen.at)?.pages;
  const type = pages && plan.rows[pages.over];
  if (!pages || !type) return undefined;
  const { order } = pages;
  const rows = order === undefined ? type.all() : [...type.all()].sort((a, b) => compare(a[order], b[order]));
  const by = screen.args[pages.by];
  const at = rows.findIndex((row) => same(row[type.key], by) || same(row, by));
  return at < 0 ? undefined : rows[at + step];
}

function compare(a: Json | undefined, b: Json | undefined): number {
  if (typeof a === "number" && typeof b === "number") return a - b;
  const [x, y] = [String(a ?? ""), String(b ?? "")];
  return x < y ? -1 : x > y ? 1 : 0;
}

/** The row that an event names: itself, by its key, or by its position. */
export function rowOf(plan: Plan, leg: LegPlan, item: Json | undefined): Args | undefined | "unknown" {
  if (item === undefined) return undefined;
  if (typeof item === "object" && item !== null && !Array.isArray(item)) return item as Args;
  const type = leg.rows === undefined ? undefined : plan.rows[leg.rows];
  if (!type) return undefined;
  const rows = type.all();
  const known = rows.find((row) => same(row[type.key], item) || String(row[type.key]) === item);
  return known ?? (typeof item === "number" ? rows[item] : undefined) ?? "unknown";
}

export const holds = (expression: Expression | undefined, v: Values): boolean => expression === undefined || expression(v) === true;

/** Where an entrance leads now. */
export function destination(plan: Plan, state: State, id: string, given: Args): { allowed: boolean; to: string | undefined; args: Args } | undefined {
  const entrance = plan.entrances[id];
  if (!entrance) return undefined;
  const link = Object.fromEntries(Object.entries(given).map(([name, value]) => [name, typeof value === "string" ? value : JSON.stringify(value)]));
  const v: Values = { fact: state.facts, width: state.width, param: {}, item: undefined, field: undefined, link, next: undefined, prev: undefined };
  const allowed = holds(entrance.when, v);
  const to = screenOf(plan, entrance.to) === undefined ? undefined : entrance.to;
  const args: Record<string, Json> = {};
  if (entrance.pass) {
    for (const [name, value] of Object.entries(entrance.pass)) {
      const found = value(v);
      if (found !== undefined) args[name] = found;
    }
    return { allowed, to, args };
  }
  for (const param of screenOf(plan, firstScreen(plan, entrance.to) ?? "")?.params ?? []) {
    const text = entrance.variables.includes(param.name) && Object.hasOwn(given, param.name) ? given[param.name] : undefined;
    const value = text === undefined ? undefined : fromText(text, param.type);
    if (value !== undefined) args[param.name] = value;
  }
  return { allowed, to, args };
}

function fromText(value: Json, type: string): Json | undefined {
  if (typeof value !== "string") return value;
  if (type === "integer") return /^[+-]?\d+$/.test(value) ? Number(value) : undefined;
  if (type === "number") return value.trim() !== "" && Number.isFinite(Number(value)) ? Number(value) : undefined;
  if (type === "boolean") return value === "true" ? true : value === "false" ? false : undefined;
  return value;
}

/** A member of a record, or undefined. */
export function member(value: Json | undefined, name: string): Json | undefined {
  if (typeof value !== "object" || value === null || !Object.hasOwn(value, name)) return undefined;
  return (value as Args)[name] ?? undefined;
}
/** And, or: one side that decides makes up for another that is not there. */
export function and(a: Json | undefined, b: () => Json | undefined): Json | undefined {
  if (a === false) return false;
  const other = b();
  return other === false ? false : a === undefined || other === undefined ? undefined : true;
}
export function or(a: Json | undefined, b: () => Json | undefined): Json | undefined {
  if (a === true) return true;
  const other = b();
  return other === true ? true : a === undefined || other === undefined ? undefined : false;
}
export function not(a: Json | undefined): Json | undefined {
  return a === undefined ? undefined : !a;
}
export function either(test: Json | undefined, yes: () => Json | undefined, no: () => Json | undefined): Json | undefined {
  return test === undefined ? undefined : test ? yes() : no();
}
export function equal(a: Json | undefined, b: Json | undefined): Json | undefined {
  return a === undefined || b === undefined ? undefined : same(a, b);
}
/** Whether two texts or two numbers stand in an order. */
export function ordered(op: "<" | "<=" | ">" | ">=", a: Json | undefined, b: Json | undefined): Json | undefined {
  if (a === undefined || b === undefined || a === null || b === null) return undefined;
  return op === "<" ? a < b : op === "<=" ? a <= b : op === ">" ? a > b : a >= b;
}
export function plus(a: Json | undefined, b: Json | undefined): Json | undefined {
  if (a === undefined || b === undefined) return undefined;
  return typeof a === "number" && typeof b === "number" ? a + b : `${a}${b}`;
}
export function minus(a: Json | undefined): Json | undefined {
  return a === undefined ? undefined : -Number(a);
}
