import { nameOf } from "../../model/lookup.ts";
import type { Project } from "../../model/schema.ts";

/** What a search tells apart. Coarser is faster; what it can not settle is looked at with more precision. */
export interface Precision {
  /**
   * The facts of the app's own that are known, and beside them which entrance waits (`WAITING`) and in which order the members of a tab set
   * were visited (`visitsOf`), and which places are known not to lie beneath (`beneathOf`). What is not followed may be anything at any moment, and nobody chooses what.
   */
  follows: ReadonlySet<string>;
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
export const coarse = (follows: ReadonlySet<string>): Precision => ({ follows, contexts: "place", apart: false, whole: false });

/** Everything told apart that a search with hidden contexts can tell apart. */
export const closest = (project: Project): Precision => ({ follows: followable(project), contexts: "moment", apart: true, whole: false });

/** Under this name it is followed which entrance waits. Names such as these are no ids of facts. */
export const WAITING = "@waiting";

/** Under this name it is followed in which order the members of a tab set were visited. */
export const visitsOf = (tabs: string): string => `@visits.${tabs}`;

/** Under this name it is followed, where a place was looked for in a stack and not found, that it is not in it. */
export const beneathOf = (place: string): string => `@beneath.${place}`;

/** Under this name it is followed how far a rule has come in a run. */
export const ruleFollowed = (rule: string): string => `${RULE}${rule}`;

const RULE = "@rule.";

/** Under this name all that is hidden is told apart by how far the rules had come that are followed, and not only what may break one. */
export const PROGRESS = "@progress";

/** The rule that such a name is of; undefined for other names. */
export const ruleIn = (name: string): string | undefined => (name.startsWith(RULE) ? name.slice(RULE.length) : undefined);

/** The place of which such a name says that it lies beneath; undefined for other names. */
export const placeBeneath = (name: string): string | undefined => (name.startsWith(beneathOf("")) ? name.slice(beneathOf("").length) : undefined);

/** All that can be followed of a project, except for what is known to lie beneath. */
export function followable(project: Project): ReadonlySet<string> {
  return new Set([...appFacts(project), WAITING, ...project.containers.flatMap((c) => (c.kind === "tabs" && c.onBack === "previous" ? [visitsOf(c.id)] : []))]);
}

export function appFacts(project: Project): ReadonlySet<string> {
  return new Set(project.facts.filter((fact) => fact.source === "app").map((fact) => fact.id));
}

/** Whether what is followed by a name is a fact of the app's. */
export const isFact = (name: string | undefined): boolean => name !== undefined && !name.startsWith("@");

/** About how many more states following something brings, in no unit: 0 hardly any. */
export function costOf(name: string): number {
  return placeBeneath(name) !== undefined ? 0 : name === WAITING ? 1 : name.startsWith(visitsOf("")) ? 3 : 2;
}

/** What is not followed, in words. */
export function inWords(project: Project, name: string): string {
  if (name === WAITING) return "whether a way in waits";
  const place = placeBeneath(name);
  if (place !== undefined) return `whether "${nameOf(project, place)}" lies beneath`;
  const tabs = project.containers.find(({ id }) => visitsOf(id) === name);
  return tabs ? `the order in which the tabs of "${tabs.name}" were visited` : name;
}
