import type { NavEvent, Project } from "../model/schema.ts";
import { branchNode, currentScreen, topBranch, visiblePath } from "../semantics/state.ts";
import { launch, step } from "../semantics/step.ts";
import { appOf } from "./app.ts";

/** What some walks come by. */
export interface Walked {
  /** By screen, and by container that one of its screens shows in, how many of the walks come by it. */
  places: ReadonlyMap<string, number>;
  /** By leg how many of the walks take it. */
  legs: ReadonlyMap<string, number>;
}

/** What walks come by, each replayed from a launch. Events that do nothing any more are passed over. */
export function walkedBy(project: Project, walks: ReadonlyArray<{ events: readonly NavEvent[] }>): Walked {
  const places = new Map<string, number>();
  const legs = new Map<string, number>();
  for (const { events } of walks) {
    const seen = new Set<string>();
    const taken = new Set<string>();
    let state = launch(appOf(project));
    const look = () => {
      seen.add(currentScreen(state).at);
      for (const node of visiblePath(branchNode(state, topBranch(state)))) seen.add(node.at);
      for (const layer of state.layers) seen.add(layer.at);
    };
    look();
    for (const event of events) {
      const result = step(appOf(project), state, event);
      for (const leg of result.log.fired) taken.add(leg);
      state = result.state;
      look();
    }
    for (const id of seen) places.set(id, (places.get(id) ?? 0) + 1);
    for (const id of taken) legs.set(id, (legs.get(id) ?? 0) + 1);
  }
  return { places, legs };
}
