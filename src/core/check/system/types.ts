import type { RunRule } from "../../model/rules.ts";
import type { Project } from "../../model/schema.ts";
import type { Json } from "../../plan/data.ts";
import type { App, Node, State } from "../../semantics/types.ts";
import type { Chooser } from "./chooser.ts";
import type { Valued } from "./parameterValues.ts";
import type { Precision } from "./precision.ts";

/** The project as a search follows it, with what the step that is worked out has asked so far. */
export interface Abstraction {
  /** Without arguments, outside facts and the facts that are not followed. */
  project: Project;
  /** The same, to run. */
  app: App;
  original: Project;
  precision: Precision;
  /** Nothing is left out that could be followed. */
  closest: boolean;
  chooser: Chooser;
  /** Which parameters may ever have a value. */
  valued: Valued;
  /** The rules that are followed in the states. */
  rules: readonly RunRule[];
  /** Facts that are not followed and have been set in this event: how often, and to what, where that is plain. */
  assigned: Map<string, { known: Json | undefined; version: number }>;
  /** What may be hidden; those of the search that is going on. */
  contexts: KnownContexts | undefined;
  /** What the step that is worked out rests on. */
  rests: Rests;
  /** What was not found in this event though it might have been: by context the cuts that found nothing. */
  missed: Map<string, Missed[]>;
  /** The content to take of one context; of others any. */
  only: { context: string; content: Node } | undefined;
  /** By the facts of concrete states those that are followed. */
  followed: WeakMap<State["facts"], State["facts"]>;
}

/** A cut that found nothing: its key and what it looked for. */
export interface Missed {
  key: string;
  stop: (item: Node) => boolean;
}

/** What a step rests on that may not be known in full yet. */
export interface Rests {
  /** Contexts of which each content gives a result of its own. */
  each: Set<string>;
  /** Contexts of which each content that an arrive leg leads on from does. */
  eachArriving: Set<string>;
  /** What would change the results if it came to be so. */
  flags: Set<string>;
  /** By place the contexts of which it was asked whether the place is in them. */
  asked: Map<string, Set<string>>;
}

/** What a cut can come to: a context that holds all that is found, and whether anything may be, or nothing. */
export interface Cut {
  context: string;
  /** Under which it is told that something may be found, or missed, from now on. */
  name: string;
  found: () => boolean;
  missed: boolean;
}

/** The contents of a context in which a container may be, those in which it is not, and the cuts that tell of others whether it is. */
export interface Part {
  context: string;
  lacking: Set<Node>;
  cuts: Set<Cut>;
}

/** Where a cut stops: at an item that matches, or at the lowest. */
export type Stop = ((item: Node) => boolean) | "lowest";

/** What the contexts of a search may hold, for those who look into them. */
export interface KnownContexts {
  /** The entrances that may wait, where it is not followed which does. */
  readonly waiting: ReadonlySet<string>;
  contents(context: string): readonly Node[];
  /** Those of them whose screen arrive legs lead on from. */
  contentsArriving(context: string): readonly Node[];
  /** Whether one of the stacks that a context may hold has a place on top. */
  mayEndWith(context: string, place: string): boolean;
  /** What cutting the stacks that a context may hold comes to. */
  cut(context: string, key: string, stop: Stop): Cut;
  /** The contents of a context in which a container may be, as far as they tell what comes of bringing it up. */
  holding(context: string, container: string): Part;
  /** Whether a container may be somewhere in a context. */
  mayHold(context: string, container: string): boolean;
}
