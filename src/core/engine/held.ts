import type { Project } from "../model/schema.ts";
import { withBranchKnown } from "./activate.ts";
import { attemptUnasked } from "./events.ts";
import { type Change, moved, nothingToDo, type State, withLayers } from "./state.ts";

/** proceed: closes the layers above those there when the event was held, and does that event without asking again. */
export function resumeHeld(project: Project, state: State): Change {
  if (!state.held) return nothingToDo;
  const { event, depth } = state.held;
  const beneath = withoutHeld(withLayers(withBranchKnown(project, state, depth), depth));
  const change = attemptUnasked(project, beneath, event, true);
  return change.is === "ignored" ? moved(beneath) : change;
}

/** The state with nothing held. */
export function withoutHeld(state: State): State {
  if (!state.held) return state;
  const { held: _, ...rest } = state;
  return rest;
}
