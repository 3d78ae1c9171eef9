import { type Candidate, type Graph, note } from "../reach/graph.ts";
import type { FindingKind } from "./kind.ts";
import { allEdges } from "./parts.ts";

export const redirectLoop: FindingKind = {
  code: "redirect-loop",
  severity: "blocker",
  says: "arriving leads round without end",
  help: "Legs that fire on arriving lead from one screen to another and back, so that nothing ever comes to rest. Give one of them a condition that does not hold the second time.",
  subjects: "the first leg of the loop, in document order",
  inSearch: find,
  shows: (_, { result }) => result.outcome === "refused" && result.why === "redirect-loop",
};

/** Arrive legs that lead round without end; the subject is the loop's first leg in document order. */
function find(graph: Graph): Candidate[] {
  const { project, name } = graph;
  const found = new Map<string, Candidate>();
  for (const { edge, at } of allEdges(graph, ({ why }) => why === "redirect-loop")) {
    const round = new Set(edge.fired.slice(-16));
    const first = project.legs.find((leg) => round.has(leg.id));
    if (first) note(found, [first.id], at, () => `Arriving on ${name(first.from)} leads round without end: its arrive leg comes back to where it started.`);
  }
  return [...found.values()];
}
