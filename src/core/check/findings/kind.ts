import type { Edit } from "../../model/edits/edit.ts";
import type { PictureFiles } from "../../model/pictures.ts";
import type { Project } from "../../model/schema.ts";
import type { State } from "../../semantics/types.ts";
import type { LastStep } from "../counterexample/replay.ts";
import type { Help } from "../counterexample/wayOut.ts";
import type { Severity } from "../finding.ts";
import type { Candidate, Graph } from "../reach/graph.ts";

/** What is found in the document itself: subjects, the first the main one, and the sentence. */
export interface Found {
  subjects: string[];
  message: string;
}

/** One kind of finding: how it is found, what shows it, what fixes it, and how it is told. */
export interface FindingKind {
  code: string;
  severity: Severity;
  /** What it says, in a few words: for lists. */
  says: string;
  /** What it means to the people who use the app, and what to do about it: for the help in the page and docs/findings.md. */
  help: string;
  /** What its subjects are, the first the main one. */
  subjects: string;
  /** Reads it off the document. `hubs` are the screens that people must always be able to get back to; `files` those of its pictures, where they are known. */
  inDocument?: (project: Project, hubs: ReadonlySet<string>, files?: PictureFiles) => Found[];
  /** Finds it among the states of a search. */
  inSearch?: (graph: Graph) => Candidate[];
  /** It holds only if it does in every class of widths. */
  everywhere?: boolean;
  /** Whether it is so in a state at the end of a walk; outside facts are set so that it is. */
  holds?: (project: Project, state: State, subjects: readonly string[]) => boolean;
  /** Whether what the search is not sure of is so at the end of a walk. */
  surely?: (project: Project, state: State) => boolean;
  /** The facts that decide it where it shows; all that the steps there ask for, where it is left out. */
  asks?: (project: Project, subjects: readonly string[]) => string[];
  /** What else decides it, by the names of what a search can follow (precision.ts). */
  rests?: (project: Project, subjects: readonly string[]) => string[];
  /** The place that a walk must have put beneath the top of a stack to show it, where the shortest walks do not. */
  beneath?: (subjects: readonly string[]) => string | undefined;
  /** Whether the last step of a walk shows it; where it is left out, that the walk gets there does. */
  shows?: (candidate: Candidate, step: LastStep) => boolean;
  /** What would prove it wrong, where it says that nothing helps. */
  helps?: Help;
  /** Whether it only says that something is not built yet. */
  open?: (project: Project, subjects: readonly string[]) => boolean;
  /** Fixes, the best first. */
  fixes?: (project: Project, subjects: readonly string[]) => Edit[];
}
