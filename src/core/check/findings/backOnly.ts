import { elsewhere } from "../counterexample/help.ts";
import { showLead, wayHome } from "../fixes/home.ts";
import type { Candidate, Graph } from "../reach/graph.ts";
import type { FindingKind } from "./kind.ts";
import { byScreen, isBare } from "./parts.ts";

export const backOnly: FindingKind = {
  code: "back-only",
  severity: "warning",
  says: "only the system's Back leads out",
  help: "Not every device shows a Back of its own. Show Back in the bar of the screen, or give it a way on.",
  subjects: "the screen",
  inSearch: find,
  helps: { back: false, out: elsewhere },
  open: (project, [screen = ""]) => isBare(project, screen),
  fixes: (project, [screen = ""]) => [showLead(project, screen), ...wayHome(project, screen)],
};

/** Screens, no hubs, with a state that only the system's Back leads on from. */
function find(graph: Graph): Candidate[] {
  const { nodes, leaves, stuck, name, hubs } = graph;
  const where = nodes.flatMap((node, i) =>
    !node.pending && leaves.withBack.has(i) && !leaves.withoutBack.has(i) && !stuck.has(i) && !hubs.has(node.screen) ? [i] : [],
  );
  return byScreen(graph, where, (screen) => `Only the system's Back leads out of ${name(screen)}: where a device shows no Back, people are stuck on it.`);
}
