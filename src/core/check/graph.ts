import { firstScreen, lookup, nameOf, ownersAround } from "../model/lookup.ts";
import type { NavEvent, Project } from "../model/schema.ts";
import { isImposed, mayTurnOutAs } from "./chooser.ts";
import type { Edge, Exploration, Explored } from "./exploration.ts";
import { saved, type Trust } from "./induction.ts";
import { stampsIn, withoutStamps } from "./lanes.ts";

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
  doubtful?: boolean;
}

/** A state in which a finding shows and, if it takes one more step to show, that step. */
export interface Place {
  node: number;
  edge?: Edge;
}

/** Adds a place to a candidate by its subjects; the message is that of the first. */
export function note(found: Map<string, Candidate>, subjects: string[], place: Place, message: () => string, doubtful = false) {
  const key = subjects.join(" ");
  const known = found.get(key);
  if (!known) found.set(key, { subjects, message: message(), at: [place], doubtful });
  else {
    known.at?.push(place);
    known.doubtful &&= doubtful;
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
  /** The same where nothing is assumed of what lies beneath. */
  perhapsStuck: ReadonlyMap<number, string[]>;
  /** States that ways out (and, where asked, Back), in any number, lead to another line from. */
  leaves: { withBack: ReadonlySet<number>; withoutBack: ReadonlySet<number> };
  name: (id: string) => string;
}

/** `facts` false: the facts that are not followed turn out as the user would choose. */
export function graphOf(exploration: Exploration, facts = true): Graph {
  const project = exploration.abstract.original;
  const { nodes } = exploration;
  const perhapsStuck = stuckStates(exploration, facts, "nothing");
  return {
    project,
    exploration,
    nodes,
    hubs: hubsOf(project, exploration),
    facts,
    stuck: perhapsStuck.size === 0 ? perhapsStuck : stuckStates(exploration, facts, "by induction"),
    perhapsStuck,
    leaves: { withBack: leaving(exploration, true, facts), withoutBack: leaving(exploration, false, facts) },
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
export function canReach(
  { project, nodes, facts }: Pick<Graph, "project" | "nodes" | "facts">,
  trust: Trust,
  isGoal: (node: Explored, index: number) => boolean,
): Set<number> {
  const goals = nodes.flatMap((node, i) => (!node.portal && isGoal(node, i) ? [i] : []));
  return saved(project, nodes, { serving: { back: true, facts }, goals, trust, judge: (_, edge) => (nodes[edge.to]?.followed === false ? "done" : "follow") });
}

/** The states that steps, in any number, lead to another line from. */
function leaving(exploration: Exploration, back: boolean, facts: boolean): Set<number> {
  const { nodes } = exploration;
  const plain = plainLines(nodes);
  return backwards(nodes, { back, facts }, new Set(), (node, edge, from) => {
    const to = nodes[edge.to];
    return !to || plain[from] !== plain[edge.to] || !mayBeSameLine(exploration, node.line, to.line) ? "done" : "follow";
  });
}

const plains = new WeakMap<readonly Explored[], number[]>();

/** By state a number that is the same for lines alike but for what lanes are hidden in them. */
function plainLines(nodes: readonly Explored[]): number[] {
  const known = plains.get(nodes);
  if (known) return known;
  const numbers = new Map<string, number>();
  const made = nodes.map(({ line }) => {
    const text = withoutStamps(line);
    const number = numbers.get(text) ?? numbers.size;
    numbers.set(text, number);
    return number;
  });
  plains.set(nodes, made);
  return made;
}

/** Whether two lines that are alike but for hidden lanes may be one: each of these may hold the same in both. */
function mayBeSameLine({ lanes }: Exploration, a: string, b: string): boolean {
  if (a === b) return true;
  const [x, y] = [stampsIn(a), stampsIn(b)];
  return x.every((mark, i) => {
    const held = new Set((lanes.get(mark) ?? []).map((content) => JSON.stringify(content)));
    return mark === y[i] || (lanes.get(y[i] ?? "") ?? []).some((content) => held.has(JSON.stringify(content)));
  });
}

/** What a step is worth to whoever looks for a way. */
export type Judge = (node: Explored, edge: Edge, from: number) => "done" | "follow" | "never";

/** Which steps serve: Back as well or not; whether facts that are not followed count against the user. */
export interface Serving {
  back: boolean;
  facts: boolean;
}

/** A step that the user chooses, with all that it may come to where nobody chooses that. */
type Group = Edge | Edge[];

const cache = new WeakMap<readonly Explored[], Map<string, Group[][]>>();

/** For each state the groups of its steps; worked out once for a search that is done. */
function allGroups(nodes: readonly Explored[], serving: Serving): Group[][] {
  const known = cache.get(nodes) ?? new Map<string, Group[][]>();
  cache.set(nodes, known);
  const key = `${serving.back} ${serving.facts}`;
  const made = known.get(key) ?? nodes.map((node) => groups(node, serving));
  known.set(key, made);
  return made;
}

/** Steps of which the user chooses one, each with the ways in which what nobody chooses may turn out. */
function groups(node: Explored, { back, facts }: Serving): Group[] {
  const edges = moves(node, back);
  if (node.portal) return [edges];
  const imposed = edges.filter((edge) => edge.choices.some((choice) => isImposed(choice, facts)));
  if (imposed.length === 0) return edges;
  const known = new Set<string>();
  return edges.flatMap((edge): Group[] => {
    if (edge.unsure === "hidden" || (facts && edge.unsure === "facts")) return [];
    if (!imposed.includes(edge)) return [edge];
    const key = JSON.stringify([edge.event, edge.choices.filter((choice) => !isImposed(choice, facts))]);
    if (known.has(key)) return [];
    known.add(key);
    return [edges.filter((other) => other.event === edge.event && other.way === edge.way && mayTurnOutAs(edge.choices, other.choices, facts))];
  });
}

/**
 * Grows a set of states backwards: a state belongs to it when some step of the user's choice
 * leads there however what is hidden turns out. Which content a hidden lane has is not
 * the user's choice, so all of it must serve. A step that is `done` serves by itself, one that is `never` not at all.
 */
export function backwards(nodes: readonly Explored[], serving: Serving, found: Set<number>, judge: Judge, among: Iterable<number> = nodes.keys()): Set<number> {
  // By state the steps into it: where one is enough the state that it starts from, else with what must be found beside it.
  const into: Array<Array<number | Open> | undefined> = new Array(nodes.length);
  const queue = [...found];
  const add = (i: number) => {
    if (found.has(i)) return;
    found.add(i);
    queue.push(i);
  };
  const enter = (to: number, step: number | Open) => {
    const list = into[to];
    if (list) list.push(step);
    else into[to] = [step];
  };
  const steps = allGroups(nodes, serving);
  for (const from of among) {
    const node = nodes[from] as Explored;
    // Where the search stopped, nothing is known: no fault is found in what it did not look at.
    if (!node.followed) add(from);
    if (found.has(from)) continue;
    for (const group of steps[from] ?? []) {
      if (!Array.isArray(group)) {
        const judged = judge(node, group, from);
        if (judged === "done") add(from);
        else if (judged === "follow") enter(group.to, from);
        continue;
      }
      const judged = group.map((edge) => ({ edge, how: judge(node, edge, from) }));
      if (judged.some(({ how }) => how === "never")) continue;
      const open = new Set(judged.flatMap(({ edge, how }) => (how === "done" ? [] : [edge.to])));
      if (group.length > 0 && open.size === 0) add(from);
      for (const to of open) enter(to, { from, open });
    }
  }
  for (let at = queue.pop(); at !== undefined; at = queue.pop())
    for (const step of into[at] ?? []) {
      if (typeof step === "number") add(step);
      else if (step.open.delete(at) && step.open.size === 0) add(step.from);
    }
  return found;
}

/** A step from a state of which all that it may come to must be found; `open` is what is not yet. */
interface Open {
  from: number;
  open: Set<number>;
}

function stuckStates({ nodes, abstract }: Exploration, facts: boolean, trust: Trust): Map<number, string[]> {
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
    const free = saved(abstract.original, nodes, { serving: { back: true, facts }, goals: [], trust, judge, among: open });
    for (const i of open) if (!nodes[i]?.portal && !free.has(i)) out.set(i, [...(out.get(i) ?? []), modal]);
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
  return to.portal ? to.edges.flatMap((reveal) => shownAfter(nodes, reveal)) : [to];
}
