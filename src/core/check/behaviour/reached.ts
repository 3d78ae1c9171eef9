import { nameOf, treeOf } from "../../model/lookup.ts";
import type { Project } from "../../model/schema.ts";
import { branchesInReach } from "../../semantics/reach.ts";
import { currentScreen } from "../../semantics/state.ts";
import { Beams, beamsOf } from "../beams.ts";
import type { Edge, Exploration } from "../system/exploration.ts";
import { type Candidate, type Graph, note } from "../graph.ts";
import { type Reached, shortestWays } from "../system/ways.ts";

/** Taps from launch beyond which a screen counts as far. */
export const FAR = 5;

/** Screens that are never shown and modals that are never opened; screens of such a modal are not listed. */
export function unreachable({ project, exploration, nodes, name }: Graph): Candidate[] {
  if (!exploration.complete) return [];
  const met = new Set<string>();
  for (const node of nodes) {
    met.add(node.screen);
    if (node.state.layers.length > 0) for (const branch of branchesInReach(exploration.abstraction.app, node.state)) met.add(currentScreen(node.state, branch).at);
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

/** Screens that take more than the limit of taps to reach from launch, by the shortest way, which is the walk. */
export function far(exploration: Exploration, ways: TapWays): Candidate[] {
  const { nodes } = exploration;
  const project = exploration.abstraction.original;
  const name = (id: string) => `"${nameOf(project, id)}"`;
  const best = new Map<string, Reached>();
  for (const reached of ways.reached.values()) {
    const screen = nodes[reached.at]?.screen ?? "";
    const known = best.get(screen);
    if (!known || reached.cost < known.cost) best.set(screen, reached);
  }
  return project.screens.flatMap((screen) => {
    const reached = best.get(screen.id);
    const count = reached ? tapsIn(reached) : 0;
    if (!reached || count <= FAR) return [];
    const walk = ways.beams.walk(reached.at) ?? beamsOf(exploration).walk(reached.at);
    return [{ subjects: [screen.id], message: `${name(screen.id)} is ${count} taps from launch by the shortest way.`, at: [{ node: reached.at }], walk }];
  });
}

/** The ways of the fewest taps, and of those of the fewest events, to all states that launches lead to. */
export interface TapWays {
  reached: ReadonlyMap<number, Reached>;
  beams: Beams;
}

/** What a tap counts, an event counting one: no way has as many events. */
const TAP = 10_000;

/** The taps of a way. */
export function tapsIn({ cost }: Reached): number {
  return Math.floor(cost / TAP);
}

export function tapWays(exploration: Exploration): TapWays {
  const { nodes, abstraction } = exploration;
  const roots = nodes.flatMap((node, i) => (node.launched ? [i] : []));
  const reached = new Map<number, Reached>();
  for (const way of shortestWays(nodes, roots, tapsOf(abstraction.original))) reached.set(way.at, way);
  return { reached, beams: new Beams(exploration, (at) => reached.get(at)?.by) };
}

/** What a step costs: waiting, Back and outside facts no tap, and entrances are no way. */
function tapsOf(project: Project): (edge: Edge) => number | undefined {
  const after = new Set(project.legs.filter((leg) => leg.on.kind === "after").map((leg) => leg.id));
  return (edge) => {
    if (edge.way === "anew" && edge.event?.do !== "launch") return undefined;
    return edge.way !== "out" || (edge.event?.do === "leg" && after.has(edge.event.leg)) ? 1 : TAP + 1;
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
