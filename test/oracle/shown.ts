/** Whether the walk of a finding shows what the finding says: read off the engine's own log and states, apart from the checker. */
import type { Finding } from "../../src/core/check/finding.ts";
import { appOf } from "../../src/core/insight/app.ts";
import { elementIdOf } from "../../src/core/model/lookup.ts";
import type { Project } from "../../src/core/model/schema.ts";
import { planOf } from "../../src/core/plan/planOf.ts";
import { leadOf } from "../../src/core/semantics/bar.ts";
import { stateLine } from "../../src/core/semantics/line.ts";
import { currentScreen } from "../../src/core/semantics/state.ts";
import { launch, step } from "../../src/core/semantics/step.ts";
import type { Outcome, State } from "../../src/core/semantics/types.ts";
import { valuesFor } from "../../src/core/semantics/values.ts";
import { meets } from "./bounded.ts";
import { hubsOf } from "./oracle.ts";

/** States that a way out is looked for in. */
const MOST = 600;

export function showsWhatItSays(project: Project, { code, subjects, walk = [] }: Finding): boolean {
  const [first = "", second = ""] = subjects;
  let last: Outcome | undefined;
  let state = launch(appOf(project));
  for (const event of walk) {
    last = step(appOf(project), state, event);
    if (last.outcome === "ignored" && event !== walk.at(-1)) return false;
    state = last.state;
  }
  const screen = currentScreen(state).at;
  const line = stateLine(planOf(project), state);
  const leadsTo = (out: (to: State) => boolean) => meets(project, state, out, MOST);
  switch (code) {
    case "dead-end":
      return screen === first && !leadsTo((to) => stateLine(planOf(project), to) !== line);
    case "back-only":
      return screen === first && leadsTo((to) => stateLine(planOf(project), to) !== line);
    case "trap":
      return subjects.includes(screen) && !leadsTo((to) => hubsOf(project, currentScreen(launch(appOf(project))).at).has(currentScreen(to).at));
    case "stuck-modal":
      return state.layers.some(({ at }) => at === first) && !leadsTo((to) => to.layers.every(({ at }) => at !== first));
    case "refused-move":
      return last?.log.refused.some(({ leg }) => leg === first) === true;
    case "piled-copies":
      return last?.log.copied.some(({ leg, place }) => leg === first && place === second) === true;
    case "leaves-by-surprise":
      return last?.outcome === "left" && screen === first;
    case "redirect-loop":
      return last?.outcome === "refused" && last.why === "redirect-loop";
    case "lost-result":
      return last?.log.handed.some(({ leg, names, to }) => leg === first && names.includes(second) && !declared(project, to).includes(second)) === true;
    case "idle-leg":
      return last?.outcome === "ignored" && last.log.fired.includes(first);
    case "idle-lead":
      return screen === first && leadOf(planOf(project), state, state.layers.length) === "idle";
    case "silent":
      return screen === first && answersNothing(project, state, second);
    default:
      return true;
  }
}

function declared(project: Project, screen: string): string[] {
  return project.screens.find(({ id }) => id === screen)?.params.map(({ name }) => name) ?? [];
}

function answersNothing(project: Project, state: State, element: string): boolean {
  const screen = currentScreen(state);
  const legs = project.legs.filter((leg) => leg.from === screen.at && elementIdOf(leg) === element).flatMap(({ id }) => planOf(project).legs.get(id) ?? []);
  if (legs.some(({ id }) => /\b(item|field)\./.test(project.legs.find((leg) => leg.id === id)?.when ?? ""))) return true;
  return legs.every(({ never, when }) => never || !when || when.run(valuesFor(appOf(project), state, screen)) !== true);
}
