import type { Json, PlanData } from "../../plan/data.ts";
import type { LooksData } from "./runtime/looks.ts";

/** A plan as the source of a constant, one line a place, a leg, a way in and a fact. */
export function planCode({ launch, ...tables }: PlanData): string {
  const lines = Object.entries(tables).flatMap(([name, table]) => {
    const entries = Object.entries(table as Record<string, unknown>);
    if (entries.length === 0) return [`  ${name}: {},`];
    return [`  ${name}: {`, ...entries.map(([id, value]) => `    ${property(id)}: ${literal(value)},`), "  },"];
  });
  return ["export const plan: PlanData = {", `  launch: ${literal(launch)},`, ...lines, "};"].join("\n");
}

/** The looks of a design as the source of a constant, one line an entry. */
export function looksCode({ titles, elements, motions }: LooksData): string {
  const table = (name: string, entries: object) => {
    const lines = Object.entries(entries).map(([id, value]) => `    ${property(id)}: ${literal(value)},`);
    return lines.length === 0 ? [`  ${name}: {},`] : [`  ${name}: {`, ...lines, "  },"];
  };
  return ["const looks: LooksData = {", ...table("titles", titles), ...table("elements", elements), ...table("motions", motions), "};"].join("\n");
}

/** A value as source; what is undefined is left out. */
export function literal(value: unknown): string {
  if (Array.isArray(value)) return `[${value.map(literal).join(", ")}]`;
  if (typeof value === "object" && value !== null) {
    const entries = Object.entries(value).filter(([, inner]) => inner !== undefined);
    return entries.length === 0 ? "{}" : `{ ${entries.map(([name, inner]) => `${property(name)}: ${literal(inner)}`).join(", ")} }`;
  }
  return text(value as Json);
}

/** JSON as source: no end of a script and no line that a reader takes for its own. */
function text(value: Json): string {
  return JSON.stringify(value).replaceAll("<", "\\u003c").replaceAll("\u2028", "\\u2028").replaceAll("\u2029", "\\u2029");
}

/** A name as a property: `__proto__` is none of its own unless computed. */
export function property(name: string): string {
  return name === "__proto__" ? '["__proto__"]' : /^[A-Za-z_$][\w$]*$/.test(name) ? name : text(name);
}
