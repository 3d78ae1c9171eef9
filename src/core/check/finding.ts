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
}

export interface CheckResult {
  findings: Finding[];
  /** Findings that the team has decided to live with, with the reason given. */
  accepted: Array<Finding & { reason: string }>;
  proof: Proof;
}
