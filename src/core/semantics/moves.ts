import type { Args, Program } from "../plan/data.ts";
import { withBranchKnown } from "./activate.ts";
import { unasked } from "./events.ts";
import { run } from "./operations.ts";
import { left, moved, nothingToDo, withLayers } from "./state.ts";
import type { App, Change, State } from "./types.ts";

/** Makes a move from a branch with arguments already worked out. The state given is not changed. */
export function makeMove(app: App, state: State, branch: number, program: Program, args: Args): Change {
  switch (program[0]?.op) {
    case "proceed":
      return proceed(app, state);
    case "leave":
      return left;
    default:
      return run(app, state, branch, program, args);
  }
}

/** Closes the layers above those there when an event was held, and does that event without asking again. */
function proceed(app: App, state: State): Change {
  if (!state.held) return nothingToDo;
  const { event, depth } = state.held;
  const beneath = withoutHeld(withLayers(withBranchKnown(app, state, depth), depth));
  const change = unasked(app, beneath, event, true);
  return change.is === "ignored" ? moved(beneath) : change;
}

/** The state with nothing held. */
export function withoutHeld(state: State): State {
  if (!state.held) return state;
  const { held: _, ...rest } = state;
  return rest;
}
