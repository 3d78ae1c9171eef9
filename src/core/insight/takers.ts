import { giveOf, lookup, ownersAround } from "../model/lookup.ts";
import { once } from "../model/once.ts";
import type { Leg, Project, Screen } from "../model/schema.ts";
import { programOf } from "../plan/lower/moves.ts";
import { makeMove } from "../semantics/moves.ts";
import { currentScreen } from "../semantics/state.ts";
import { appOf } from "./app.ts";
import { metStates } from "./met.ts";

/**
 * The screens that a leg comes back to, and that take what it hands back: the one that a return names; of a close, those that open
 * its modal; besides, what shows after it in the states in which it is met.
 */
export function takersOf(project: Project, leg: Leg): Screen[] {
  const { screens } = lookup(project);
  const { move } = leg;
  const ids = move?.kind === "return" ? [move.to] : [...openersOf(project, leg), ...shownAfter(project, leg)];
  return [...new Set(ids)].flatMap((id) => screens.get(id) ?? []);
}

/** The screens that open the modal that a leg closes. */
function openersOf(project: Project, { from, move }: Leg): string[] {
  if (move?.kind !== "close") return [];
  const modal = move.modal ?? ownersAround(project, from).find(({ kind }) => kind === "modal")?.id ?? from;
  return project.legs.flatMap((leg) => (leg.move?.kind === "open" && leg.move.to === modal ? [leg.from] : []));
}

function shownAfter(project: Project, { from, move }: Leg): string[] {
  if (!move) return [];
  return metStates(project, from).flatMap(({ state, branch }) => {
    const change = makeMove(appOf(project), state, branch, programOf(project, move), {});
    return change.is === "moved" ? [currentScreen(change.state).at] : [];
  });
}

/** By screen the legs that hand something back to it. */
export function handingBackTo(project: Project): ReadonlyMap<string, readonly Leg[]> {
  return once(project, legsByTaker);
}

function legsByTaker(project: Project): Map<string, Leg[]> {
  const out = new Map<string, Leg[]>();
  for (const leg of project.legs) {
    if (!giveOf(leg)) continue;
    for (const { id } of takersOf(project, leg)) out.set(id, [...(out.get(id) ?? []), leg]);
  }
  return out;
}
