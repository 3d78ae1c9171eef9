import { nameOf } from "../model/lookup.ts";
import type { Move, NavEvent, Project } from "../model/schema.ts";
import { currentScreen, topBranch } from "../semantics/state.ts";
import { step } from "../semantics/step.ts";
import type { State } from "../semantics/types.ts";
import { appOf } from "./app.ts";
import { previewMove } from "./preview.ts";

/** What a move would bring, tried on a state in which its place shows. */
export interface WhatIf {
  before: State;
  /** The branch of it that the move is made from. */
  branch: number;
  /** Whether the state before is one that occurs. */
  real: boolean;
  /** Undefined where the move does nothing there, can not be done, or leaves the app; `says` tells which. */
  after: State | undefined;
  says: string;
  /** What Back does afterwards, and what the control at the start of the bar does, in words. */
  back: string;
  lead: string;
}

/** What happens if a leg from a place goes this way, and what Back and the lead do then; `at` is the state that somebody stands on. */
export function whatIf(project: Project, from: string, move: Move, at?: State): WhatIf {
  const { before, branch, change, real } = previewMove(project, from, move, at);
  if (change.is !== "moved") {
    const says = change.is === "left" ? "the app is left" : change.is === "refused" ? "can not be done from there" : "nothing would change";
    return { before, branch, real, after: undefined, says, back: "–", lead: "–" };
  }
  const after = change.state;
  return { before, branch, real, after, says: "", back: afterwards(project, after, { do: "back" }), lead: afterwards(project, after, { do: "lead" }) };
}

function afterwards(project: Project, state: State, event: NavEvent): string {
  const result = step(appOf(project), state, event);
  switch (result.outcome) {
    case "left":
      return "leaves the app";
    case "moved": {
      const to = `“${nameOf(project, currentScreen(result.state).at)}”`;
      return topBranch(result.state) < topBranch(state) ? `closes, to ${to}` : `to ${to}`;
    }
    default:
      return "nothing";
  }
}
