import { elsewhere } from "../counterexample/wayOut.ts";
import { wayHome } from "../fixes/home.ts";
import type { Candidate, Graph } from "../reach/graph.ts";
import type { FindingKind } from "./kind.ts";
import { byScreen, isBare } from "./parts.ts";

export const deadEnd: FindingKind = {
  code: "dead-end",
  severity: "blocker",
  says: "nothing leads on from a screen, and neither does Back",
  help: "Somebody who gets here cannot go anywhere: no control, no timer and no Back changes what is shown. Give the screen a way on, or let Back work on it.",
  subjects: "the screen",
  inSearch: find,
  helps: { back: true, out: elsewhere },
  open: (project, [screen = ""]) => isBare(project, screen),
  fixes: (project, [screen = ""]) => wayHome(project, screen),
};

/** Screens with a state that nothing leads on from, Back included; states of stuck modals aside. */
function find(graph: Graph): Candidate[] {
  const { nodes, leaves, stuck, name } = graph;
  const where = nodes.flatMap((node, i) => (node.pending || leaves.withBack.has(i) || stuck.has(i) ? [] : [i]));
  return byScreen(graph, where, (screen) => `Nobody gets out of ${name(screen)}: nothing on it leads anywhere, and neither does Back.`);
}
