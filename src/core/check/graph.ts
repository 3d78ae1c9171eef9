import { firstScreen, lookup, nameOf, ownersAround } from "../model/lookup.ts";
import type { NavEvent, Project } from "../model/schema.ts";
import type { Edge, Exploration, Explored } from "./exploration.ts";
import { stampsIn, withoutStamps } from "./lanes.ts";

/** A finding before its walk has been looked for: where in the search it shows. */
export interface Candidate {
  subjects: string[];
  message: string;
  /** Where it shows. Undefined: no walk can show it. */
  at?: Place[];
  /** The walk, where it has been looked for already. */
  walk?: NavEvent[];
}

/** A state in which a finding shows and, if it takes one more step to show, that step. */
export interface Place {
  node: number;
  edge?: Edge;
}

/** Adds a place to a candidate by its subjects; the message is that of the first. */
export function note(found: Map<string, Candidate>, subjects: string[], place: Place, message: () => string) {
  const key = subjects.join(" ");
  const known = found.get(key);
  if (!known) found.set(key, { subjects, message: message(), at: [place] });
  else known.at?.push(place);
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
    leaves: { withBack: leaving(exploration, true), withoutBack: leaving(exploration, false) },
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
  const goals = new Set(nodes.flatMap((node, i) => (!node.portal && isGoal(node, i) ? [i] : [])));
  return backwards(nodes, true, goals, (_, edge) => (nodes[edge.to]?.followed === false ? "done" : "follow"));
}

/** The states that steps, in any number, lead to another line from. */
function leaving(exploration: Exploration, back: boolean): Set<number> {
  const { nodes } = exploration;
  return backwards(nodes, back, new Set(), (node, edge) => {
    const to = nodes[edge.to];
    return !to || !mayBeSameLine(exploration, node.line, to.line) ? "done" : "follow";
  });
}

/** Whether two lines may be one: alike but for hidden lanes, and each of these may hold the same in both. */
function mayBeSameLine({ lanes }: Exploration, a: string, b: string): boolean {
  if (a === b) return true;
  if (withoutStamps(a) !== withoutStamps(b)) return false;
  const [x, y] = [stampsIn(a), stampsIn(b)];
  return x.every((mark, i) => {
    const held = new Set((lanes.get(mark) ?? []).map((content) => JSON.stringify(content)));
    return mark === y[i] || (lanes.get(y[i] ?? "") ?? []).some((content) => held.has(JSON.stringify(content)));
  });
}

const cache = new WeakMap<readonly Explored[], { withBack?: Edge[][][]; withoutBack?: Edge[][][] }>();

/** For each state the groups of its steps; worked out once for a search that is done. */
function allGroups(nodes: readonly Explored[], back: boolean): Edge[][][] {
  const known = cache.get(nodes) ?? {};
  cache.set(nodes, known);
  const key = back ? "withBack" : "withoutBack";
  const made = known[key] ?? nodes.map((node) => groups(node, back));
  known[key] = made;
  return made;
}

/** Steps of which the user chooses one, each with the ways in which what is hidden may turn out. */
function groups(node: Explored, back: boolean): Edge[][] {
  const edges = moves(node, back);
  if (node.portal) return [edges];
  const out: Edge[][] = [];
  const hidden = new Map<string, Edge[]>();
  for (const edge of edges) {
    if (!edge.choices.some(isHiddenChoice)) {
      out.push([edge]);
      continue;
    }
    const key = JSON.stringify([edge.event, edge.choices.filter((choice) => !isHiddenChoice(choice))]);
    const group = hidden.get(key);
    if (group) group.push(edge);
    else hidden.set(key, [edge]);
  }
  return [...out, ...hidden.values()];
}

const isHiddenChoice = ({ question }: { question: string }) => question.startsWith("lane ");

/**
 * Grows a set of states backwards: a state belongs to it when some step of the user's choice
 * leads there however what is hidden turns out. Which content a hidden lane has is not
 * the user's choice, so all of it must serve. A step that is `done` serves by itself.
 */
function backwards(nodes: readonly Explored[], back: boolean, found: Set<number>, judge: (node: Explored, edge: Edge) => "done" | "follow"): Set<number> {
  const into = new Map<number, Array<{ from: number; open: Set<number> }>>();
  const queue = [...found];
  const add = (i: number) => {
    if (found.has(i)) return;
    found.add(i);
    queue.push(i);
  };
  const steps = allGroups(nodes, back);
  nodes.forEach((node, from) => {
    // Where the search stopped, nothing is known: no fault is found in what it did not look at.
    if (!node.followed) add(from);
    for (const group of steps[from] ?? []) {
      const open = new Set(group.flatMap((edge) => (judge(node, edge) === "done" ? [] : [edge.to])));
      if (group.length > 0 && open.size === 0) add(from);
      for (const to of open) {
        const list = into.get(to);
        if (list) list.push({ from, open });
        else into.set(to, [{ from, open }]);
      }
    }
  });
  for (let at = queue.pop(); at !== undefined; at = queue.pop())
    for (const { from, open } of into.get(at) ?? []) {
      open.delete(at);
      if (open.size === 0) add(from);
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

/** The states that a step shows: where it leads to a portal, all that the lane may hold. */
export function shownAfter(nodes: readonly Explored[], edge: Edge): Explored[] {
  const to = nodes[edge.to];
  if (!to) return [];
  return to.portal ? to.edges.flatMap((reveal) => nodes[reveal.to] ?? []) : [to];
}
