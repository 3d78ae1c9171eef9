import { keyField, mustBePassed } from "../model/lookup.ts";
import { once } from "../model/once.ts";
import type { Project, Screen } from "../model/schema.ts";
import { patternVariables } from "../model/template.ts";
import type { EntrancePlan, FactPlan, PlanData, TypePlan } from "./data.ts";
import { entrancePlan, lowerLegs } from "./lower/legs.ts";
import { containerPlans, lanePlans, screenPlans } from "./lower/places.ts";
import { templateOf } from "./lower/templates.ts";
import { linkEntrance, linkPlan, type Plan } from "./plan.ts";

/**
 * The plan of a project, made once. Never throws on a project that was read: what is broken in it becomes operations that are
 * refused and legs that never fire.
 */
export function planOf(project: Project): Plan {
  return once(project, makePlan);
}

function makePlan(project: Project): Plan {
  const { legs, entrances, ...tables } = once(project, lower);
  return linkPlan({
    ...tables,
    legs: legs.linked,
    entrances: new Map([...entrances].map(([id, entrance]) => [id, linkEntrance(id, entrance)])),
  });
}

/**
 * The plan of a project as plain data, for code that carries it. A screen's own address is a way in of its own there, after all that
 * are declared: every address that is shown can be opened.
 */
export function planData(project: Project): PlanData {
  const { launch, legs, ...tables } = once(project, lower);
  const paths = project.screens.flatMap(({ id, path, params }) =>
    path !== undefined && bindsAll(path, params) ? [[`~${id}`, pathPlan(project, id, path)] as const] : [],
  );
  return {
    launch,
    screens: Object.fromEntries(tables.screens),
    containers: Object.fromEntries(tables.containers),
    legs: Object.fromEntries(legs.plans),
    entrances: Object.fromEntries([...tables.entrances, ...paths]),
    facts: Object.fromEntries(tables.facts),
    types: Object.fromEntries(tables.types),
    lanes: Object.fromEntries(tables.lanes),
  };
}

/** Whether an address says all that a screen cannot do without; one that does not opens nothing, and so is never shown. */
function bindsAll(path: string, params: Screen["params"]): boolean {
  const bound = patternVariables(path);
  return params.every((param) => !mustBePassed(param) || bound.includes(param.name));
}

/** A screen's own address as a way in to it. */
function pathPlan(project: Project, to: string, pattern: string): EntrancePlan {
  return entrancePlan(project, { id: `~${to}`, name: to, kind: "link", pattern, to, warm: "rebuild" });
}

/** All parts of a plan, by id. */
function lower(project: Project) {
  return {
    launch: templateOf(project, project.root),
    screens: screenPlans(project),
    containers: containerPlans(project),
    legs: lowerLegs(project),
    entrances: new Map(project.entrances.map((entrance) => [entrance.id, entrancePlan(project, entrance)])),
    facts: factPlans(project),
    types: new Map<string, TypePlan>(project.types.map((type) => [type.id, { key: keyField(type), rows: type.samples }])),
    lanes: lanePlans(project),
  };
}

function factPlans({ facts }: Project): Map<string, FactPlan> {
  return new Map(
    facts.map(({ id, type, initial, values, source, persists }): [string, FactPlan] => [
      id,
      {
        initial,
        ...(type === "choice" ? { values: values ?? [] } : {}),
        ...(source === "outside" ? { outside: true } : {}),
        ...(persists ? { persists } : {}),
      },
    ]),
  );
}

/** A short text that differs where two plans differ: 106 bits of cyrb53 (bryc, 2018, public domain) run twice, as hexadecimal digits. */
export function planHash(project: Project): string {
  return once(project, hashOf);
}

function hashOf(project: Project): string {
  const text = JSON.stringify(planData(project));
  return `${hash53(text, 0)}${hash53(text, 1)}`;
}

function hash53(text: string, seed: number): string {
  let a = 0xdeadbeef ^ seed;
  let b = 0x41c6ce57 ^ seed;
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    a = Math.imul(a ^ code, 2654435761);
    b = Math.imul(b ^ code, 1597334677);
  }
  a = Math.imul(a ^ (a >>> 16), 2246822507) ^ Math.imul(b ^ (b >>> 13), 3266489909);
  b = Math.imul(b ^ (b >>> 16), 2246822507) ^ Math.imul(a ^ (a >>> 13), 3266489909);
  return (4294967296 * (2097151 & b) + (a >>> 0)).toString(16).padStart(14, "0");
}
