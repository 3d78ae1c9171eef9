import { compile, fits, type Scope, valueType } from "../../model/expression.ts";
import { isTaken } from "../../model/expressions.ts";
import { elementIdOf, elementOf, firstScreen, giveOf, lookup, mustBePassed, parametersOf, passOf, passTarget, rowTypeOf } from "../../model/lookup.ts";
import { onceFor } from "../../model/once.ts";
import type { Element, Entrance, Leg, Project } from "../../model/schema.ts";
import { compileCondition, entranceScope, legScope, placeScope } from "../../model/scope.ts";
import { patternVariables } from "../../model/template.ts";
import type { EntrancePlan, LegPlan, Tree } from "../data.ts";
import { linkLeg, type Leg as PlanLeg } from "../plan.ts";
import { programOf } from "./moves.ts";
import { routeTo, templateOf } from "./templates.ts";
import { treeOf } from "./trees.ts";

/** The legs of a project as data and ready to run, in document order. */
export interface LoweredLegs {
  readonly plans: ReadonlyArray<readonly [id: string, plan: LegPlan]>;
  readonly linked: ReadonlyMap<string, PlanLeg>;
}

/** Makes the legs of a project ready, each with those that come before it on the same trigger. One that an edit has not touched is kept. */
export function lowerLegs(project: Project): LoweredLegs {
  const plans: Array<[string, LegPlan]> = [];
  const linked = new Map<string, PlanLeg>();
  const before = new Map<string, string[]>();
  const within = [project.containers, project.facts, project.types, project.screens];
  for (const leg of project.legs) {
    const alone = onceFor(
      leg,
      within,
      () => whatLegRestsOn(project, leg),
      () => {
        const plan = legPlan(project, leg);
        return { key: triggerKey(leg), plan, linked: linkLeg(leg.id, plan, linked) };
      },
    );
    const earlier = before.get(alone.key);
    const plan = earlier ? { ...alone.plan, earlier: [...earlier] } : alone.plan;
    plans.push([leg.id, plan]);
    linked.set(leg.id, earlier ? linkLeg(leg.id, plan, linked) : alone.linked);
    if (earlier) earlier.push(leg.id);
    else before.set(alone.key, [leg.id]);
  }
  return { plans, linked };
}

/** All of a project that the plan of a leg is made of, beside the leg itself. */
function whatLegRestsOn(project: Project, leg: Leg): readonly unknown[] {
  const { containers, facts, types } = project;
  const { screens } = lookup(project);
  const rests: unknown[] = [containers, facts, types, screens.get(leg.from) ?? project.screens];
  const { move } = leg;
  if (giveOf(leg)) rests.push(project.screens);
  if (!move || !("to" in move)) return rests;
  rests.push(screens.get(move.to));
  if ("pass" in move) rests.push(firstScreen(project, passTarget(project, leg) ?? ""));
  if (move.kind === "open" && move.show !== undefined) rests.push(screens.get(move.show));
  return rests;
}

/** Legs with one key share source and trigger; `by` of depart legs is looked at when they are asked. */
export function triggerKey({ from, on }: Leg): string {
  switch (on.kind) {
    case "tap":
    case "submit":
    case "hold":
      return `${from} ${on.kind} ${on.element}${on.outcome === undefined ? "" : ` ${on.outcome}`}`;
    case "swipe":
      return `${from} ${on.kind} ${on.to}${on.element === undefined ? "" : ` ${on.element}`}`;
    case "after":
      return `${from} ${on.kind} ${on.ms}`;
    case "arrive":
    case "depart":
      return `${from} ${on.kind}`;
  }
}

function legPlan(project: Project, leg: Leg): LegPlan {
  const { from, on, move } = leg;
  const values = valuesOf(project, leg);
  const element = elementPlan(project, leg);
  const rows = rowTypeOf(project, leg);
  return {
    from,
    on: on.kind === "after" || on.kind === "arrive" || on.kind === "depart" ? on.kind : "user",
    ...(on.kind === "after" ? { ms: on.ms } : {}),
    ...(on.kind === "depart" && on.by ? { by: on.by } : {}),
    ...(values === "ill-typed" || element === "missing" ? { never: true } : {}),
    ...(values === "ill-typed" ? {} : values),
    ...(element === "missing" ? {} : element),
    ...(rows ? { rows: rows.id } : {}),
    ...(move ? { move: programOf(project, move) } : {}),
    ...(move?.kind === "menu" ? { keepsDrawer: true } : {}),
    ...(leg.resumes ? { resumes: true } : {}),
  };
}

/** What a leg asks, passes and sets; "ill-typed" where one of its expressions is. */
function valuesOf(project: Project, leg: Leg): Pick<LegPlan, "when" | "pass" | "give" | "set"> | "ill-typed" {
  const given = passOf(leg);
  const handed = giveOf(leg);
  if (leg.when === undefined && given === undefined && handed === undefined && leg.set === undefined) return {};
  const scope = legScope(project, leg);
  const when = leg.when === undefined ? undefined : conditionTree(leg.when, scope);
  const pass = given && passedTrees(project, passTarget(project, leg) ?? "", given, scope);
  const give = handed && Object.entries(handed).map(([name, source]) => ({ name, value: resultTree(project, name, source, scope) }));
  const set = leg.set && setTrees(project, leg.set, scope);
  if (when === "ill-typed" || pass?.illTyped || set?.includes(undefined) || give?.some(({ value }) => !value)) return "ill-typed";
  return {
    ...(when ? { when } : {}),
    ...(pass && pass.trees.length > 0 ? { pass: pass.trees } : {}),
    ...(give && give.length > 0 ? { give: give.flatMap(({ name, value }) => (value ? [{ name, value }] : [])) } : {}),
    ...(set && set.length > 0 ? { set: set.filter((one) => one !== undefined) } : {}),
  };
}

function conditionTree(source: string, scope: Scope): Tree | "ill-typed" {
  const compiled = compileCondition(source, scope);
  return compiled.ok ? treeOf(compiled.ast) : "ill-typed";
}

/** Arguments for the screen that a place shows first; those that it must have and has no default for are `required`. */
function passedTrees(project: Project, to: string, given: Record<string, string>, scope: Scope) {
  const params = new Map(parametersOf(project, to).map((param) => [param.name, param]));
  let illTyped = false;
  const trees: Array<{ name: string; value: Tree; required?: boolean }> = [];
  for (const [name, source] of Object.entries(given)) {
    const param = params.get(name);
    const compiled = compile(source, scope);
    if (!compiled.ok || (param && !fits(compiled.type, valueType(param.type)))) illTyped = true;
    else trees.push({ name, value: treeOf(compiled.ast), ...(param && mustBePassed(param) ? { required: true } : {}) });
  }
  return { illTyped, trees };
}

/** The tree of a value that is handed back by a name; undefined where it is ill-typed, or no screen that declares the name could take it. */
function resultTree(project: Project, name: string, source: string, scope: Scope): Tree | undefined {
  const compiled = compile(source, scope);
  return compiled.ok && isTaken(project, name, compiled.type) ? treeOf(compiled.ast) : undefined;
}

function setTrees(project: Project, given: Record<string, string>, scope: Scope): Array<{ fact: string; value: Tree } | undefined> {
  return Object.entries(given).map(([fact, source]) => {
    const value = factTree(project, fact, source, scope);
    return value && { fact, value };
  });
}

/** The tree of a value for a fact; undefined where the fact is unknown or the value can not be one of its own. */
export function factTree(project: Project, factId: string, source: string, scope: Scope): Tree | undefined {
  const fact = lookup(project).facts.get(factId);
  const compiled = compile(source, scope);
  if (!fact || !compiled.ok || compiled.type !== (fact.type === "boolean" ? "boolean" : "text")) return undefined;
  if (fact.type === "choice" && compiled.ast.op === "value" && !fact.values?.includes(String(compiled.ast.args))) return undefined;
  return treeOf(compiled.ast);
}

function elementPlan(project: Project, leg: Leg): Pick<LegPlan, "shown" | "enabled" | "except"> | "missing" {
  const id = elementIdOf(leg);
  if (id === undefined) return {};
  const element = elementOf(project, leg.from, id);
  return element ? elementConditions(project, leg.from, element) : "missing";
}

/** What an element asks; ill-typed conditions are left out, and so count as true. */
export function elementConditions(project: Project, placeId: string, element: Element): Pick<LegPlan, "shown" | "enabled" | "except"> {
  const except = element.except && element.except.length > 0 ? { except: element.except } : {};
  if (element.shown === undefined && element.enabled === undefined) return except;
  const scope = placeScope(project, placeId);
  const shown = element.shown === undefined ? "ill-typed" : conditionTree(element.shown, scope);
  const enabled = element.enabled === undefined ? "ill-typed" : conditionTree(element.enabled, scope);
  return { ...(shown === "ill-typed" ? {} : { shown }), ...(enabled === "ill-typed" ? {} : { enabled }), ...except };
}

/** A way in. */
export function entrancePlan(project: Project, entrance: Entrance): EntrancePlan {
  const { pattern, to, otherwise } = entrance;
  const scope = entranceScope(project, entrance);
  const when = entrance.when === undefined ? undefined : conditionTree(entrance.when, scope);
  const known = lookup(project).screens.has(to);
  const route = known ? routeTo(project, to) : undefined;
  const instead = otherwise === undefined ? undefined : routeTo(project, otherwise);
  const variables = pattern === undefined ? [] : patternVariables(pattern);
  const takes = parametersOf(project, to).filter(({ name }) => variables.includes(name));
  return {
    ...(pattern === undefined ? {} : { pattern }),
    to,
    ...(route ? { route } : {}),
    ...(when === "ill-typed" ? { never: true } : when ? { when } : {}),
    ...(entrance.pass ? { pass: passedTrees(project, to, entrance.pass, scope).trees.map(({ name, value }) => ({ name, value })) } : {}),
    ...(!entrance.pass && takes.length > 0 ? { takes: takes.map(({ name, type }) => ({ name, type })) } : {}),
    ...(otherwise === undefined ? {} : { otherwise: { to: otherwise, ...(instead ? { route: instead } : {}) } }),
    ...(entrance.resume ? { resume: true } : {}),
    ...(entrance.warm === "onTop" ? { onTop: true, make: templateOf(project, to) } : {}),
  };
}
