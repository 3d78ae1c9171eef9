import { type Compiled, compile, type Scope, type ScopeName, type ValueType, valueType } from "./expression.ts";
import { elementIdOf, elementOf, lookup, ownersAround, treeOf } from "./lookup.ts";
import { once } from "./once.ts";
import type { Entrance, Leg, Project, Screen } from "./schema.ts";
import { patternVariables } from "./template.ts";

/** What expressions of a leg may name: facts, width, the screen's parameters, the row used, typed fields, neighbours. */
export function legScope(project: Project, leg: Leg): Scope {
  const scope = placeScope(project, leg.from);
  const elementId = elementIdOf(leg);
  const row = elementId === undefined ? undefined : elementOf(project, leg.from, elementId)?.of;
  if (row === undefined || !lookup(project).types.has(row)) return scope;
  return { ...scope, names: { ...scope.names, item: recordName(scope, row) } };
}

const scopes = (_: Project) => new Map<string, Scope>();

/** What an element's conditions and texts on a place may name. */
export function placeScope(project: Project, placeId: string): Scope {
  const known = once(project, scopes);
  const scope = known.get(placeId) ?? makePlaceScope(project, placeId);
  known.set(placeId, scope);
  return scope;
}

function makePlaceScope(project: Project, placeId: string): Scope {
  const { places, screens } = lookup(project);
  const records = recordsOf(project);
  const scope: Scope = { records, names: outerNames(project), choices: choicesOf(project) };
  const place = places.get(placeId);
  const inside: Screen[] = place?.kind === "screen" ? [place.screen] : treeOf(project, placeId).flatMap((id) => screens.get(id) ?? []);
  const param: Record<string, ValueType> = {};
  const field: Record<string, ValueType> = {};
  for (const screen of inside) {
    for (const p of screen.params) param[p.name] ??= valueType(p.type);
    addFields(field, screen.elements);
    if (screen.pages && lookup(project).types.has(screen.pages.over)) {
      scope.names.next ??= recordName(scope, screen.pages.over);
      scope.names.prev ??= recordName(scope, screen.pages.over);
    }
  }
  if (place?.kind === "container") addFields(field, place.container.elements ?? []);
  for (const container of ownersAround(project, placeId)) addFields(field, container.elements ?? []);
  scope.names.param = { fields: param };
  scope.names.field = { fields: field };
  return scope;
}

/** What the expressions of an entrance may name: facts, width, and what its pattern matched. */
export function entranceScope(project: Project, entrance: Entrance): Scope {
  const fields: Record<string, ValueType> = {};
  for (const name of entrance.pattern === undefined ? [] : patternVariables(entrance.pattern)) fields[name] = "text";
  return { records: recordsOf(project), names: { ...outerNames(project), link: { fields } }, choices: choicesOf(project) };
}

/** What the condition of a rule may name: facts and width. */
export function ruleScope(project: Project): Scope {
  return { records: recordsOf(project), names: outerNames(project), choices: choicesOf(project) };
}

/** Compiles a condition: an expression of another type than true or false is an error too. */
export function compileCondition(source: string, scope: Scope): Compiled {
  const compiled = compile(source, scope);
  if (compiled.ok && compiled.type !== "boolean")
    return { ok: false, error: { message: `a condition is expected, not a value of type ${compiled.type}`, start: 0, end: source.length } };
  return compiled;
}

function outerNames(project: Project): Record<string, ScopeName> {
  const fact: Record<string, ValueType> = {};
  for (const f of project.facts) fact[f.id] = f.type === "boolean" ? "boolean" : "text";
  return { fact: { fields: fact }, width: { type: "text" } };
}

function choicesOf(project: Project): NonNullable<Scope["choices"]> {
  return Object.fromEntries(project.facts.flatMap(({ id, type, values }) => (type === "choice" && values ? [[id, values]] : [])));
}

function recordsOf(project: Project): Scope["records"] {
  return Object.fromEntries(project.types.map((t) => [t.id, Object.fromEntries(t.fields.map((f) => [f.name, valueType(f.type)]))]));
}

function recordName(scope: Scope, typeId: string): ScopeName {
  return { type: `record:${typeId}`, fields: scope.records[typeId] ?? {} };
}

function addFields(field: Record<string, ValueType>, elements: Screen["elements"]) {
  for (const e of elements) {
    if (e.kind === "field") field[e.id] ??= "text";
    if (e.kind === "switch") field[e.id] ??= "boolean";
  }
}
