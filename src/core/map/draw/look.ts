/** How bad the worst finding of a place is. */
export type Severity = "blocker" | "warning" | "note";

/** How a screen stands in what is looked at: the page's own state, and what a lens says of it. */
export interface Look {
  /** The walk stands here. */
  here?: boolean;
  /** It lies beneath the place where the walk stands. */
  beneath?: boolean;
  selected?: boolean;
  /** Something else is in focus. */
  faint?: boolean;
  /** A leg that is being drawn would end here. */
  drop?: boolean;
  worst?: { severity: Severity; count: number };
  /** What the lens says: a tone for the ground, and a few signs. */
  lens?: { tone: LensTone; says: string; long: string };
}

/** The grounds that a lens gives: steps of a scale, and a few that stand for themselves. */
export type LensTone = "s0" | "s1" | "s2" | "s3" | "s4" | "s5" | "good" | "warm" | "urgent" | "none";
