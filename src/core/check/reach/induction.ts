import { branchNode, visiblePath } from "../../semantics/state.ts";
import type { State } from "../../semantics/types.ts";
import type { Edge, Explored } from "../system/exploration.ts";
import { backwards, type Judge, type Serving } from "./backwards.ts";

/**
 * What may be counted on of what lies beneath the top of a stack, or beneath a layer.
 *
 * A context stands for all that ever lay there, and where a stack has no end (list > item > item) the context itself is among it. If a
 * context saved a state only where all of its content is saved already, content that is itself never would, and every state over it would
 * seem lost. So it is counted on by induction on how much lies hidden beneath in the whole state. A state is saved where the goal is reached
 * without any assumption, or where steps that hide nothing more lead to something that lay beneath (so there is less now), whatever that is,
 * as long as all that it may be is saved in the same way. Each such claim rests on claims about smaller states alone, and the
 * smallest have nothing beneath to count on. Steps that hide more may not be used on the way: who puts something on top and takes
 * it off again is where he was. Lanes hide and show the same amount, so choosing another is allowed. But what comes to light in a lane that is
 * brought up need not be less than there was: a step counts on what lay beneath only where that was in the stack that showed, or beneath a layer.
 *
 * Example: home[list, item, item]. Back from the upper item leads to a smaller stack: saved if [list, item] is, which is saved
 * if [list] is, which is a hub. In [item, item] the lowest is no hub, has nothing beneath, and nothing leads on but putting more on
 * top: lost, and with it all that lies on it.
 *
 * It is the well-founded half of what saturation of pushdown systems computes (Bouajjani, Esparza, Maler 1997): ways that go up and
 * come back lower than they began by other means than these are not seen, so what is lost here is given as lost only with care.
 */

interface Question {
  serving: Serving;
  goals: readonly number[];
  judge: Judge;
  /** The states that are asked about; all, where it is left out. */
  among?: Iterable<number>;
}

/** The states from which a goal is reached, or a step that is done by itself, under what may be assumed. */
export function saved(nodes: readonly Explored[], question: Question): Set<number> {
  const { serving, goals, judge } = question;
  const among = question.among ? [...question.among] : [...nodes.keys()];
  const reach = (from: Iterable<number>, how = judge) => backwards(nodes, serving, new Set(from), how, among);
  let surely = reach(goals);
  if (among.every((i) => surely.has(i))) return surely;
  // What one induction has proved is sure for the next: whoever puts something on top gets to what is saved at any size.
  for (;;) {
    const proved = reach(byInduction(nodes, surely, among, judge, (known, how) => reach(known, how)));
    if (proved.size === surely.size) return surely;
    surely = proved;
  }
}

/** Whether a step puts something on top of what showed, on a stack or in a layer, so that more is hidden or less in reach than before. */
function hidesMore(nodes: readonly Explored[], from: number, edge: Edge): boolean {
  if (edge.way === "reveal") return false;
  const [was, is] = [nodes[from], nodes[edge.to]];
  return edge.hides.length > 0 || (is?.state.layers.length ?? 0) > (was?.state.layers.length ?? 0);
}

/** Whether a step to where it is not yet said what shows took something off: from the stack that showed, or the layer above. */
function uncovers(nodes: readonly Explored[], from: number, edge: Edge): boolean {
  const [was, is] = [nodes[from], nodes[edge.to]];
  if (!was || !is?.pending?.beneath) return false;
  if (is.state.layers.length < was.state.layers.length) return true;
  const uncovered = visiblePath(branchNode(is.state, is.pending.branch)).findLast((node) => node.kind === "stack");
  return branchesIn(was.state).some((branch) => visiblePath(branch).some((node) => node.kind === "stack" && node.at === uncovered?.at));
}

const branchesIn = ({ base, layers }: State) => [base, ...layers.map(({ content }) => content)];

/** The greatest set that holds with what it assumes: all that a pending in it may show is in it as well. */
function byInduction(
  nodes: readonly Explored[],
  surely: ReadonlySet<number>,
  among: readonly number[],
  judge: Judge,
  reach: (known: Iterable<number>, judge: Judge) => Set<number>,
): Set<number> {
  const judgeNow: Judge = (node, edge, from) => {
    const how = judge(node, edge, from);
    const isSmaller = !nodes[edge.to]?.pending?.beneath || edge.way === "reveal" || uncovers(nodes, from, edge);
    return how === "follow" && !surely.has(edge.to) && (hidesMore(nodes, from, edge) || !isSmaller) ? "never" : how;
  };
  let assumed = among.filter((i) => nodes[i]?.pending?.beneath && !surely.has(i) && (nodes[i]?.edges.length ?? 0) > 0);
  for (;;) {
    const found = reach([...surely, ...assumed], judgeNow);
    const served = (edge: Edge, from: number) => found.has(edge.to) || judge(nodes[from] as Explored, edge, from) === "done";
    const held = assumed.filter((i) => nodes[i]?.edges.every((edge) => served(edge, i)));
    if (held.length === assumed.length) return found;
    assumed = held;
  }
}
