import type { Project } from "../model/schema.ts";
import type { Json } from "../plan/data.ts";
import type { App, Node, State } from "../semantics/types.ts";
import type { Chooser } from "./chooser.ts";

/** How closely a project is followed. Coarser is faster; what it can not settle is followed more closely. */
export interface Closeness {
  /** The facts of the app's own that are known. Others may have any value at any moment, and nobody chooses which. */
  facts: ReadonlySet<string>;
  /** Told apart are a drawer's lane that was never visited and one left as it is made, and the pages that a modal was opened over. */
  apart: boolean;
  /** Nothing is hidden: each state stands for itself. There may be no end of them. */
  whole?: boolean;
}

export interface AbstractProject {
  /** Without arguments and outside facts. */
  project: Project;
  /** The same, to run. */
  app: App;
  original: Project;
  closeness: Closeness;
  /** Nothing is left out that could be followed. */
  closest: boolean;
  chooser: Chooser;
  /** Facts that are not followed and have been set in this event: how often, and to what, where that is plain. */
  assigned: Map<string, { known: Json | undefined; version: number }>;
  /** What lanes held when they were left, by lane and facts. */
  lanes: Map<string, Node[]>;
  /** Those of them on whose screen an arrive leg may lead on at once. */
  arriving: Map<string, Node[]>;
  /** Hidden lanes that were looked into since it was emptied last. */
  looked: Set<string>;
  /** By the facts of concrete states those that are followed. */
  followed: WeakMap<State["facts"], State["facts"]>;
  /** What is in a node, for those who look for a container. */
  held: WeakMap<Node, { containers: ReadonlySet<string>; marks: readonly string[] }>;
}
