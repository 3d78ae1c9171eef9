import { lookup } from "../../model/lookup.ts";
import { moves } from "../backwards.ts";
import { type Candidate, canReach, type Graph, note, shownAfter } from "../graph.ts";
import type { Trust } from "../induction.ts";

/** Screens with a state that nothing leads on from, Back included; states of stuck modals aside. */
export function deadEnd(graph: Graph): Candidate[] {
  const { nodes, leaves, stuck, name } = graph;
  const where = nodes.flatMap((node, i) => (node.pending || leaves.withBack.has(i) || stuck.has(i) ? [] : [i]));
  return byScreen(graph, where, (screen) => `Nobody gets out of ${name(screen)}: nothing on it leads anywhere, and neither does Back.`);
}

/** Screens, no hubs, with a state that only the system's Back leads on from. */
export function backOnly(graph: Graph): Candidate[] {
  const { nodes, leaves, stuck, name, hubs } = graph;
  const where = nodes.flatMap((node, i) =>
    !node.pending && leaves.withBack.has(i) && !leaves.withoutBack.has(i) && !stuck.has(i) && !hubs.has(node.screen) ? [i] : [],
  );
  return byScreen(graph, where, (screen) => `Only the system's Back leads out of ${name(screen)}: where a device shows no Back, people are stuck on it.`);
}

/** Modals that in some state are open and can never be got rid of. */
export function stuckModal({ project, nodes, stuck, perhapsStuck, name }: Graph): Candidate[] {
  const foundIn = (states: ReadonlyMap<number, string[]>) => {
    const found = new Map<string, Candidate>();
    nodes.forEach((_, node) => {
      for (const modal of states.get(node) ?? [])
        if (project.containers.some((c) => c.id === modal))
          note(found, [modal], { node }, () => `${name(modal)} cannot be closed: once it is open, nothing that people do closes it.`);
    });
    return [...found.values()];
  };
  return withPerhaps(foundIn(stuck), foundIn(perhapsStuck));
}

/** What is found, and besides what is found only where a walk shows it: of other subjects than any of that. */
function withPerhaps(found: Candidate[], perhaps: Candidate[]): Candidate[] {
  const known = new Set(found.flatMap(({ subjects }) => subjects));
  return [...found, ...perhaps.filter(({ subjects }) => !subjects.some((id) => known.has(id))).map((candidate) => ({ ...candidate, ifShown: true }))];
}

/** Groups of screens from which ways lead on, but never to a hub. */
export function trap(graph: Graph): Candidate[] {
  const perhaps = trapsTrusting(graph, "nothing");
  return perhaps.length === 0 ? [] : withPerhaps(trapsTrusting(graph, "by induction"), perhaps);
}

function trapsTrusting(graph: Graph, trust: Trust): Candidate[] {
  const { project, nodes, leaves, stuck, hubs, name } = graph;
  const home = canReach(graph, trust, (node) => hubs.has(node.screen));
  const dead = new Set(deadEnd(graph).map((candidate) => candidate.subjects[0]));
  const trapped = nodes.flatMap((node, i) => (!node.pending && !home.has(i) && leaves.withBack.has(i) && !stuck.has(i) && !dead.has(node.screen) ? [i] : []));
  const group = new Map<string, string>();
  const find = (id: string): string => {
    const parent = group.get(id) ?? id;
    return parent === id ? id : find(parent);
  };
  for (const i of trapped) {
    const screen = nodes[i]?.screen ?? "";
    if (!group.has(screen)) group.set(screen, screen);
  }
  const inTrap = new Set(trapped.map((i) => nodes[i]));
  for (const i of trapped)
    for (const edge of moves(nodes[i] as (typeof nodes)[number], true))
      for (const to of shownAfter(nodes, edge)) if (inTrap.has(to)) group.set(find(to.screen), find(nodes[i]?.screen ?? ""));
  const order = [...lookup(project).screens.keys()];
  const groups = new Map<string, string[]>();
  for (const id of order.filter((screen) => group.has(screen))) groups.set(find(id), [...(groups.get(find(id)) ?? []), id]);
  return [...groups.values()].map((screens) => {
    const at = trapped.filter((i) => screens.includes(nodes[i]?.screen ?? "")).map((node) => ({ node }));
    const hub = [...hubs].map(name).join(" or ") || "a hub";
    return { subjects: screens, message: `From ${screens.map(name).join(", ")} ways lead on, but never back to ${hub}.`, at };
  });
}

function byScreen({ nodes }: Graph, where: number[], message: (screen: string) => string): Candidate[] {
  const found = new Map<string, Candidate>();
  for (const node of where) {
    const screen = nodes[node]?.screen ?? "";
    note(found, [screen], { node }, () => message(screen));
  }
  return [...found.values()];
}
