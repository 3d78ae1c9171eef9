import { once } from "../model/once.ts";
import type { Project } from "../model/schema.ts";
import type { Args } from "../plan/data.ts";
import { routeTo } from "../plan/lower/templates.ts";
import { planOf } from "../plan/planOf.ts";
import { plainApp } from "../semantics/app.ts";
import { rebuilt } from "../semantics/operations.ts";
import type { App, State } from "../semantics/types.ts";

/** A project as an app that can be launched and stepped: its plan, run as it is written. Made once for each project. */
export function appOf(project: Project): App {
  return once(project, makeApp);
}

function makeApp(project: Project): App {
  return plainApp(planOf(project));
}

/** The state after coming in to a place from outside, with its trail; undefined where there is no such place. */
export function comingInto(project: Project, state: State, placeId: string, args: Args = {}): State | undefined {
  const route = routeTo(project, placeId);
  return route && rebuilt(appOf(project), state, route, args);
}
