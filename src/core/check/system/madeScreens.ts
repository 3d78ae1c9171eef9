/** Which screens are made by what stands in a plan, and so are handed its arguments. */

import type { Program, Route, Template } from "../../plan/data.ts";
import type { Plan } from "../../plan/plan.ts";

/** The screens that a program may hand its arguments to. */
export function inProgram(plan: Plan, program: Program): string[] {
  return program.flatMap((operation): string[] => {
    switch (operation.op) {
      case "stay":
      case "push":
      case "replace":
      case "open":
        return inTemplate(operation.make);
      case "fill":
        return operation.make.flatMap(inTemplate);
      case "rebuild":
        return inRoute(operation.route);
      case "stack":
      case "bring":
        return inProgram(plan, operation.otherwise ?? []);
      case "pop":
        // What a container shows by then may be any screen.
        return operation.pass ? (plan.screens.has(operation.to) ? [operation.to] : [...plan.screens.keys()]) : [];
      default:
        return [];
    }
  });
}

/** The screens along a route. */
export function inRoute(route: Route): string[] {
  return inTemplate("base" in route ? route.base : route.shows);
}

function inTemplate(template: Template): string[] {
  if (typeof template === "string") return [template];
  return "stack" in template ? template.items.flatMap(inTemplate) : inTemplate(template.shows);
}
