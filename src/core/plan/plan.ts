import type { Args, ContainerPlan, EntrancePlan, FactPlan, LegPlan, PlanData, Program, ScreenPlan, Template, TypePlan } from "./data.ts";
import { type Expression, expressionOf } from "./expression.ts";

/** A leg with its expressions ready to run, and the earlier legs that come before it. */
export interface Leg {
  readonly id: string;
  readonly from: string;
  readonly on: LegPlan["on"];
  readonly ms: number | undefined;
  readonly by: readonly string[] | undefined;
  readonly never: boolean;
  readonly when: Expression | undefined;
  readonly shown: Expression | undefined;
  readonly enabled: Expression | undefined;
  readonly except: readonly string[] | undefined;
  readonly rows: string | undefined;
  readonly move: Program | undefined;
  readonly keepsDrawer: boolean;
  readonly pass: ReadonlyArray<{ readonly name: string; readonly value: Expression; readonly required: boolean }>;
  readonly give: ReadonlyArray<{ readonly name: string; readonly value: Expression }>;
  readonly set: ReadonlyArray<{ readonly fact: string; readonly value: Expression }>;
  readonly resumes: boolean;
  readonly earlier: readonly Leg[];
}

/** The legs from a place, in document order: those for events, and those that the app takes by itself. */
export interface LegsFrom {
  readonly events: readonly Leg[];
  readonly arrive: readonly Leg[];
  readonly depart: readonly Leg[];
}

export interface Entrance extends Omit<EntrancePlan, "when" | "pass"> {
  readonly id: string;
  readonly when: Expression | undefined;
  readonly pass: ReadonlyArray<{ readonly name: string; readonly value: Expression }> | undefined;
}

/** A screen with its rows in order, if it has pages. */
export interface Pages {
  readonly over: string;
  readonly by: string;
  readonly order: string | undefined;
  readonly key: string;
  readonly rows: readonly Args[];
}

/** What a plan consists of, as tables. */
export interface Tables {
  readonly launch: Template;
  readonly screens: ReadonlyMap<string, ScreenPlan>;
  readonly containers: ReadonlyMap<string, ContainerPlan>;
  readonly legs: ReadonlyMap<string, Leg>;
  readonly entrances: ReadonlyMap<string, Entrance>;
  readonly facts: ReadonlyMap<string, FactPlan>;
  readonly types: ReadonlyMap<string, TypePlan>;
  readonly lanes: ReadonlyMap<string, Template>;
}

/** A plan ready to run: its tables, and what is asked of them at every step. It never changes. */
export interface Plan extends Tables {
  readonly from: ReadonlyMap<string, LegsFrom>;
  readonly pages: ReadonlyMap<string, Pages>;
  readonly hasDepart: boolean;
}

/** Makes a plan ready to run. */
export function linkPlan(tables: Tables): Plan {
  const from = new Map<string, Record<keyof LegsFrom, Leg[]>>();
  let hasDepart = false;
  for (const leg of tables.legs.values()) {
    let group = from.get(leg.from);
    if (!group) {
      group = { events: NO_LEGS, arrive: NO_LEGS, depart: NO_LEGS };
      from.set(leg.from, group);
    }
    const kind = leg.on === "arrive" || leg.on === "depart" ? leg.on : "events";
    if (group[kind] === NO_LEGS) group[kind] = [leg];
    else group[kind].push(leg);
    hasDepart ||= leg.on === "depart";
  }
  return { ...tables, from, pages: linkPages(tables), hasDepart };
}

/** Reads a plan from its data. */
export function planFrom(data: PlanData): Plan {
  const legs = new Map<string, Leg>();
  for (const [id, leg] of Object.entries(data.legs)) legs.set(id, linkLeg(id, leg, legs));
  return linkPlan({
    launch: data.launch,
    screens: new Map(Object.entries(data.screens)),
    containers: new Map(Object.entries(data.containers)),
    legs,
    entrances: new Map(Object.entries(data.entrances).map(([id, entrance]) => [id, linkEntrance(id, entrance)])),
    facts: new Map(Object.entries(data.facts)),
    types: new Map(Object.entries(data.types)),
    lanes: new Map(Object.entries(data.lanes)),
  });
}

const NO_LEGS: Leg[] = [];

/** A leg of a plan; `before` holds those that stand before it. */
export function linkLeg(id: string, leg: LegPlan, before: ReadonlyMap<string, Leg>): Leg {
  return {
    id,
    from: leg.from,
    on: leg.on,
    ms: leg.ms,
    by: leg.by,
    never: leg.never === true,
    when: leg.when && expressionOf(leg.when),
    shown: leg.shown && expressionOf(leg.shown),
    enabled: leg.enabled && expressionOf(leg.enabled),
    except: leg.except,
    rows: leg.rows,
    move: leg.move,
    keepsDrawer: leg.keepsDrawer === true,
    pass: leg.pass?.map(({ name, value, required }) => ({ name, value: expressionOf(value), required: required === true })) ?? [],
    give: leg.give?.map(({ name, value }) => ({ name, value: expressionOf(value) })) ?? [],
    set: leg.set?.map(({ fact, value }) => ({ fact, value: expressionOf(value) })) ?? [],
    resumes: leg.resumes === true,
    earlier: leg.earlier?.map((other) => before.get(other)).filter((other) => other !== undefined) ?? NO_LEGS,
  };
}

/** A way in of a plan. */
export function linkEntrance(id: string, entrance: EntrancePlan): Entrance {
  return {
    ...entrance,
    id,
    when: entrance.when && expressionOf(entrance.when),
    pass: entrance.pass?.map(({ name, value }) => ({ name, value: expressionOf(value) })),
  };
}

function linkPages({ screens, types }: Pick<Tables, "screens" | "types">): Map<string, Pages> {
  const out = new Map<string, Pages>();
  for (const [id, { pages }] of screens) {
    const type = pages && types.get(pages.over);
    if (type) out.set(id, { over: pages.over, by: pages.by, order: pages.order, key: type.key, rows: inOrder(type.rows, pages.order) });
  }
  return out;
}

/** Rows by a field: numbers by size, all else as text; without a field as they come. */
export function inOrder(rows: readonly Args[], field: string | undefined): readonly Args[] {
  if (field === undefined) return rows;
  return [...rows].sort((a, b) => compare(a[field], b[field]));
}

function compare(a: unknown, b: unknown): number {
  if (typeof a === "number" && typeof b === "number") return a - b;
  const [x, y] = [String(a ?? ""), String(b ?? "")];
  return x < y ? -1 : x > y ? 1 : 0;
}
