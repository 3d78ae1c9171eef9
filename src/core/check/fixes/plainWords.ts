import { changeElement, changeEntrance, changeLeg } from "../../model/edits/change.ts";
import type { Edit } from "../../model/edits/edit.ts";
import { changeRule } from "../../model/edits/rules.ts";
import { compile, plainNames, type Scope } from "../../model/expression.ts";
import { elementOf, lookup, passOf } from "../../model/lookup.ts";
import { withPass } from "../../model/moves.ts";
import type { Leg, Project } from "../../model/schema.ts";
import { compileCondition, entranceScope, legScope, placeScope, ruleScope } from "../../model/scope.ts";
import { fromPlainWords } from "../../model/spokenExpression.ts";

/**
 * The fix for a condition or value that does not parse, where it is clear what it was to say: `member and order = none` becomes
 * `fact.member && fact.order == 'none'`. Of a leg, a way in, a rule, or an element of a place.
 */
export function inExpressionWords(project: Project, id: string, element?: string): Edit[] {
  const { legs, entrances } = lookup(project);
  const [leg, entrance, rule] = [legs.get(id), entrances.get(id), project.rules?.find((one) => one.id === id)];
  if (element !== undefined) return ofElement(project, id, element);
  if (leg) return ofLeg(project, leg);
  if (entrance) {
    const when = mended(entrance.when, entranceScope(project, entrance));
    return when === undefined ? [] : [{ ...changeEntrance(project, id, { when }), name: `Write ${when}` }];
  }
  const condition = rule?.kind === "only" ? mended(rule.while, ruleScope(project)) : undefined;
  return rule?.kind === "only" && condition !== undefined ? [{ ...changeRule({ ...rule, while: condition }), name: `Write ${condition}` }] : [];
}

function ofLeg(project: Project, leg: Leg): Edit[] {
  const scope = legScope(project, leg);
  const when = mended(leg.when, scope);
  const set = mendedValues(leg.set, scope, true);
  const pass = mendedValues(passOf(leg), scope, false);
  const written = [...(when === undefined ? [] : [when]), ...set.written, ...pass.written];
  if (written.length === 0) return [];
  const change: Partial<Leg> = {
    ...(when === undefined ? {} : { when }),
    ...(set.written.length > 0 ? { set: set.values } : {}),
    ...(pass.written.length > 0 && leg.move ? { move: withPass(leg.move, pass.values) } : {}),
  };
  return [{ ...changeLeg(project, leg, change), name: `Write ${written.join(", ")}` }];
}

function ofElement(project: Project, place: string, id: string): Edit[] {
  const element = elementOf(project, place, id);
  const scope = placeScope(project, place);
  const [shown, enabled] = [mended(element?.shown, scope), mended(element?.enabled, scope)];
  const written = [shown, enabled].filter((one) => one !== undefined);
  if (written.length === 0) return [];
  const change = { ...(shown === undefined ? {} : { shown }), ...(enabled === undefined ? {} : { enabled }) };
  return [{ ...changeElement(project, place, id, change), name: `Write ${written.join(", ")}` }];
}

/** Values with those that do not parse mended, and what was written for them. */
function mendedValues(values: Record<string, string> = {}, scope: Scope, areFacts: boolean): { values: Record<string, string>; written: string[] } {
  const written: string[] = [];
  const mend = ([name, source]: [string, string]): [string, string] => {
    const better = compile(source, scope).ok ? undefined : fromPlainWords(source, plainNames(scope), areFacts ? name : undefined);
    if (better === undefined || !compile(better, scope).ok) return [name, source];
    written.push(better);
    return [name, better];
  };
  return { values: Object.fromEntries(Object.entries(values).map(mend)), written };
}

/** What a condition was to say; undefined where there is none, it is right, or it is not clear. */
function mended(source: string | undefined, scope: Scope): string | undefined {
  if (source === undefined || compileCondition(source, scope).ok) return undefined;
  const better = fromPlainWords(source, plainNames(scope));
  return compileCondition(better, scope).ok ? better : undefined;
}
