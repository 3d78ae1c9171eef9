import type { Element, Project } from "../model/schema.ts";
import type { Json, Tree } from "../plan/data.ts";
import { expressionOf } from "../plan/expression.ts";
import { elementConditions } from "../plan/lower/legs.ts";
import type { Shown, State } from "../semantics/types.ts";
import { valuesFor } from "../semantics/values.ts";
import { appOf } from "./app.ts";

/**
 * Whether an element of a place is there on a screen, and whether it can be used; `fields` is what was typed. Ill-typed conditions
 * count as true.
 */
export function elementOn(
  project: Project,
  state: Pick<State, "facts" | "width">,
  screen: Shown,
  placeId: string,
  element: Element,
  fields?: Record<string, Json>,
): { shown: boolean; enabled: boolean } {
  const { shown, enabled, except } = elementConditions(project, placeId, element);
  const values = valuesFor(appOf(project), state, screen, { fields });
  const holds = (tree: Tree | undefined) => tree === undefined || expressionOf(tree).run(values) === true;
  return { shown: !except?.includes(screen.at) && holds(shown), enabled: holds(enabled) };
}
