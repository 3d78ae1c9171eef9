import type { App, Event, State } from "./types.ts";

/** The events by which the facts from outside become what the app's guards say that they are now. */
export function guardEvents(app: App, state: State): Event[] {
  return Object.entries(app.guards ?? {}).flatMap(([fact, ask]): Event[] => {
    const value = ask();
    return state.facts[fact] === value ? [] : [{ do: "fact", fact, value }];
  });
}
