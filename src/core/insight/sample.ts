import { compile } from "../model/expression.ts";
import { elementIdOf, elementOf, lookup, treeOf } from "../model/lookup.ts";
import { once } from "../model/once.ts";
import type { Json, Leg, Project, Screen } from "../model/schema.ts";
import { entranceScope, legScope } from "../model/scope.ts";
import { patternVariables } from "../model/template.ts";
import type { Values } from "../plan/expression.ts";
import { neighbour } from "../semantics/values.ts";
import { appOf } from "./app.ts";
import { evaluate } from "./evaluate.ts";
import { providersOf } from "./flow.ts";

/** How many hands a value is traced back through before it is given up. */
const DEPTH = 6;

const kept = (_: Project) => new Map<string, Record<string, Json>>();

/** Values that an expression of a leg might see, from the samples: the first row, and parameters as they would arrive. */
export function sampleValues(project: Project, leg: Leg, depth = DEPTH): Values {
  const values = placeValues(project, leg.from, depth);
  const element = elementIdOf(leg);
  const of = element === undefined ? undefined : elementOf(project, leg.from, element)?.of;
  return { ...values, item: of === undefined ? undefined : lookup(project).types.get(of)?.samples[0] };
}

/** The same for expressions of a place that belong to no leg. */
export function placeValues(project: Project, placeId: string, depth = DEPTH): Values {
  const screen = treeOf(project, placeId).flatMap((id) => lookup(project).screens.get(id) ?? [])[0];
  const param = screen ? sampleArguments(project, screen, depth) : {};
  const shown = screen ? { kind: "shown" as const, at: screen.id, args: param } : undefined;
  return {
    fact: Object.fromEntries(project.facts.map((fact) => [fact.id, fact.initial])),
    width: "narrow",
    param,
    field: {},
    next: shown && neighbour(appOf(project), shown, 1),
    prev: shown && neighbour(appOf(project), shown, -1),
  };
}

/** The same for an entrance, with the variables of its address from the sample of what it leads to. */
export function entranceValues(project: Project, pattern: string | undefined, to: string): Values {
  const screen = lookup(project).screens.get(to);
  const known = screen ? keysByName(project, screen) : {};
  return {
    fact: Object.fromEntries(project.facts.map((fact) => [fact.id, fact.initial])),
    width: "narrow",
    link: Object.fromEntries(patternVariables(pattern ?? "").map((name) => [name, known[name] ?? name])),
  };
}

/** Arguments with which a screen might be shown: what the first leg that hands them on would give, on the samples. */
export function sampleArguments(project: Project, screen: Screen, depth = DEPTH): Record<string, Json> {
  const known = depth === DEPTH ? once(project, kept).get(screen.id) : undefined;
  if (known) return known;
  const keys = keysByName(project, screen);
  const out: Record<string, Json> = {};
  for (const param of screen.params) {
    const type = lookup(project).types.get(param.type);
    const value = type ? type.samples[0] : (param.default ?? (depth > 0 ? handedOn(project, screen, param.name, depth) : undefined) ?? keys[param.name]);
    if (value !== undefined) out[param.name] = value;
  }
  if (depth === DEPTH) once(project, kept).set(screen.id, out);
  return out;
}

function handedOn(project: Project, screen: Screen, name: string, depth: number): Json | undefined {
  const param = screen.params.find((p) => p.name === name);
  for (const provider of param ? providersOf(project, screen, param) : []) {
    if (provider.source === undefined || (provider.kind !== "entrance" && provider.leg.from === screen.id)) continue;
    const scope = provider.kind === "entrance" ? entranceScope(project, provider.entrance) : legScope(project, provider.leg);
    const compiled = compile(provider.source, scope);
    const values = provider.kind === "entrance" ? entranceValues(project, undefined, screen.id) : sampleValues(project, provider.leg, depth - 1);
    const value = evaluate(compiled, values);
    if (value !== undefined) return value;
  }
  return undefined;
}

/** Keys of first samples under the names that parameters for them usually have: `hiveId` for the type hive with the key id. */
function keysByName(project: Project, screen: Screen): Record<string, Json> {
  const out: Record<string, Json> = {};
  for (const param of screen.params)
    for (const type of project.types) {
      const key = type.fields[0]?.name;
      const value = key === undefined ? undefined : type.samples[0]?.[key];
      if (key !== undefined && value !== undefined && param.name.toLowerCase() === `${type.id}${key}`.toLowerCase()) out[param.name] = value;
    }
  return out;
}
