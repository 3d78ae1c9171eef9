import { once } from "../../model/once.ts";
import type { NavEvent } from "../../model/schema.ts";
import { branchNode, visiblePath } from "../../semantics/state.ts";
import type { State } from "../../semantics/types.ts";
import type { Place } from "../reach/graph.ts";
import type { Exploration, Explored } from "../system/exploration.ts";
import { concreteWays } from "./concreteWays.ts";
import { distancesTo, searchOnwards, WITHOUT_RESTART } from "./directedSearch.ts";
import type { Reached } from "./replay.ts";
import { type Help, wayOut } from "./wayOut.ts";

/** States that the walk is begun from, lanes that are shut one after another, and states looked at for each. */
const BEGINNINGS = 3;
const MOST_LANES = 8;
const MOST_FOR_LANE = 200;
/** States in which somebody may be stuck that are tried for one lane, and for all walks of one search together. */
const MOST_TRIES = 12;
const MOST_TOGETHER = 80;
const budgetOf = (_: Exploration) => ({ left: MOST_TOGETHER });

/**
 * A walk to where nothing helps any more because every way out was shut, one after another: from where the analysis says that somebody is stuck
 * it follows what still helps, another tab say, and looks for the same fault there, until nothing helps. A trap in each of five tabs holds nobody
 * who has been in one of them only. Undefined where none was found.
 */
export function shutWalk(exploration: Exploration, help: Help, subjects: readonly string[], places: readonly Place[]): NavEvent[] | undefined {
  const stuck = places.filter(({ edge }) => !edge).map(({ node }) => node);
  for (const start of stuck.flatMap((node) => concreteWays(exploration).at(node).slice(0, 1)).slice(0, BEGINNINGS)) {
    let at: Reached | undefined = start;
    for (let lanes = 0; at && lanes < MOST_LANES; lanes++) {
      const out: Reached | undefined = wayOut(exploration, help, subjects, at);
      if (!out) return lanes > 0 ? at.walk : undefined;
      at = stuckIn(exploration, help, subjects, out, stuck);
    }
  }
  return undefined;
}

/** The nearest state in which nothing helps with the same members of tabs and drawers showing. */
function stuckIn(exploration: Exploration, help: Help, subjects: readonly string[], from: Reached, stuck: readonly number[]): Reached | undefined {
  const showing = lanesIn(from.state);
  const goals = new Set(stuck.filter((node) => lanesIn((exploration.nodes[node] as Explored).state) === showing));
  if (goals.size === 0) return undefined;
  const here: Help = { ...help, out: (state, stuckAt) => lanesIn(state) === showing && help.out(state, stuckAt) };
  const budget = once(exploration, budgetOf);
  let tries = Math.min(MOST_TRIES, budget.left);
  const found = searchOnwards<Reached | "none">(exploration, {
    starts: [from],
    distances: distancesTo(exploration, [...goals], WITHOUT_RESTART),
    ways: WITHOUT_RESTART,
    most: MOST_FOR_LANE,
    found: (at, nodes) => {
      if (!nodes.some((node) => goals.has(node))) return undefined;
      tries -= 1;
      budget.left -= 1;
      return wayOut(exploration, here, subjects, at) ? (tries <= 0 ? "none" : undefined) : at;
    },
  });
  return found === "none" ? undefined : found;
}

/** The members of tabs and drawers that show on the page beneath all layers. */
function lanesIn(state: State): string {
  return visiblePath(branchNode(state, 0))
    .flatMap((node) => (node.kind === "tabs" || node.kind === "drawer" ? [`${node.at} ${node.active}`] : []))
    .join();
}
