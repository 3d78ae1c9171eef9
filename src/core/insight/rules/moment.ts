import type { NavEvent, What } from "../../model/schema.ts";
import { branchNode, topBranch, visiblePath } from "../../semantics/state.ts";
import type { Log, State } from "../../semantics/types.ts";

/**
 * What is seen at one moment of a run, which is a launch or an event that moved: the screen that then shows, the screens that arrive legs led
 * on from, every container around them; the legs that fired; the way in that was taken.
 */
export interface Moment {
  places: ReadonlySet<string>;
  legs: readonly string[];
  entrance: string | undefined;
}

/** What a moment is read off: the state that an event has brought, and what happened on the way. */
export interface Seen {
  readonly state: State;
  readonly log: Pick<Log, "fired" | "passed">;
}

/** The screen that shows in a state and the containers around it, the modal among them. */
export function placesShown(state: State): string[] {
  const branch = topBranch(state);
  const layer = state.layers[branch - 1];
  return [...(layer ? [layer.at] : []), ...visiblePath(branchNode(state, branch)).map(({ at }) => at)];
}

/** The moment that an event which moved has brought; `event` is undefined for a launch. */
export function momentOf(event: NavEvent | undefined, { state, log }: Seen): Moment {
  return {
    places: new Set([...placesShown(state), ...log.passed.flatMap(placesShown)]),
    legs: log.fired,
    entrance: event?.do === "enter" ? event.entrance : undefined,
  };
}

/** Whether something of what a rule speaks of is met at a moment. */
export function meets({ places, legs, entrance }: Moment, what: What | undefined): boolean {
  if (!what) return false;
  return (
    (what.places?.some((id) => places.has(id)) ?? false) ||
    (what.legs?.some((id) => legs.includes(id)) ?? false) ||
    (entrance !== undefined && (what.entrances?.includes(entrance) ?? false))
  );
}
