import { meets, momentOf, placesShown } from "../../insight/rules/moment.ts";
import type { What } from "../../model/schema.ts";
import { concreteWays } from "../counterexample/concreteWays.ts";
import { lastStep } from "../counterexample/replay.ts";
import { ANEW, bitsOf, EVENT, type RuleGraph } from "./graph.ts";
import { breakingWalk, goalAt } from "./walk.ts";

/** Whether something is ever met: for certain, or not; `unsure` where the search meets it and no walk was found that does. */
export type MetOrNot = "met" | "never" | "unsure";

/** Places at which a walk is looked for. */
const TRIES = 8;

/** Whether something of what a rule speaks of is ever met; `mustShow`: whether some state shows it, so that to pass it does not count. */
export function isMet(graph: RuleGraph, what: What, mustShow = false): MetOrNot {
  const { exploration, states, size, first, kind, label, edges, launches } = graph;
  const { nodes } = exploration;
  const bits = bitsOf(graph, [what]);
  if (!mustShow && launches.some(({ label: one }) => bits.labels[one])) return "met";
  const showing: number[] = [];
  for (let i = 0; i < states; i++) if (bits.states[i]) showing.push(i);
  showing.sort((a, b) => (nodes[a]?.distance ?? 0) - (nodes[b]?.distance ?? 0));
  const ways = concreteWays(exploration);
  if (showing.slice(0, TRIES).some((at) => ways.at(at).length > 0)) return "met";
  const onTheWay: Array<{ at: number; step: number }> = [];
  if (!mustShow && bits.labels.some((one) => one > 0))
    for (let at = 0; at < size; at++)
      for (let step = first[at] as number; step < (first[at + 1] as number); step++)
        if (bits.labels[label[step] as number] && (kind[step] === EVENT || kind[step] === ANEW)) onTheWay.push({ at: at < states ? at : 0, step });
  onTheWay.sort((a, b) => (nodes[a.at]?.distance ?? 0) - (nodes[b.at]?.distance ?? 0));
  for (const { at, step } of onTheWay.slice(0, TRIES)) {
    const edge = edges[step];
    const seen = edge && lastStep(exploration, ways.at(at), edge, ({ result }) => result.outcome === "moved" && meets(momentOf(edge.event, result), what));
    if (seen) return "met";
  }
  const goals = [...new Set([...showing, ...onTheWay.map(({ at }) => at)])];
  if (goals.length === 0) return "never";
  const goal = goalAt(graph, goals, (state, event, outcome) =>
    mustShow ? placesShown(state).some((id) => what.places?.includes(id)) : meets(momentOf(event, outcome), what),
  );
  return breakingWalk(graph, goal, "full") ? "met" : "unsure";
}
