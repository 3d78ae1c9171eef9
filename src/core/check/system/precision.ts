import type { Project } from "../../model/schema.ts";

/** What a search tells apart. Coarser is faster; what it can not settle is looked at with more precision. */
export interface Precision {
  /** The facts of the app's own that are known. Others may have any value at any moment, and nobody chooses which. */
  facts: ReadonlySet<string>;
  /**
   * Contexts are known by their place alone, or also by the moment at which they came about: by the facts then, the order in which tabs
   * had been visited and what lay next beneath.
   */
  contexts: "place" | "moment";
  /** Told apart are a drawer's member that was never visited and one left as it is made, and the pages that a modal was opened over. */
  apart: boolean;
  /** Nothing is hidden: each state stands for itself. There may be no end of them. */
  whole: boolean;
}

/** The coarsest look: what is hidden is known by its place alone. */
export const coarse = (facts: ReadonlySet<string>): Precision => ({ facts, contexts: "place", apart: false, whole: false });

/** Everything told apart that a search with hidden contexts can tell apart. */
export const closest = (project: Project): Precision => ({ facts: appFacts(project), contexts: "moment", apart: true, whole: false });

export function appFacts(project: Project): ReadonlySet<string> {
  return new Set(project.facts.filter((fact) => fact.source === "app").map((fact) => fact.id));
}
