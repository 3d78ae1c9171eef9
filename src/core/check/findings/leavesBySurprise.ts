import { type Candidate, type Graph, note, oncePlaces } from "../reach/graph.ts";
import { startLists } from "../system/exploration.ts";
import type { FindingKind } from "./kind.ts";

export const leavesBySurprise: FindingKind = {
  code: "leaves-by-surprise",
  severity: "warning",
  says: "Back leaves the app from the middle",
  help: "People expect Back to lead to where they were, and the app closes instead. Push instead of replacing, or select the first tab on Back.",
  subjects: "the screen",
  inSearch: find,
  shows: (_, { result }) => result.outcome === "left",
};

/** Screens that Back leaves the app from, though they are no hub, no launch shows them, and they are not gone through once. */
function find({ project, nodes, hubs, name }: Graph): Candidate[] {
  const launched = new Set<string>();
  for (const node of nodes) if (node.launched) launched.add(node.screen);
  for (const starts of startLists(nodes).keys()) for (const edge of starts) if (edge.event?.do === "launch") launched.add(nodes[edge.to]?.screen ?? "");
  const found = new Map<string, Candidate>();
  nodes.forEach(({ screen, edges }, node) => {
    const edge = edges.find((e) => e.way === "back" && e.outcome === "left");
    if (edge && !hubs.has(screen) && !launched.has(screen) && oncePlaces(project, screen).length === 0)
      note(found, [screen], { node, edge }, () => `Back leaves the app from ${name(screen)}, where people expect to get back to where they were.`);
  });
  return [...found.values()];
}
