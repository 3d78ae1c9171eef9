import type { Project } from "../../model/schema.ts";
import type { Json } from "../../plan/data.ts";
import { chunks } from "../code/plan.ts";
import { planLines } from "../code/planLines.ts";

/** Texts of one function: the virtual machine takes functions of limited size only. */
const A_FUNCTION = 1000;

/** The plan of a project by the name given, as JSON that the runtime reads. */
export function kotlinPlan(project: Project, name: string): string {
  const parts = chunks(planLines(project), A_FUNCTION);
  return [
    ...parts.map((part, i) => `private fun ${name}Text${i}() = listOf(\n${part.map((line) => `    ${kotlin(line)}`).join(",\n")}\n)`),
    `val ${name}: Data = readPlan(${parts.map((_, i) => `${name}Text${i}()`).join(" + ")})`,
  ].join("\n");
}

/** JSON as Kotlin: numbers are Double, `$` begins nothing. */
export function kotlin(value: Json): string {
  switch (typeof value) {
    case "string":
      return `"${JSON.stringify(value).slice(1, -1).replaceAll("$", "\\$").replaceAll("\\f", "\\u000c")}"`;
    case "number":
      return Number.isInteger(value) && Math.abs(value) < 1e15 ? `${value}.0` : String(value);
    case "boolean":
      return String(value);
    default:
      if (value === null) return "null";
      if (Array.isArray(value)) return `listOf<Any?>(${value.map(kotlin).join(", ")})`;
      return `mapOf<String, Any?>(${Object.entries(value)
        .map(([name, inner]) => `${kotlin(name)} to ${kotlin(inner)}`)
        .join(", ")})`;
  }
}
