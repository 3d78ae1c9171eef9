import { firstScreen, lookup, nameOf, ownersAround } from "../model/lookup.ts";
import type { Project } from "../model/schema.ts";
import type { Edge, Exploration, Explored } from "./explore.ts";

/** A finding before its walk has been looked for: where in the search it shows. */
export interface Candidate {
  subjects: string[];
  message: string;
  /** The state in which it shows and, if it takes one more step to show, that step. Undefined: no walk can show it. */
  at?: { node: number; edge?: Edge };
}

/** A search with what several findings ask of it. */
export interface Graph {
  project: Project;
  exploration: Exploration;
  /** All states of the search, portals among them. */
  nodes: Explored[];
  hubs: ReadonlySet<string>;
  /** States in which an open modal can never be got rid of; by state the modals. */
  stuck: ReadonlyMap<number, string[]>;
  /** States that ways out (and, where asked, Back), in any number, lead to another line from. */
  leaves: { withBack: ReadonlySet<number>; withoutBack: ReadonlySet<number> };
  name: (id: string) => string;
}

export function graphOf(exploration: Exploration): Graph {
  const project = exploration.abstract.original;
  const { nodes } = exploration;
  return {
    project,
    exploration,
    nodes,
    hubs: hubsOf(project, exploration),
    stuck: stuckStates(exploration),
    leaves: { withBack: leaving(nodes, true), withoutBack: leaving(nodes, false) },
    name: (id) => `"${nameOf(project, id)}"`,
  };
}

/** Steps that move the user: ways out, what happens by itself and, where asked, Back. */
export function moves(node: Explored, back: boolean): Edge[] {
  return node.edges.filter(
    (edge) => edge.outcome === "moved" && (edge.way === "out" || edge.way === "itself" || edge.way === "reveal" || (back && edge.way === "back")),
  );
}

/** The states from which some goal can be reached by ways out, what happens by itself, and Back. */
export function canReach(nodes: readonly Explored[], isGoal: (node: Explored, index: number) => boolean): Set<number> {
  return backwards(nodes, true, new Set(nodes.flatMap((node, i) => (!node.portal && isGoal(node, i) ? [i] : []))), () => true);
}

function leaving(nodes: readonly Explored[], back: boolean): Set<number> {
  const first = new Set<number>();
  nodes.forEach((node, i) => {
    if (moves(node, back).some((edge) => edge.to < 0 || nodes[edge.to]?.line !== node.line)) first.add(i);
  });
  return backwards(nodes, back, first, (from, to) => from.line === to.line);
}

/** A portal belongs to what is found only when all that its lane may hold does: which it is, is not the user's choice. */
function backwards(nodes: readonly Explored[], back: boolean, found: Set<number>, follows: (from: Explored, to: Explored) => boolean): Set<number> {
  const into = new Map<number, number[]>();
  const open = nodes.map((node) => new Set(node.portal ? node.edges.map((edge) => edge.to) : []));
  nodes.forEach((node, i) => {
    for (const edge of moves(node, back)) {
      const to = nodes[edge.to];
      if (!to || !follows(node, to)) continue;
      const list = into.get(edge.to);
      if (list) list.push(i);
      else into.set(edge.to, [i]);
    }
  });
  const queue = [...found];
  for (let at = queue.pop(); at !== undefined; at = queue.pop())
    for (const from of into.get(at) ?? []) {
      open[from]?.delete(at);
      if (found.has(from) || (nodes[from]?.portal && (open[from]?.size ?? 0) > 0)) continue;
      found.add(from);
      queue.push(from);
    }
  return found;
}

function stuckStates({ nodes }: Exploration): Map<number, string[]> {
  const modals = new Set(nodes.flatMap((node) => node.state.layers.map((layer) => layer.at)));
  const out = new Map<number, string[]>();
  for (const modal of modals) {
    const open = (node: Explored) => node.state.layers.some((layer) => layer.at === modal);
    const free = canReach(nodes, (node) => !open(node));
    nodes.forEach((node, i) => {
      if (!node.portal && open(node) && !free.has(i)) out.set(i, [...(out.get(i) ?? []), modal]);
    });
  }
  return out;
}

/** The hubs: screens marked so; else the first screens of the outermost tab set's or drawer's members; else what launch shows. */
export function hubsOf(project: Project, exploration: Exploration): Set<string> {
  const marked = project.screens.filter((screen) => screen.hub);
  if (marked.length > 0) return new Set(marked.map((screen) => screen.id));
  const outermost = outermostLanes(project);
  if (outermost) return new Set(outermost.members.flatMap((member) => firstScreen(project, member)?.id ?? []));
  const shown = exploration.nodes[0]?.screen;
  return new Set(shown === undefined ? [] : [shown]);
}

function outermostLanes(project: Project) {
  const { containers } = lookup(project);
  const queue = [project.root];
  const seen = new Set<string>();
  for (let id = queue.shift(); id !== undefined; id = queue.shift()) {
    const container = containers.get(id);
    if (!container || seen.has(id)) continue;
    seen.add(id);
    if (container.kind === "tabs" || container.kind === "drawer") return container;
    queue.push(...container.members);
  }
  return undefined;
}

/** The containers around a screen by ownership that are gone through once, and the screen itself if it is; innermost first. */
export function oncePlaces(project: Project, screenId: string): string[] {
  const own = lookup(project).screens.get(screenId)?.once ? [screenId] : [];
  return [...own, ...ownersAround(project, screenId).flatMap((container) => (container.once ? [container.id] : []))];
}
