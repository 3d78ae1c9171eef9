import { firstScreen, lookup, nameOf, ownersAround } from "../../model/lookup.ts";
import { once } from "../../model/once.ts";
import type { NavEvent, Project } from "../../model/schema.ts";
import type { Edge, Exploration, Explored } from "../system/exploration.ts";
import { contextsIn, placeOf, withoutContexts } from "../system/hiding.ts";
import { backwards, type Judge, moves } from "./backwards.ts";
import { saved } from "./induction.ts";

/** A finding before its walk has been looked for: where in the search it shows. */
export interface Candidate {
  subjects: string[];
  message: string;
  /** Where it shows. Undefined: no walk can show it. */
  at?: Place[];
  /** The walk, where it has been looked for already. */
  walk?: NavEvent[];
  /** What would make it so lies beneath what is hidden; it is found only where a walk shows it (induction.ts). */
  ifShown?: boolean;
  /** It rests on values of facts that are not followed, and is not sure before they are. */
  uncertain?: boolean;
  /** It holds only where every modal that is open at the end of its walk can be closed. */
  closable?: boolean;
}

/** A state in which a finding shows and, if it takes one more step to show, that step. */
export interface Place {
  node: number;
  edge?: Edge;
}

/** Adds a place to a candidate by its subjects; the message is that of the first. */
export function note(found: Map<string, Candidate>, subjects: string[], place: Place, message: () => string, uncertain = false) {
  const key = subjects.join(" ");
  const known = found.get(key);
  if (!known) found.set(key, { subjects, message: message(), at: [place], uncertain });
  else {
    known.at?.push(place);
    known.uncertain &&= uncertain;
  }
}

/** A search with what several findings ask of it. */
export interface Graph {
  project: Project;
  exploration: Exploration;
  /** All states of the search, portals among them. */
  nodes: Explored[];
  hubs: ReadonlySet<string>;
  /** Whether facts that are not followed count against the user. */
  facts: boolean;
  /** States in which an open modal can never be got rid of; by state the modals. */
  stuck: ReadonlyMap<number, string[]>;
  /** Those of them in which they can, if what lies beneath turns out as people would wish. */
  perhapsFree: ReadonlySet<number>;
  /** States that ways out (and, where asked, Back), in any number, lead to another line from. */
  leaves: { withBack: ReadonlySet<number>; withoutBack: ReadonlySet<number> };
  name: (id: string) => string;
}

/** `facts` false: the facts that are not followed turn out as the user would choose. */
export function graphOf(exploration: Exploration, facts = true): Graph {
  const project = exploration.abstraction.original;
  const { nodes } = exploration;
  const stuck = stuckStates(exploration, facts);
  return {
    project,
    exploration,
    nodes,
    hubs: hubsOf(project, exploration),
    facts,
    stuck,
    perhapsFree: stuck.size > 0 && nodes.length <= FEW_STATES ? freeAtBest(exploration, stuck) : NONE,
    leaves: { withBack: leaving(exploration, true, facts), withoutBack: leaving(exploration, false, facts) },
    name: (id) => `"${nameOf(project, id)}"`,
  };
}

/** States of a search up to which it is looked at what else may be found where a modal is stuck in some of what a state stands for. */
const FEW_STATES = 400;
const NONE: ReadonlySet<number> = new Set();

/** What is found only if modals that seem stuck are not, as it is given: by the closest look only where a walk shows it. */
export function ifClosable({ exploration }: Graph, found: readonly Candidate[]): Candidate[] {
  const given = exploration.abstraction.closest ? { ifShown: true } : { uncertain: true };
  return found.map((candidate) => ({ ...candidate, ...given, closable: true }));
}

/** The states from which some goal can be reached by ways out, what happens by itself, and Back. */
export function canReach({ nodes, facts }: Pick<Graph, "nodes" | "facts">, isGoal: (node: Explored, index: number) => boolean): Set<number> {
  const goals = nodes.flatMap((node, i) => (!node.pending && isGoal(node, i) ? [i] : []));
  return saved(nodes, { serving: { back: true, facts }, goals, judge: (_, edge) => (nodes[edge.to]?.followed === false ? "done" : "follow") });
}

/** The states that steps, in any number, lead to another line from. */
function leaving(exploration: Exploration, back: boolean, facts: boolean): Set<number> {
  const { nodes } = exploration;
  const plain = once(nodes, plainLines);
  return backwards(nodes, { back, facts }, new Set(), (node, edge, from) => {
    const to = nodes[edge.to];
    return !to || edge.grew || plain[from] !== plain[edge.to] || !mayBeSameLine(exploration, node.line, to.line) ? "done" : "follow";
  });
}

/** By state a number that is the same for lines that may be one and the same. */
function plainLines(nodes: readonly Explored[]): number[] {
  const numbers = new Map<string, number>();
  return nodes.map(({ line }) => {
    const text = withoutContexts(line);
    const number = numbers.get(text) ?? numbers.size;
    numbers.set(text, number);
    return number;
  });
}

/** Whether two lines that are alike except for what is hidden may be one: each context may hold the same in both. */
function mayBeSameLine({ contexts }: Exploration, a: string, b: string): boolean {
  if (a === b) return true;
  const [x, y] = [contextsIn(a), contextsIn(b)];
  return x.every((context, i) => {
    const other = y[i] ?? "";
    if (context === other || `${context}${other}`.includes("/") || placeOf(context) !== placeOf(other)) return true;
    const held = new Set((contexts.get(context) ?? []).map((content) => JSON.stringify(content)));
    return (contexts.get(other) ?? []).some((content) => held.has(JSON.stringify(content)));
  });
}

function stuckStates({ nodes }: Exploration, facts: boolean): Map<number, string[]> {
  const showing = new Map<string, number[]>();
  nodes.forEach((node, i) => {
    for (const { at } of node.state.layers) {
      const known = showing.get(at);
      if (known) known.push(i);
      else showing.set(at, [i]);
    }
  });
  const out = new Map<number, string[]>();
  for (const [modal, open] of showing) {
    const within = new Set(open);
    const judge: Judge = (_, edge) => (within.has(edge.to) && nodes[edge.to]?.followed ? "follow" : "done");
    const free = saved(nodes, { serving: { back: true, facts }, goals: [], judge, among: open });
    for (const i of open) if (!nodes[i]?.pending && !free.has(i)) out.set(i, [...(out.get(i) ?? []), modal]);
  }
  return out;
}

/** Of the states in which modals are stuck those from which all of these could be closed if people chose what lies beneath. */
function freeAtBest({ nodes }: Exploration, stuck: ReadonlyMap<number, string[]>): Set<number> {
  const into = nodes.map((): number[] => []);
  nodes.forEach((node, from) => {
    for (const { to } of moves(node, true)) into[to]?.push(from);
  });
  const freeOf = (modal: string) => {
    const out = new Set(nodes.flatMap(({ state }, i) => (state.layers.some(({ at }) => at === modal) ? [] : [i])));
    for (const at of out) for (const from of into[at] ?? []) out.add(from);
    return out;
  };
  const modals = [...new Set([...stuck.values()].flat())];
  const free = new Map(modals.map((modal) => [modal, freeOf(modal)]));
  return new Set([...stuck].flatMap(([at, open]) => (open.every((modal) => free.get(modal)?.has(at)) ? [at] : [])));
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

/** The states that a step shows: where it is not yet said what shows, all that may. */
export function shownAfter(nodes: readonly Explored[], { to }: Edge): readonly Explored[] {
  const known = once(nodes, nothingShown);
  const made = known.get(to) ?? shownIn(nodes, to);
  known.set(to, made);
  return made;
}

const nothingShown = (_: readonly Explored[]) => new Map<number, readonly Explored[]>();

function shownIn(nodes: readonly Explored[], to: number): Explored[] {
  const seen = new Set([to]);
  for (const at of seen) if (nodes[at]?.pending) for (const reveal of nodes[at].edges) seen.add(reveal.to);
  return [...seen].flatMap((at) => (nodes[at] && !nodes[at].pending ? [nodes[at]] : []));
}
