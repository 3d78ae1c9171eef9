import { modalOf } from "../../model/lookup.ts";
import { once } from "../../model/once.ts";
import type { Project } from "../../model/schema.ts";
import { CONTEXT_QUESTION } from "../system/chooser.ts";
import { type Edge, type Exploration, NO_STARTS, startLists, stepsFrom } from "../system/exploration.ts";
import { fieldsOf } from "../system/followFacts.ts";
import { setDistances } from "../system/shortestWays.ts";
import { matchedWays } from "./matchedWays.ts";

/**
 * A search without the states to which no way leads on which what is uncovered is what was covered: nobody gets there. That is sure only where
 * there is one pile of things that lie on each other, in stacks and beneath modals that block, and no step looks into it; else the search is given
 * as it is.
 */
export function pruned(exploration: Exploration): Exploration {
  return once(exploration, withoutUnmatched);
}

function withoutUnmatched(exploration: Exploration): Exploration {
  const { nodes, abstraction, complete } = exploration;
  if (!complete || abstraction.precision.whole || !isOnePile(abstraction.original) || nodes.some((node) => stepsFrom(node).some(looksInto))) return exploration;
  const ways = matchedWays(exploration);
  if (!ways?.complete || nodes.every((_, at) => ways.has(at))) return exploration;
  const numbers = new Map<number, number>();
  nodes.forEach((_, at) => {
    if (ways.has(at)) numbers.set(at, numbers.size);
  });
  const kept = (edges: readonly Edge[]): Edge[] =>
    edges.flatMap((edge) => {
      const to = numbers.get(edge.to);
      return to === undefined ? [] : [{ ...fieldsOf(edge), to }];
    });
  const anew = new Map([...startLists(nodes).keys()].map((starts) => [starts, kept(starts)]));
  const out: Exploration = {
    ...exploration,
    nodes: [...numbers.keys()].flatMap((at) => {
      const node = nodes[at];
      if (!node) return [];
      const { state, key, line, screen, launched, pending, followed, edges, starts } = node;
      const steps = { edges: kept(edges), starts: anew.get(starts) ?? NO_STARTS };
      return [{ state, key, line, screen, ...(launched ? { launched } : {}), pending, followed, ...steps, distance: 0 }];
    }),
    launches: kept(exploration.launches),
  };
  setDistances(out);
  return out;
}

/** Whether a step turns on what it finds hidden. */
function looksInto({ choices }: Edge): boolean {
  return choices.some(({ question, answer }) => question.startsWith(CONTEXT_QUESTION) && typeof answer === "object");
}

function isOnePile(project: Project): boolean {
  return project.containers.every(({ id, kind }) => kind === "stack" || (kind === "modal" && (modalOf(project, id)?.blocks ?? true)));
}
