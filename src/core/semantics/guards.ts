import type { Args, Json } from "../plan/data.ts";
import type { App, Event, State } from "./types.ts";

/** The events by which the facts from outside become what the app's guards say that they are now. */
export function guardEvents(app: App, state: State): Event[] {
  return Object.entries(app.guards ?? {}).flatMap(([fact, ask]): Event[] => {
    const value = ask();
    return state.facts[fact] === value ? [] : [{ do: "fact", fact, value }];
  });
}

/** Of facts that were kept or told elsewhere those that the design has, with a value that they can have. */
export function factsFitting(app: App, facts: Args = {}): Record<string, Json> {
  const fits = (id: string, value: Json) => {
    const fact = app.plan.facts.get(id);
    return fact !== undefined && (fact.values ? fact.values.includes(String(value)) : typeof value === "boolean");
  };
  return Object.fromEntries(Object.entries(facts).filter(([id, value]) => fits(id, value)));
}
