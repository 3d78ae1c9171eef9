import { simpleTerms } from "../../../core/model/ruleWords.ts";
import type { Project } from "../../../core/model/schema.ts";

/** What is ticked of facts and the width: by id, or "width", the value. */
export type Ticks = Readonly<Record<string, string | boolean>>;

/** A condition that says all that is ticked. */
export function conditionOf(ticks: Ticks): string {
  return Object.entries(ticks)
    .map(([id, value]) => {
      if (id === "width") return `width == ${JSON.stringify(value)}`;
      return typeof value === "boolean" ? `${value ? "" : "!"}fact.${id}` : `fact.${id} == ${JSON.stringify(value)}`;
    })
    .join(" && ");
}

/** What is ticked in a condition; undefined where it says something that ticks cannot. */
export function ticksOf(project: Project, condition: string): Ticks | undefined {
  if (condition.trim() === "") return {};
  const terms = simpleTerms(project, condition);
  return terms && Object.fromEntries(terms.map((term) => ("width" in term ? ["width", term.width] : [term.fact.id, term.value])));
}
