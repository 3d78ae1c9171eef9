import type { NavEvent, Project } from "../model/schema.ts";
import { compiled } from "./compiled.ts";
import { attempt } from "./depart.ts";
import { initialFacts } from "./enter.ts";
import { fire } from "./fire.ts";
import { withoutHeld } from "./held.ts";
import { make } from "./make.ts";
import { arriveFiring } from "./reach.ts";
import { currentScreen, type State, type StepResult, topBranch } from "./state.ts";

/** Arrive legs that may follow one another after one event. */
const ARRIVE_LIMIT = 32;

/**
 * What an event does to the navigation state. Pure and deterministic; never throws on a valid
 * document. Unless the outcome is `moved`, the state is the same object.
 */
export function step(project: Project, state: State, event: NavEvent): StepResult {
  const change = attempt(project, state, event);
  switch (change.is) {
    case "ignored":
      return { state, outcome: "ignored", why: change.why };
    case "refused":
      return { state, outcome: "refused", why: change.why };
    case "left":
      return { state, outcome: "left" };
    case "moved": {
      const settled = arrive(project, state, change.state);
      if (settled === "loop") return { state, outcome: "refused", why: "redirect-loop" };
      return { state: dropHeld(settled), outcome: "moved" };
    }
  }
}

/** The state at launch: Make(root), facts at their initial values, narrow; then arrive legs, unless they lead round. */
export function launch(project: Project): State {
  const first: State = { base: make(project, project.root), layers: [], facts: initialFacts(project), width: "narrow" };
  const settled = arrive(project, undefined, first);
  return settled === "loop" ? first : settled;
}

/** Fires arrive legs of the current screen until none can; "loop" after more than the limit. */
export function arrive(project: Project, before: State | undefined, start: State): State | "loop" {
  let state = start;
  let last = before;
  for (let count = 0; ; count++) {
    if (last && before && uncovered(before, last, state)) return state;
    const firing = arriveFiring(project, state);
    if (!firing) return state;
    const change = fire(project, state, firing);
    if (change.is !== "moved") return state;
    if (count >= ARRIVE_LIMIT) return "loop";
    compiled(project).watch?.passed(state);
    last = state;
    state = change.state;
  }
}

/** Whether the current screen came to light because layers closed, and its branch showed it before the event already. */
function uncovered(before: State, last: State, state: State): boolean {
  if (state.layers.length >= last.layers.length) return false;
  const branch = topBranch(state);
  if (branch > before.layers.length) return false;
  const [was, is] = [currentScreen(before, branch), currentScreen(state, branch)];
  return was.at === is.at && was.args === is.args;
}

function dropHeld(state: State): State {
  return state.held && state.layers.length <= state.held.depth ? withoutHeld(state) : state;
}
