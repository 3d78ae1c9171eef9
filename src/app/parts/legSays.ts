import { triggerLabel } from "../../core/model/describe.ts";
import { elementIdOf, elementOf, nameOf, targetOf } from "../../core/model/lookup.ts";
import type { Leg, Project } from "../../core/model/schema.ts";

/** A leg in words: where it starts, by what, and where it leads. */
export function legSays(project: Project, leg: Leg): string {
  const element = elementIdOf(leg);
  const by = element === undefined ? triggerLabel(leg) : (elementOf(project, leg.from, element)?.label ?? element);
  const to = targetOf(leg);
  return `${nameOf(project, leg.from)} · ${by}${to === undefined ? "" : ` → ${nameOf(project, to)}`}`;
}
