import type { Edit } from "../../model/edits/edit.ts";
import { lookup, mustBePassed, nameOf, treeOf } from "../../model/lookup.ts";
import type { Leg, Project } from "../../model/schema.ts";
import { branchesInReach } from "../../semantics/reach.ts";
import { currentScreen } from "../../semantics/state.ts";
import { sampleLiteral } from "../fixes/arguments.ts";
import { button, homeOf } from "../fixes/home.ts";
import type { Candidate, Graph } from "../reach/graph.ts";
import { type Edge, startLists } from "../system/exploration.ts";
import type { FindingKind } from "./kind.ts";
import { handOver, whyLacking } from "./neverGiven.ts";
import { quote } from "./parts.ts";

export const unreachable: FindingKind = {
  code: "unreachable",
  severity: "blocker",
  says: "a screen is never shown, or a modal never opened",
  help: "No walk from a launch or a way in ever shows it. Lead there from somewhere, or take it out.",
  subjects: "the screen or modal",
  inSearch: find,
  open: (project, [id = ""]) => lookup(project).screens.has(id) && isNamedNowhere(project, id),
  fixes: (project, [id = ""]) => (lookup(project).places.has(id) ? [...handOver(project, id), wayTo(project, id)] : []),
};

/** Screens that are never shown and modals that are never opened; screens of such a modal are not listed. */
function find({ project, exploration, nodes, name }: Graph): Candidate[] {
  if (!exploration.complete) return [];
  const met = new Set<string>();
  const pass = (edges: readonly Edge[]) => {
    for (const edge of edges) if (edge.why !== "redirect-loop") for (const passed of edge.passed) met.add(passed);
  };
  for (const node of nodes) {
    met.add(node.screen);
    if (node.state.layers.length > 0)
      for (const branch of branchesInReach(exploration.abstraction.app, node.state)) met.add(currentScreen(node.state, branch).at);
    for (const layer of node.state.layers) met.add(layer.at);
    pass(node.edges);
  }
  for (const starts of startLists(nodes).keys()) pass(starts);
  pass(exploration.launches);
  const modals = project.containers.filter((c) => c.kind === "modal" && !met.has(c.id));
  const within = new Set(modals.flatMap((modal) => treeOf(project, modal.id)));
  return [
    ...modals.map((modal) => ({
      subjects: [modal.id],
      message: `${name(modal.id)} never opens: no leg and no way in leads to it.${whyLacking(project, modal.id)}`,
    })),
    ...project.screens
      .filter((screen) => !met.has(screen.id) && !within.has(screen.id))
      .map((screen) => ({
        subjects: [screen.id],
        message: `Nobody ever gets to ${name(screen.id)}: no walk from launch or a way in shows it.${whyLacking(project, screen.id)}`,
      })),
  ];
}

/** Whether no leg, way in or start names a place. */
function isNamedNowhere(project: Project, id: string): boolean {
  const legs = project.legs.some(({ move }) => move && (("to" in move && move.to === id) || (move.kind === "open" && move.show === id)));
  const others = project.entrances.some(({ to, otherwise }) => to === id || otherwise === id) || project.containers.some(({ start }) => start === id);
  return !legs && !others && project.root !== id;
}

/** A button on a hub that leads to a place that nobody gets to. */
function wayTo(project: Project, placeId: string): Edit {
  const from = homeOf(project, placeId) ?? project.screens[0]?.id ?? "";
  const { owners, containers, screens } = lookup(project);
  const isModal = containers.get(placeId)?.kind === "modal";
  const owner = owners.get(placeId);
  const inLane = owner?.kind === "tabs" || owner?.kind === "drawer";
  const pass = Object.fromEntries((screens.get(placeId)?.params ?? []).filter(mustBePassed).map((p) => [p.name, sampleLiteral(p.type)]));
  const passing = Object.keys(pass).length > 0 ? { pass } : {};
  const stacked = owner?.kind === "stack" && owners.get(from) === owner;
  const move: NonNullable<Leg["move"]> = isModal
    ? { kind: "open", to: placeId }
    : inLane
      ? { kind: "select", to: placeId }
      : stacked
        ? { kind: "push", to: placeId, ...passing }
        : { kind: "replace", to: placeId, ...passing };
  const label = nameOf(project, placeId);
  return button(project, from, label, move, `Add a button "${label}" to ${quote(project, from)} that leads there`);
}
