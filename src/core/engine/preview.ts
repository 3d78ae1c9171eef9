import { firstScreen } from "../model/lookup.ts";
import type { Move, Project } from "../model/schema.ts";
import { makeMove } from "./moves.ts";
import { branchNode, type Change, type Node, type State, shownIn, topBranch, visiblePath } from "./state.ts";
import { launch } from "./step.ts";
import { rebuild } from "./trail.ts";

/** A likely state with a place showing: what a way in to it would lay down. */
export function stateShowing(project: Project, placeId: string): State {
  const first = launch(project);
  const screen = firstScreen(project, placeId);
  const change = rebuild(project, first, screen?.id ?? placeId, {});
  return change.is === "moved" ? change.state : first;
}

/** What a move would do from a place, tried on a likely state; conditions and arguments are left aside. */
export function previewMove(project: Project, placeId: string, move: Move): { before: State; change: Change } {
  const before = stateShowing(project, placeId);
  return { before, change: makeMove(project, before, topBranch(before), move, {}) };
}

/** The screens of the nearest stack of a branch from the bottom to the top; of a branch without a stack, what it shows. */
export function pileOf(state: State, branch = topBranch(state)): string[] {
  const stack = visiblePath(branchNode(state, branch)).findLast((node) => node.kind === "stack");
  const items: readonly Node[] = stack?.kind === "stack" ? stack.items : [branchNode(state, branch)];
  return items.map((item) => shownIn(item).at);
}
