import type { Args } from "../../../plan/data.ts";
import { stateLine } from "../../../semantics/line.ts";
import { currentScreen } from "../../../semantics/state.ts";
import type { App, Event, State } from "../../../semantics/types.ts";

/** One thing that the app did, for its log: one line of JSON. What was typed into fields is not in it; rows and arguments are. */
export interface LogEntry {
  /** Which start of the app it belongs to. */
  readonly run: string;
  /** When, as ISO 8601. */
  readonly at: string;
  /** What happened; left out where the app was put back, as a browser's history does. */
  readonly event?: Event;
  readonly restored?: true;
  /** The screen that shows then, its arguments, and the state in one line. */
  readonly shows: string;
  readonly args: Args;
  readonly line: string;
  /** At a launch, and where the app was put back: the facts as they are then. */
  readonly facts?: Args;
}

export interface LogOptions {
  /** Takes each entry as it happens. */
  readonly log?: ((entry: LogEntry) => void) | undefined;
  /** Names this start of the app in its log; by default a name of its own. */
  readonly run?: string | undefined;
}

/** Gives a function that tells a log of an event and the state after it; without an event the app was put back. */
export function logger(app: App, { log, run = newRun() }: LogOptions): (state: State, event?: Event, launched?: boolean) => void {
  return (state, event, launched) => {
    if (!log) return;
    const { at: shows, args } = currentScreen(state);
    const what = event ? { event: untyped(event) } : { restored: true as const };
    log({ run, at: new Date().toISOString(), ...what, shows, args, line: stateLine(app.plan, state), ...(launched || !event ? { facts: state.facts } : {}) });
  };
}

function newRun(): string {
  return `${Date.now().toString(36)}${Math.random().toString(36).slice(2, 8)}`;
}

/** An event without what was typed. */
function untyped(event: Event): Event {
  return event.do === "leg" && event.fields ? { do: "leg", leg: event.leg, ...(event.item === undefined ? {} : { item: event.item }) } : event;
}
