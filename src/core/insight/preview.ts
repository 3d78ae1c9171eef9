import type { Move, Project } from "../model/schema.ts";
import { programOf } from "../plan/lower/moves.ts";
import { makeMove } from "../semantics/moves.ts";
import { branchNode, shownIn, topBranch, visiblePath } from "../semantics/state.ts";
import type { Change, Node, State } from "../semantics/types.ts";
import { appOf } from "./app.ts";
import { metStates } from "./met.ts";

/** A state that a move is tried on, and what it makes of it. */
export interface Preview {
  before: State;
  /** The branch that the move is made from. */
  branch: number;
  change: Change;
  /** Whether the state is one that occurs. */
  real: boolean;
}

/**
 * What a move would do from a place, tried on a state in which the place really shows: the one that somebody stands on (`at`), else
 * the nearest to launch. Conditions and arguments are left aside.
 */
export function previewMove(project: Project, placeId: string, move: Move, at?: State): Preview {
  const [met] = metStates(project, placeId, at, 1);
  if (!met) throw new Error(`previewMove: no state shows ${placeId}`);
  const { state, branch, real } = met;
  return { before: state, branch, change: makeMove(appOf(project), state, branch, programOf(project, move), {}), real };
}

/** The screens of the nearest stack of a branch from the bottom to the top; of a branch without a stack, what it shows. */
export function pileOf(state: State, branch = topBranch(state)): string[] {
  const stack = visiblePath(branchNode(state, branch)).findLast((node) => node.kind === "stack");
  const items: readonly Node[] = stack?.kind === "stack" ? stack.items : [branchNode(state, branch)];
  return items.map((item) => shownIn(item).at);
}
