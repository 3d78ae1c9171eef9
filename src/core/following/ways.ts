import { addressValues } from "../insight/addresses.ts";
import { candidateEvents } from "../insight/available.ts";
import { typedFields } from "../insight/typed.ts";
import { elementIdOf, elementOf, keyField, lookup, nameOf, rowTypeOf } from "../model/lookup.ts";
import { once } from "../model/once.ts";
import type { Json, Leg, NavEvent, Project, RecordType, Row } from "../model/schema.ts";
import type { Expression } from "../plan/expression.ts";
import type { Plan, Leg as PlanLeg } from "../plan/plan.ts";
import { currentScreen } from "../semantics/state.ts";
import type { App, State } from "../semantics/types.ts";

/** What might have happened: an event, and the app as it may have been, with rows of its own. */
export interface Way {
  readonly event: NavEvent;
  readonly app: App;
  /** The event as the log tells it, where it does: what differs from it is a guess. */
  readonly given?: NavEvent | undefined;
}

/** Every event that a user, the clock or the outside might have caused in a state. Rows, fields and addresses are samples of what they might be. */
export function anyWays(project: Project, app: App, state: State): Way[] {
  return candidateEvents(project, state).flatMap((event) => waysOf(project, app, state, event));
}

function waysOf(project: Project, app: App, state: State, event: NavEvent): Way[] {
  if (event.do === "enter") return entered(project, event).map((one) => ({ event: one, app }));
  const leg = event.do === "leg" ? lookup(project).legs.get(event.leg) : undefined;
  if (!leg || event.do !== "leg") return [{ event, app }];
  const typed = typedFields(project, state, leg).map((fields): NavEvent => (fields ? { ...event, fields } : event));
  return typed.flatMap((one) => [{ event: one, app }, ...otherRows(project, app, state, one)]);
}

function entered(project: Project, event: Extract<NavEvent, { do: "enter" }>): NavEvent[] {
  const entrance = lookup(project).entrances.get(event.entrance);
  if (!entrance?.when) return [event];
  return addressValues(project, entrance).map((args): NavEvent => (Object.keys(args).length > 0 ? { ...event, args } : event));
}

/**
 * An event as it may have been where what is told of it does not do: with what was typed, with a row that the samples lack, or with
 * neighbours in a list that is longer than the samples.
 */
export function otherWays(project: Project, app: App, state: State, event: NavEvent): Way[] {
  return event.do === "leg" && event.fields === undefined ? untold(project, app, state, event) : otherRows(project, app, state, event);
}

/** With each text that the conditions of the leg compare with: what was typed is no business of a log. */
function untold(project: Project, app: App, state: State, event: Extract<NavEvent, { do: "leg" }>): Way[] {
  const leg = lookup(project).legs.get(event.leg);
  if (!leg) return [];
  return typedFields(project, state, leg).flatMap((fields): Way[] =>
    fields ? [{ event: { ...event, fields }, app }, ...otherRows(project, app, state, { ...event, fields })] : otherRows(project, app, state, event),
  );
}

function otherRows(project: Project, app: App, state: State, event: NavEvent): Way[] {
  const leg = event.do === "leg" ? lookup(project).legs.get(event.leg) : undefined;
  if (event.do !== "leg" || !leg) return [];
  const type = rowTypeOf(project, leg);
  const apps = readsNeighbours(leg) ? [longer(project, app, state)] : [];
  if (!type || (event.item !== undefined && typeof event.item === "object")) return apps.map((one) => ({ event, app: one }));
  const key = typeof event.item === "string" || typeof event.item === "number" ? { [keyField(type)]: event.item } : {};
  if (type.samples.length > 0 && event.item !== undefined && type.samples.some((row) => row[keyField(type)] === event.item))
    return apps.map((one) => ({ event, app: one }));
  const rows = type.samples.length === 0 ? [plainRow(type)] : type.samples;
  return [app, ...apps].flatMap((one) => rows.map((row): Way => ({ event: { ...event, item: { ...row, ...key } }, app: one })));
}

const readsNeighbours = (leg: Leg) => /(?<![\w.])(next|prev)\b/.test(JSON.stringify([leg.when, leg.move, leg.set]));

/** The app with a row before and one after the one that shows. */
function longer(project: Project, app: App, state: State): App {
  const screen = currentScreen(state);
  const pages = app.plan.pages.get(screen.at);
  const type = pages && lookup(project).types.get(pages.over);
  if (!pages || !type) return app;
  const shown = screen.args[pages.by];
  const row = (name: Json): Row => ({ ...plainRow(type), [pages.key]: name });
  const order = pages.order;
  const placed = (name: Json, at: number): Row => ({ ...row(name), ...(order === undefined ? {} : { [order]: at }) });
  return { ...app, rows: (of) => (of === type.id ? [placed("~before", 0), placed(shown ?? "~", 1), placed("~after", 2)] : undefined) };
}

/** A row of a type whose fields say nothing. */
function plainRow(type: RecordType): Row {
  const plain: Record<string, Json> = { text: "~", integer: 0, number: 0, boolean: false };
  return Object.fromEntries(type.fields.map((field): [string, Json] => [field.name, plain[field.type] ?? "~"]));
}

/** Whether an event starts at a control: an element by its id or its label, a tab or what a drawer offers by its id or its name; or it is the leg itself that is named. */
export function startsAt(project: Project, event: NavEvent, used: string): boolean {
  const leg = event.do === "leg" ? lookup(project).legs.get(event.leg) : undefined;
  if (!leg) return (event.do === "tab" || event.do === "pick") && (event.to === used || nameOf(project, event.to) === used);
  const element = elementIdOf(leg);
  return leg.id === used || element === used || (element !== undefined && elementOf(project, leg.from, element)?.label === used);
}

/** Whether a control of that name is anywhere in the design. */
export function isControl(project: Project, used: string): boolean {
  const chosen = project.containers.flatMap(({ kind, members }) => (kind === "tabs" || kind === "drawer" ? members : []));
  return project.legs.some((leg) => startsAt(project, { do: "leg", leg: leg.id }, used)) || chosen.some((to) => startsAt(project, { do: "tab", to }, used));
}

/**
 * Whether what an event does may rest on the facts from outside. Where it does not, it need not be tried with each of their values.
 * Any event may, where a leg on arriving or leaving goes by them.
 */
export function restsOnOutside(app: App, event: NavEvent): boolean {
  const { all, legs, entrances } = once(app.plan, outsideReaders);
  if (all || event.do === "launch" || event.do === "fact") return true;
  return event.do === "leg" ? legs.has(event.leg) : event.do === "enter" && entrances.has(event.entrance);
}

function outsideReaders(plan: Plan): { all: boolean; legs: ReadonlySet<string>; entrances: ReadonlySet<string> } {
  const names = [...plan.facts].flatMap(([id, { outside }]) => (outside ? [JSON.stringify(["member", ["name", "fact"], id])] : []));
  const reads = (expressions: ReadonlyArray<Expression | undefined>) => {
    const trees = JSON.stringify(expressions.map((one) => one?.tree ?? null));
    return names.some((name) => trees.includes(name));
  };
  const legs = new Set<string>();
  for (const leg of plan.legs.values()) {
    if (leg.resumes || reads([leg, ...leg.earlier].flatMap(expressionsOf))) legs.add(leg.id);
  }
  const entrances = new Set(
    [...plan.entrances.values()].flatMap(({ id, when, pass }) => (reads([when, ...(pass ?? []).map(({ value }) => value)]) ? [id] : [])),
  );
  const all = [...plan.legs.values()].some(({ id, on }) => (on === "arrive" || on === "depart") && legs.has(id));
  return { all, legs, entrances };
}

/** All expressions of a leg. */
export function expressionsOf({ when, shown, enabled, pass, give, set }: PlanLeg): Array<Expression | undefined> {
  return [when, shown, enabled, ...[...pass, ...give, ...set].map(({ value }) => value)];
}
