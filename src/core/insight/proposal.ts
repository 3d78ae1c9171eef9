import type { LegStart } from "../model/edits/link.ts";
import { firstScreen, lookup, ownersAround, treeOf } from "../model/lookup.ts";
import { moveSentence, type Proposal, suitedMove, withArguments } from "../model/propose.ts";
import type { Move, Project } from "../model/schema.ts";
import { programOf } from "../plan/lower/moves.ts";
import { makeMove } from "../semantics/moves.ts";
import { branchNode, currentScreen, nearestStack, shownIn, topBranch, visiblePath } from "../semantics/state.ts";
import type { State } from "../semantics/types.ts";
import { appOf } from "./app.ts";
import { type Met, metStates } from "./met.ts";

/**
 * The move by which an element of a place should lead to another: tried in the states in which the place really shows, so that
 * what is proposed is never refused there and never without effect. What lies beneath is gone back to, what a modal covers is
 * come back to by closing it, a drawer is opened from inside. Where nothing works in all those states, the way that the structure
 * suggests. What leads on by itself (on arriving, after a while) is replaced, so that Back does not end up there again. `at` is the state that somebody stands on.
 */
export function proposal(project: Project, { place: from, element, on }: LegStart, to: string, at?: State): Proposal {
  const met = metStates(project, from, at);
  const plain = candidates(project, { from, on }, to, met).find((move) => met.every((one) => leadsTo(project, one, move, to)));
  const move = withArguments(project, from, element, plain ?? suitedMove(project, from, to));
  return { move, sentence: moveSentence(project, from, move) };
}

/** Moves to try, the one that people would expect first. */
function candidates(project: Project, { from, on }: { from: string; on: LegStart["on"] }, to: string, met: readonly Met[]): Move[] {
  const around = ownersAround(project, from);
  const within = [from, ...around.map((c) => c.id)];
  const modal = lookup(project).containers.get(to);
  const suited = suitedMove(project, from, to);
  const own = [from, ...around.map((c) => c.id)].find((id) => lookup(project).containers.get(id)?.kind === "modal");
  if (modal?.kind === "modal") return within.includes(to) ? [{ kind: "close", modal: to }] : [suited];
  if (modal?.kind === "drawer" && within.includes(to)) return [{ kind: "menu", drawer: to }];
  const beneath = met.every(({ state, branch }) => liesBeneath(state, branch, to));
  const covered =
    own !== undefined && (met.every(({ state, branch }) => branch > 0 && currentScreen(state, branch - 1).at === to) || onlyOpener(project, own, to, met));
  const onPage = own !== undefined && met.every(({ state, branch }) => branch > 0 && liesBeneath(state, branch - 1, to));
  const holder = lookup(project).owners.get(to);
  const byItself = on?.kind === "arrive" || on?.kind === "after";
  const inside = treeOf(project, from).includes(to) && lookup(project).containers.has(from);
  return [
    ...(covered ? [{ kind: "close", modal: own } as const] : []),
    ...(beneath && lookup(project).screens.has(to) ? [suited.kind === "return" ? suited : ({ kind: "return", to } as const)] : []),
    ...(onPage && !beneath && lookup(project).screens.has(to) ? [{ kind: "push", to, in: "beneath", repeat: "rewind" } as const] : []),
    ...overTo(project, to),
    // A modal is opened by what goes on by itself, too; one that is up gives way to it.
    ...(byItself && suited.kind === "open" ? [{ ...suited, ...(own === undefined ? {} : { instead: true }) } as const] : []),
    // What goes on by itself is passed through: coming back to it would only lead on again.
    ...(byItself ? [{ kind: "replace", to } as const] : []),
    ...(inside ? [{ kind: "push", to } as const] : []),
    suited,
    { kind: "push", to },
    ...(own === undefined ? [] : [{ kind: "push", to, in: "beneath" } as const]),
    ...(own === undefined || holder?.kind !== "stack" ? [] : [{ kind: "push", to, in: holder.id } as const]),
    { kind: "replace", to },
  ];
}

/** Whether a modal that nobody gets to yet is opened by this screen: then it will be what the modal covers. */
function onlyOpener(project: Project, modal: string, screen: string, met: readonly Met[]): boolean {
  if (met.some(({ real }) => real)) return false;
  const openers = project.legs.filter((leg) => leg.move?.kind === "open" && leg.move.to === modal);
  return openers.length > 0 && openers.every((leg) => leg.from === screen);
}

/** Going over to the lane that a place is, or that begins with it. */
function overTo(project: Project, to: string): Move[] {
  const { owners } = lookup(project);
  const owner = owners.get(to);
  if (owner?.kind === "tabs" || owner?.kind === "drawer") return [{ kind: "select", to }];
  const around = owner?.kind === "stack" && owner.start === to ? owners.get(owner.id) : undefined;
  return owner && (around?.kind === "tabs" || around?.kind === "drawer") ? [{ kind: "select", to: owner.id }] : [];
}

function liesBeneath(state: State, branch: number, to: string): boolean {
  const stack = nearestStack(state, branch)?.stack;
  return stack?.items.slice(0, -1).some((item) => shownIn(item).at === to) ?? false;
}

/** Whether a move made in a state shows its target; of what only opens or closes something, whether it does. */
function leadsTo(project: Project, { state, branch }: Met, move: Move, to: string): boolean {
  const change = makeMove(appOf(project), state, branch, programOf(project, move), {});
  if (change.is !== "moved") return false;
  if (move.kind === "menu" || move.kind === "close") return true;
  const shown = move.kind === "open" ? (move.show ?? to) : to;
  const after = change.state;
  const path = visiblePath(branchNode(after, topBranch(after)));
  return path.some((node) => node.at === shown) || currentScreen(after).at === firstScreen(project, shown)?.id;
}
