import { branchesInReach } from "../../engine/reach.ts";
import { currentScreen } from "../../engine/state.ts";
import { nameOf, treeOf } from "../../model/lookup.ts";
import type { Project } from "../../model/schema.ts";
import type { Edge, Exploration } from "../exploration.ts";
import { type Candidate, type Graph, note } from "../graph.ts";
import { shortestWays } from "../ways.ts";

/** Taps from launch beyond which a screen counts as far. */
export const FAR = 5;

/** Screens that are never shown and modals that are never opened; screens of such a modal are not listed. */
export function unreachable({ project, exploration, nodes, name }: Graph): Candidate[] {
  if (!exploration.complete) return [];
  const met = new Set<string>();
  for (const node of nodes) {
    for (const branch of branchesInReach(exploration.abstract.project, node.state)) met.add(currentScreen(node.state, branch).at);
    for (const layer of node.state.layers) met.add(layer.at);
    for (const edge of node.edges) if (edge.why !== "redirect-loop") for (const passed of edge.passed) met.add(passed);
  }
  for (const edge of exploration.launches) if (edge.why !== "redirect-loop") for (const passed of edge.passed) met.add(passed);
  const modals = project.containers.filter((c) => c.kind === "modal" && !met.has(c.id));
  const within = new Set(modals.flatMap((modal) => treeOf(project, modal.id)));
  return [
    ...modals.map((modal) => ({ subjects: [modal.id], message: `${name(modal.id)} never opens: no leg and no way in leads to it.` })),
    ...project.screens
      .filter((screen) => !met.has(screen.id) && !within.has(screen.id))
      .map((screen) => ({ subjects: [screen.id], message: `Nobody ever gets to ${name(screen.id)}: no walk from launch or a way in shows it.` })),
  ];
}

/** Screens that take more than the limit of taps to reach from launch, by the shortest way. */
export function far(exploration: Exploration): Candidate[] {
  const { nodes } = exploration;
  const project = exploration.abstract.original;
  const name = (id: string) => `"${nameOf(project, id)}"`;
  const taps = tapsFromLaunch(exploration);
  const best = new Map<string, number>();
  nodes.forEach((node, i) => {
    const known = best.get(node.screen);
    if (taps[i] !== undefined && (known === undefined || (taps[i] ?? 0) < (taps[known] ?? 0))) best.set(node.screen, i);
  });
  return project.screens.flatMap((screen) => {
    const node = best.get(screen.id);
    const count = node === undefined ? undefined : taps[node];
    return node === undefined || count === undefined || count <= FAR
      ? []
      : [{ subjects: [screen.id], message: `${name(screen.id)} is ${count} taps from launch by the shortest way.`, at: [{ node }] }];
  });
}

/** By state the fewest taps from a launch; waiting, Back and outside facts cost none. Undefined where only an entrance leads there. */
export function tapsFromLaunch({ nodes, abstract }: Exploration): Array<number | undefined> {
  const taps: Array<number | undefined> = nodes.map(() => undefined);
  const roots = nodes.flatMap((node, i) => (node.launched ? [i] : []));
  for (const { at, cost } of shortestWays(nodes, roots, tapsOf(abstract.original))) taps[at] = cost;
  return taps;
}

/** What a step costs in taps: waiting, Back and outside facts nothing, and entrances are no way. */
export function tapsOf(project: Project): (edge: Edge) => number | undefined {
  const after = new Set(project.legs.filter((leg) => leg.on.kind === "after").map((leg) => leg.id));
  return (edge) => {
    if (edge.way === "anew" && edge.event?.do !== "launch") return undefined;
    return edge.way !== "out" || (edge.event?.do === "leg" && after.has(edge.event.leg)) ? 0 : 1;
  };
}

/** Screens that Back leaves the app from, though they are no hub, no launch shows them, and they are not gone through once. */
export function leavesBySurprise(graph: Graph, once: (screen: string) => boolean): Candidate[] {
  const { nodes, hubs, name } = graph;
  const launched = new Set<string>();
  for (const node of nodes) {
    if (!node.from) launched.add(node.screen);
    for (const edge of node.edges) if (edge.event?.do === "launch") launched.add(nodes[edge.to]?.screen ?? "");
  }
  const found = new Map<string, Candidate>();
  nodes.forEach(({ screen, edges }, node) => {
    const edge = edges.find((e) => e.way === "back" && e.outcome === "left");
    if (edge && !hubs.has(screen) && !launched.has(screen) && !once(screen))
      note(found, [screen], { node, edge }, () => `Back leaves the app from ${name(screen)}, where people expect to get back to where they were.`);
  });
  return [...found.values()];
}
