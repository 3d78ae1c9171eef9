import { planOf } from "../../plan/planOf.ts";
import { leadOf } from "../../semantics/bar.ts";
import { currentScreen, topBranch } from "../../semantics/state.ts";
import { showLead } from "../fixes/home.ts";
import { type Candidate, type Graph, note } from "../reach/graph.ts";
import type { FindingKind } from "./kind.ts";

export const idleLead: FindingKind = {
  code: "idle-lead",
  severity: "warning",
  says: "the bar shows a control that does nothing",
  help: "The screen shows an Up or a menu at the start of its bar, and in some state there is nothing that it could do.",
  subjects: "the screen",
  inSearch: find,
  holds: (project, state, [screen]) => currentScreen(state).at === screen && leadOf(planOf(project), state, topBranch(state)) === "idle",
  fixes: (project, [screen = ""]) => [showLead(project, screen)],
};

/** Screens whose bar shows an Up or a menu that does nothing. */
function find({ exploration, nodes, name }: Graph): Candidate[] {
  const found = new Map<string, Candidate>();
  nodes.forEach(({ state, screen, pending }, node) => {
    if (pending) return;
    if (leadOf(exploration.abstraction.app.plan, state, topBranch(state)) !== "idle") return;
    note(found, [screen], { node }, () => `The bar of ${name(screen)} shows a control that does nothing in some states.`);
  });
  return [...found.values()];
}
