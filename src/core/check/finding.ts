import type { Edit } from "../model/edits/edit.ts";
import type { NavEvent, Width } from "../model/schema.ts";

export type Severity = "blocker" | "warning" | "note";
export const SEVERITIES: readonly Severity[] = ["blocker", "warning", "note"];

/** How far a finding is to be believed: replayed, found but not replayed, or read off the document. */
export type Certainty = "shown" | "possible" | "certain";

export interface Finding {
  code: string;
  severity: Severity;
  /** Ids; the first is the main one. */
  subjects: string[];
  /** One sentence that a developer understands without the documentation. */
  message: string;
  certainty: Certainty;
  /** Events from launch that show it. */
  walk?: NavEvent[];
  /** It only says that something is not built yet. */
  open?: boolean;
  /** The widths in which it holds, where it does not hold in all that differ. */
  widths?: Width[];
  /** Repairs, each a named edit. */
  fixes: Edit[];
}

/**
 * How a rule of the team's fares: proved for any depth of stack; checked as far as the search came; broken; saying nothing, because what it
 * speaks of never happens; or unsettled, where the search finds it broken and no walk was found that breaks it.
 */
export type Standing = "proved" | "checked" | "broken" | "empty" | "unsettled";

export interface RuleStanding {
  /** The rule's id. */
  rule: string;
  standing: Standing;
  /** Why, as a sentence, where it is neither proved nor checked. */
  says?: string;
}

/** What a check covered. */
export interface Proof {
  /** Abstract states looked at, over all widths. */
  states: number;
  /** "any": stacks were followed to any depth; a number: the search stopped, and only what so many steps from a launch lead to was looked at whole. */
  depth: "any" | number;
  /** False where the search stopped before it had seen every state. */
  complete: boolean;
  entrances: string[];
  widths: Width[];
  /** Combinations of values of the app's own facts that occur. */
  factCombinations: number;
  screens: number;
  /** The team's rules, in the order of the document; left out where it has none. */
  rules?: RuleStanding[];
}

export interface CheckResult {
  findings: Finding[];
  /** Findings that the team has decided to live with, with the reason given. */
  accepted: Array<Finding & { reason: string }>;
  proof: Proof;
}
