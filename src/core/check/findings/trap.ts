import { lookup } from "../../model/lookup.ts";
import { currentScreen } from "../../semantics/state.ts";
import { wayHome } from "../fixes/home.ts";
import { moves } from "../reach/backwards.ts";
import { type Candidate, canReach, type Graph, ifClosable, shownAfter } from "../reach/graph.ts";
import { deadEnd } from "./deadEnd.ts";
import type { FindingKind } from "./kind.ts";
import { isBare } from "./parts.ts";

export const trap: FindingKind = {
  code: "trap",
  severity: "blocker",
  says: "ways lead on, but never to a hub",
  help: "People can go on from these screens, but never get back to a hub, however they go. Lead back to a hub from one of them, or mark the screen that people return to as a hub.",
  subjects: "the screens of the trap, in document order",
  inSearch: find,
  helps: { back: true, out: (state, { hubs }) => hubs.has(currentScreen(state).at), at: ({ screen }, { hubs }) => hubs.has(screen) },
  open: (project, screens) => screens.every((id) => isBare(project, id)),
  fixes: (project, [screen = ""]) => wayHome(project, screen),
};

/** Groups of screens from which ways lead on, but never to a hub. */
function find(graph: Graph): Candidate[] {
  const { nodes, leaves, stuck, perhapsFree, hubs } = graph;
  const home = canReach(graph, (node) => hubs.has(node.screen));
  const dead = new Set((deadEnd.inSearch?.(graph) ?? []).map((candidate) => candidate.subjects[0]));
  const lost = nodes.flatMap((node, i) => (!node.pending && !home.has(i) && leaves.withBack.has(i) && !dead.has(node.screen) ? [i] : []));
  const found = grouped(
    graph,
    lost.filter((i) => !stuck.has(i)),
  );
  const known = new Set(found.flatMap(({ subjects }) => subjects));
  const perhaps = lost.filter((i) => perhapsFree.has(i) && !known.has(nodes[i]?.screen ?? ""));
  return [...found, ...ifClosable(graph, grouped(graph, perhaps))];
}

/** States of traps by groups of screens that steps link. */
function grouped({ project, nodes, hubs, name }: Graph, trapped: readonly number[]): Candidate[] {
  const group = new Map<string, string>();
  const rootOf = (id: string): string => {
    const parent = group.get(id) ?? id;
    if (parent === id) return id;
    const first = rootOf(parent);
    group.set(id, first);
    return first;
  };
  for (const i of trapped) {
    const screen = nodes[i]?.screen ?? "";
    if (!group.has(screen)) group.set(screen, screen);
  }
  const inTrap = new Set(trapped.map((i) => nodes[i]));
  for (const i of trapped)
    for (const edge of moves(nodes[i] as (typeof nodes)[number], true))
      for (const to of shownAfter(nodes, edge)) if (inTrap.has(to)) group.set(rootOf(to.screen), rootOf(nodes[i]?.screen ?? ""));
  const order = [...lookup(project).screens.keys()];
  const groups = new Map<string, string[]>();
  for (const id of order.filter((screen) => group.has(screen))) groups.set(rootOf(id), [...(groups.get(rootOf(id)) ?? []), id]);
  return [...groups.values()].map((screens) => {
    const at = trapped.filter((i) => screens.includes(nodes[i]?.screen ?? "")).map((node) => ({ node }));
    const hub = [...hubs].map(name).join(" or ") || "a hub";
    return { subjects: screens, message: `From ${screens.map(name).join(", ")} ways lead on, but never back to ${hub}.`, at };
  });
}
