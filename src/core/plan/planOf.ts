import { keyField } from "../model/lookup.ts";
import { once } from "../model/once.ts";
import type { Project } from "../model/schema.ts";
import type { PlanData } from "./data.ts";
import { entrancePlan, legPlans } from "./lower/legs.ts";
import { containerPlans, lanePlans, screenPlans } from "./lower/places.ts";
import { templateOf } from "./lower/templates.ts";
import { linkPlan, type Plan } from "./plan.ts";

/**
 * The plan of a project, made once. Never throws on a project that was read: what is broken in it becomes operations that are
 * refused and legs that never fire.
 */
export function planOf(project: Project): Plan {
  return once(project, makePlan);
}

function makePlan(project: Project): Plan {
  return linkPlan(planData(project));
}

function planData(project: Project): PlanData {
  return {
    launch: templateOf(project, project.root),
    screens: screenPlans(project),
    containers: containerPlans(project),
    legs: legPlans(project),
    entrances: Object.fromEntries(project.entrances.map((entrance) => [entrance.id, entrancePlan(project, entrance)])),
    facts: Object.fromEntries(
      project.facts.map((fact) => [
        fact.id,
        {
          initial: fact.initial,
          ...(fact.type === "choice" ? { values: fact.values ?? [] } : {}),
          ...(fact.source === "outside" ? { outside: true } : {}),
          ...(fact.persists ? { persists: true } : {}),
        },
      ]),
    ),
    types: Object.fromEntries(project.types.map((type) => [type.id, { key: keyField(type), rows: type.samples }])),
    lanes: lanePlans(project),
  };
}

/** A short text that differs where two plans differ: 106 bits of cyrb53 (bryc, 2018, public domain) run twice, as hexadecimal digits. */
export function planHash(plan: Plan): string {
  return once(plan, hashOf);
}

function hashOf({ data }: Plan): string {
  const text = JSON.stringify(data);
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
