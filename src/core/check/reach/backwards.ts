import { once } from "../../model/once.ts";
import { isImposed, mayTurnOutAs } from "../system/chooser.ts";
import type { Edge, Explored } from "../system/exploration.ts";

/** Steps that move the user: ways out, what happens by itself and, where asked, Back. */
export function moves(node: Explored, back: boolean): Edge[] {
  return node.edges.filter(
    (edge) => edge.outcome === "moved" && (edge.way === "out" || edge.way === "automatic" || edge.way === "reveal" || (back && edge.way === "back")),
  );
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

/** For each state the groups of its steps; worked out once for a search that is done. */
function allGroups(nodes: readonly Explored[], serving: Serving): Group[][] {
  const known = once(nodes, noGroups);
  const key = `${serving.back} ${serving.facts}`;
  const made = known.get(key) ?? nodes.map((node) => groups(node, serving));
  known.set(key, made);
  return made;
}

const noGroups = (_: readonly Explored[]) => new Map<string, Group[][]>();

/** Steps of which the user chooses one, each with the ways in which what nobody chooses may turn out. */
function groups(node: Explored, { back, facts }: Serving): Group[] {
  const edges = moves(node, back);
  if (node.pending) return [edges];
  const imposed = edges.filter((edge) => edge.choices.some((choice) => isImposed(choice, facts)));
  if (imposed.length === 0) return edges;
  const known = new Set<string>();
  const idle = node.edges.filter((edge) => edge.outcome !== "moved" && edge.choices.length > 0);
  const unsure = (edge: Edge) => idle.some((other) => other.event === edge.event && other.way === edge.way && mayTurnOutAs(edge.choices, other.choices, facts));
  return edges.flatMap((edge): Group[] => {
    if (edge.choices.length > 0 && unsure(edge)) return [];
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
