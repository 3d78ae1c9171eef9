import { changeLeg, changeScreen } from "../../model/edits/change.ts";
import type { Edit } from "../../model/edits/edit.ts";
import { together } from "../../model/edits/kinds.ts";
import { lookup, ownersAround, treeOf, upTarget } from "../../model/lookup.ts";
import { withPass } from "../../model/moves.ts";
import type { Project } from "../../model/schema.ts";
import { currentScreen } from "../../semantics/state.ts";
import { type Candidate, type Graph, note, oncePlaces, shownAfter } from "../reach/graph.ts";
import type { Edge } from "../system/exploration.ts";
import type { FindingKind } from "./kind.ts";
import { quote } from "./parts.ts";

export const returnsToFinished: FindingKind = {
  code: "returns-to-finished",
  severity: "warning",
  says: "Back leads to what was to be gone through once",
  help: "A tour or a sign-in shows again when people go back from a hub. Clear the history when it is over: reset instead of push.",
  subjects: "the place that is gone through once",
  inSearch: find,
  shows: ({ subjects }, { result, project }) => result.outcome === "moved" && oncePlaces(project, currentScreen(result.state).at).includes(subjects[0] ?? ""),
  fixes: (project, [id = ""]) => [leaveForGood(project, id)],
};

/** Back, the lead, a tab or a drawer's member that leads from a hub to what was to be gone through once. */
function find(graph: Graph): Candidate[] {
  const { nodes, hubs, project, name } = graph;
  const found = new Map<string, Candidate>();
  const places = new Map(project.screens.map(({ id }) => [id, oncePlaces(project, id)]));
  if ([...places.values()].every((list) => list.length === 0)) return [];
  nodes.forEach((node, i) => {
    if (!hubs.has(node.screen)) return;
    const own = new Set(places.get(node.screen));
    for (const edge of node.edges) {
      if (edge.outcome !== "moved" || !["back", "lead", "tab", "pick"].includes(edge.event?.do ?? "")) continue;
      for (const to of shownAfter(nodes, edge)) {
        const once = places.get(to.screen)?.find((id) => !own.has(id));
        if (once !== undefined)
          note(
            found,
            [once],
            { node: i, edge },
            () => `${wayText(edge)} leads from ${name(node.screen)} back to ${name(once)}, which was to be gone through once.`,
          );
      }
    }
  });
  return [...found.values()];
}

function wayText(edge: Edge): string {
  switch (edge.event?.do) {
    case "lead":
      return "The control at the start of the bar";
    case "tab":
      return "A tab";
    case "pick":
      return "A drawer's member";
    default:
      return "Back";
  }
}

/**
 * Leads away from what is gone through once for good: the history is replaced instead of lain on, and a leg that goes over to
 * another tab or stack takes what it leaves off its own. Where that is done the tabs are covered meanwhile, so that nobody goes
 * over by hand and leaves it standing there.
 */
function leaveForGood(project: Project, onceId: string): Edit {
  const inside = new Set(treeOf(project, onceId));
  const upwards = project.screens.filter((screen) => !inside.has(screen.id) && inside.has(upTarget(project, screen.id) ?? ""));
  const tidy = lookup(project).screens.has(onceId) ? "source" : "stack";
  const away = project.legs.flatMap((leg): Edit[] => {
    const { move } = leg;
    if (!inside.has(leg.from) || !move || !("to" in move) || inside.has(move.to)) return [];
    if (move.kind === "select" || (move.kind === "push" && move.in !== undefined && move.in !== "beneath"))
      return [changeLeg(project, leg, { move: { ...move, tidy: move.tidy ?? tidy } })];
    return move.kind === "push" ? [changeLeg(project, leg, { move: withPass({ kind: "reset", to: move.to }, move.pass) })] : [];
  });
  const goesOver = project.legs.some((leg) => inside.has(leg.from) && leg.move?.kind === "select" && !inside.has(leg.move.to));
  const tabbed = project.screens.filter((s) => goesOver && inside.has(s.id) && !s.coversTabs && ownersAround(project, s.id).some((c) => c.kind === "tabs"));
  return together(`Let nothing lead back to ${quote(project, onceId)}`, [
    ...away,
    ...tabbed.map((screen) => changeScreen(project, screen.id, { coversTabs: true })),
    ...upwards.map((screen) => changeScreen(project, screen.id, { up: "none" })),
  ]);
}
