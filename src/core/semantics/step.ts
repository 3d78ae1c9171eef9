import type { Width } from "../plan/data.ts";
import { attempt } from "./depart.ts";
import { initialFacts } from "./enter.ts";
import { fire, type Notes, newNotes } from "./fire.ts";
import { make } from "./make.ts";
import { withoutHeld } from "./moves.ts";
import { arriveFiring } from "./reach.ts";
import { currentScreen, topBranch } from "./state.ts";
import type { App, Event, Outcome, State } from "./types.ts";

/** Arrive legs that may follow one another after one event. */
const ARRIVE_LIMIT = 32;

/**
 * What an event does to the navigation state. Pure and deterministic; never throws on the plan of a valid
 * document. Unless the outcome is `moved`, the state is the same object.
 */
export function step(app: App, state: State, event: Event): Outcome {
  const log = newNotes();
  const change = attempt(app, state, event, log);
  switch (change.is) {
    case "ignored":
      return { state, outcome: "ignored", why: change.why, log };
    case "refused":
      return { state, outcome: "refused", why: change.why, log };
    case "left":
      return { state, outcome: "left", log };
    case "moved": {
      const settled = settle(app, state, change.state, log);
      if (settled === "loop") return { state, outcome: "refused", why: "redirect-loop", log };
      return { state: dropHeld(settled), outcome: "moved", log };
    }
  }
}

/** The state at launch: the outermost place made, facts at their initial values, narrow; then arrive legs, unless they lead round. */
export function launch(app: App): State {
  return arrive(app, undefined, beginning(app)).state;
}

/** The state at launch before any arrive leg has fired. */
export function beginning(app: App, width: Width = "narrow"): State {
  return { base: make(app.plan, app.plan.launch), layers: [], facts: initialFacts(app), width };
}

/** What arrive legs make of a state that has not come about by an event: at launch (`before` undefined), or where other facts hold. */
export function arrive(app: App, before: State | undefined, start: State): Outcome {
  const log = newNotes();
  const settled = settle(app, before, start, log);
  if (settled === "loop") return { state: start, outcome: "refused", why: "redirect-loop", log };
  return settled === start ? { state: start, outcome: "ignored", why: "nothing-to-do", log } : { state: settled, outcome: "moved", log };
}

/** Fires arrive legs of the current screen until none can; "loop" after more than the limit. */
function settle(app: App, before: State | undefined, start: State, log: Notes): State | "loop" {
  let state = start;
  let last = before;
  for (let count = 0; ; count++) {
    if (last && before && isUncovered(before, last, state, log)) return state;
    const firing = arriveFiring(app, state);
    if (!firing) return state;
    const change = fire(app, state, firing, log);
    if (change.is !== "moved") return state;
    if (count >= ARRIVE_LIMIT) return "loop";
    log.passed = [...log.passed, state];
    last = state;
    state = change.state;
  }
}

/** Whether the current screen came to light because layers closed, and is the one that its branch showed before the event already. */
function isUncovered(before: State, last: State, state: State, log: Notes): boolean {
  if (state.layers.length >= last.layers.length) return false;
  const branch = topBranch(state);
  if (branch > before.layers.length) return false;
  const [was, is] = [currentScreen(before, branch), currentScreen(state, branch)];
  return was.at === is.at && was.args === log.renewed.reduceRight((args, [old, renewed]) => (args === renewed ? old : args), is.args);
}

function dropHeld(state: State): State {
  return state.held && state.layers.length <= state.held.depth ? withoutHeld(state) : state;
}
