import type { LensId } from "./lens.ts";

/** A lens by what it is called; kept apart from what it does, which is loaded where it is asked. */
export interface LensName {
  id: LensId;
  name: string;
  /** What it answers, as a question. */
  asks: string;
  /** Other words that people use for it. */
  words: readonly string[];
}

/** All lenses, in the order in which they are offered. */
export const LENSES: readonly LensName[] = [
  { id: "findings", name: "Findings", asks: "What is wrong, and where?", words: ["problems", "errors", "issues", "checker"] },
  { id: "reach", name: "Reach", asks: "How many taps away is each screen?", words: ["distance", "depth", "clicks", "far away", "taps", "shortest"] },
  { id: "walked", name: "Walked", asks: "What do the kept walks cover?", words: ["coverage", "tests", "tested", "untested", "walks"] },
  { id: "changed", name: "Changed", asks: "What changed since an older version?", words: ["diff", "compare", "changes", "versions", "since"] },
  {
    id: "followed",
    name: "Followed",
    asks: "Where does the running app go, and where does it depart?",
    words: ["log", "live", "running app", "usage", "analytics", "telemetry", "departures", "conformance"],
  },
  { id: "data", name: "Data", asks: "Where does a value go?", words: ["parameters", "arguments", "values", "passes", "needs"] },
];
