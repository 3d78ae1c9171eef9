import { type Compiled, compile, fits, type Scope, type ValueType, valueType } from "./expression.ts";
import { giveOf, lookup, passOf } from "./lookup.ts";
import type { Entrance, Leg, Project, Rule } from "./schema.ts";
import { compileCondition, entranceScope, legScope, placeScope, ruleScope } from "./scope.ts";
import { templateParts } from "./template.ts";

/** One expression of a document with where it stands and what came of compiling it. */
export interface Located {
  source: string;
  compiled: Compiled;
  role: "when" | "pass" | "give" | "set" | "shown" | "enabled" | "template";
  /** The parameter or fact it is a value for. */
  name?: string;
}

/** Whether a value of a type may be handed back by a name: some screen that declares the name could take it, or none declares it. */
export function isTaken(project: Project, name: string, type: ValueType): boolean {
  const declared = project.screens.flatMap(({ params }) => params.filter((param) => param.name === name));
  return declared.length === 0 || declared.some((param) => fits(type, valueType(param.type)));
}

/** All expressions of a leg. */
export function legExpressions(project: Project, leg: Leg): Located[] {
  const [pass, give] = [passOf(leg), giveOf(leg)];
  if (leg.when === undefined && pass === undefined && give === undefined && leg.set === undefined) return [];
  const scope = legScope(project, leg);
  return [
    ...(leg.when === undefined ? [] : [{ source: leg.when, compiled: compileCondition(leg.when, scope), role: "when" as const }]),
    ...values(pass, "pass", scope),
    ...values(give, "give", scope),
    ...values(leg.set, "set", scope),
  ];
}

export function entranceExpressions(project: Project, entrance: Entrance): Located[] {
  const scope = entranceScope(project, entrance);
  const when = entrance.when;
  return [
    ...(when === undefined ? [] : [{ source: when, compiled: compileCondition(when, scope), role: "when" as const }]),
    ...values(entrance.pass, "pass", scope),
  ];
}

/** The condition of a rule of the kind "only"; of others there is none. */
export function ruleExpressions(project: Project, rule: Rule): Located[] {
  return rule.kind === "only" ? [{ source: rule.while, compiled: compileCondition(rule.while, ruleScope(project)), role: "when" }] : [];
}

function values(record: Record<string, string> | undefined, role: "pass" | "give" | "set", scope: Scope): Located[] {
  return Object.entries(record ?? {}).map(([name, source]) => ({ source, compiled: compile(source, scope), role, name }));
}

/** The expressions of a place itself: its elements' conditions and texts and, of a screen, its title. */
export function placeExpressions(project: Project, placeId: string): Array<Located & { element?: string }> {
  const place = lookup(project).places.get(placeId);
  if (!place) return [];
  const all = (place.kind === "screen" ? place.screen.elements : place.container.elements) ?? [];
  const elements = all.filter((e) => e.shown !== undefined || e.enabled !== undefined || e.text !== undefined);
  const title = place.kind === "screen" ? place.screen.title : undefined;
  if (title === undefined && elements.length === 0) return [];
  const scope = placeScope(project, placeId);
  const template = (text: string | undefined, within: Scope) =>
    templateParts(text ?? "").flatMap((part) =>
      "hole" in part ? [{ source: part.hole, compiled: compile(part.hole, within), role: "template" as const }] : [],
    );
  return [
    ...template(title, scope),
    ...elements.flatMap((e) => {
      const row = e.of === undefined ? undefined : scope.records[e.of];
      const rows: Scope = row ? { ...scope, names: { ...scope.names, item: { type: `record:${e.of}`, fields: row } } } : scope;
      return [
        ...(e.shown === undefined ? [] : [{ source: e.shown, compiled: compileCondition(e.shown, scope), role: "shown" as const, element: e.id }]),
        ...(e.enabled === undefined ? [] : [{ source: e.enabled, compiled: compileCondition(e.enabled, scope), role: "enabled" as const, element: e.id }]),
        ...template(e.text, rows).map((located) => ({ ...located, element: e.id })),
      ];
    }),
  ];
}
