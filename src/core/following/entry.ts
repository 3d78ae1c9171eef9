import type { Json, NavEvent } from "../model/schema.ts";

/** One thing that a running app did, as its log tells it: as much as is known. */
export interface Entry {
  /** The run of the app that it belongs to: runs are followed apart from each other. */
  readonly run: string;
  /** When it happened, as text (ISO 8601). */
  readonly at?: string | undefined;
  readonly event?: NavEvent | undefined;
  /** A control that was used, where no more of the event is known: the id or the label of an element, or the id of a leg. */
  readonly used?: string | undefined;
  /** The screen that showed then: its id, its name in code, an address, or its name. */
  readonly shows?: string | undefined;
  /** Its arguments. */
  readonly args?: Readonly<Record<string, Json>> | undefined;
  /** The state in one line. */
  readonly line?: string | undefined;
  /** Facts as they were then; those that are not named are not known. */
  readonly facts?: Readonly<Record<string, Json>> | undefined;
  /** The app put back where it was before, as a browser does on Back and Forward: no event of the design. */
  readonly restored?: boolean | undefined;
}

/** An entry with its place in the log: the line, counted from 1. */
export interface Logged {
  readonly entry: Entry;
  readonly row: number;
}
