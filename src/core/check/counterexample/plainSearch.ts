import { candidateEvents } from "../../insight/available.ts";
import { once } from "../../model/once.ts";
import type { NavEvent } from "../../model/schema.ts";
import type { Node, State } from "../../semantics/types.ts";
import type { Place } from "../reach/graph.ts";
import type { Exploration } from "../system/exploration.ts";
import { hasFewLegs, nodesOf, placesByNode } from "./directedSearch.ts";
import { type Reached, replay, startingPoints } from "./replay.ts";

/** Concrete states that are met, how many screens they hold, and how many are tried. */
const MOST = 2_500;
const DEEPEST = 7;
const TRIES = 400;

/**
 * A walk to where something shows, by breadth-first search over whole states: for what the searches that are led by the abstract one do not find in a
 * small app. A way of sixteen steps that goes round three times is a few hundred states away, where no estimate knows of the rounds.
 */
export function plainWalk(
  exploration: Exploration,
  places: readonly Place[],
  shown: (at: Reached, place: Place) => NavEvent[] | undefined,
): NavEvent[] | undefined {
  if (!hasFewLegs(exploration)) return undefined;
  const by = placesByNode(places);
  let tries = TRIES;
  for (const at of once(exploration, nearStates))
    for (const place of nodesOf(exploration, at.state).flatMap((node) => by.get(node) ?? [])) {
      const found = shown(at, place);
      if (found) return found;
      tries -= 1;
      if (tries === 0) return undefined;
    }
  return undefined;
}

/** The concrete states nearest to launch, without starting over; nearest first. */
function nearStates(exploration: Exploration): readonly Reached[] {
  const project = exploration.abstraction.original;
  const launched = exploration.nodes.filter((node) => node.launched);
  const out: Reached[] = [];
  const seen = new Set<string>();
  const add = (at: Reached) => {
    const key = JSON.stringify(at.state);
    if (seen.has(key) || out.length >= MOST || screensIn(at.state) > DEEPEST) return;
    seen.add(key);
    out.push(at);
  };
  for (const node of launched) for (const at of startingPoints(project, exploration, node)) add(at);
  for (let i = 0; i < out.length && out.length < MOST; i++) {
    const at = out[i] as Reached;
    for (const event of candidateEvents(project, at.state)) {
      if (event.do === "launch" || event.do === "enter" || event.do === "width") continue;
      const next = replay(project, at, [event]);
      if (next?.result.outcome === "moved") add(next.reached);
    }
  }
  return out;
}

/** How many screens a state holds, shown or beneath. */
function screensIn({ base, layers }: State): number {
  const count = (node: Node): number =>
    node.kind === "shown" ? 1 : (node.kind === "stack" ? node.items : Object.values(node.lanes)).reduce((sum, one) => sum + count(one), 0);
  return layers.reduce((sum, { content }) => sum + count(content), count(base));
}
