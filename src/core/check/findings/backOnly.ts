import { appOf } from "../../insight/app.ts";
import { stateLine } from "../../semantics/line.ts";
import { step } from "../../semantics/step.ts";
import { elsewhere } from "../counterexample/wayOut.ts";
import { showLead, wayHome } from "../fixes/home.ts";
import { type Candidate, type Graph, ifClosable } from "../reach/graph.ts";
import { isImposed } from "../system/chooser.ts";
import type { Edge } from "../system/exploration.ts";
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
  surely: (project, state) => {
    const app = appOf(project);
    const { outcome, state: next } = step(app, state, { do: "back" });
    return outcome === "moved" && stateLine(app.plan, next) !== stateLine(app.plan, state);
  },
  open: (project, [screen = ""]) => isBare(project, screen),
  fixes: (project, [screen = ""]) => [showLead(project, screen), ...wayHome(project, screen)],
};

/**
 * Screens, no hubs, with a state that only the system's Back leads on from. Where it rests on what is not followed whether Back does, that is not
 * sure: it may be a dead end, which another state of the screen may be, too.
 */
function find(graph: Graph): Candidate[] {
  const { nodes, leaves, stuck, perhapsFree, name, hubs } = graph;
  const all = nodes.flatMap((node, i) => (!node.pending && !leaves.withoutBack.has(i) && !hubs.has(node.screen) ? [i] : []));
  const stay = all.filter((i) => !stuck.has(i));
  const message = (screen: string) => `Only the system's Back leads out of ${name(screen)}: where a device shows no Back, people are stuck on it.`;
  const found = byScreen(
    graph,
    stay.filter((i) => leaves.withBack.has(i)),
    message,
  );
  const known = new Set(found.flatMap(({ subjects }) => subjects));
  const free = all.filter((i) => perhapsFree.has(i) && leaves.withBack.has(i) && !known.has(nodes[i]?.screen ?? ""));
  const perhaps = stay.filter((i) => !leaves.withBack.has(i) && !known.has(nodes[i]?.screen ?? "") && nodes[i]?.edges.some(mayLeadBack));
  return [
    ...found,
    ...byScreen(graph, perhaps, message).map((candidate) => ({ ...candidate, uncertain: true })),
    ...ifClosable(graph, byScreen(graph, free, message)),
  ];
}

const mayLeadBack = ({ way, outcome, choices }: Edge) => way === "back" && outcome === "moved" && choices.some((choice) => isImposed(choice));
