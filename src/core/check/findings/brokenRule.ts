import type { FindingKind } from "./kind.ts";

/** Found for each rule by itself, with its own severity: rules/rules.ts. */
export const brokenRule: FindingKind = {
  code: "broken-rule",
  severity: "blocker",
  says: "a rule of your own does not hold",
  help: "You promised this of the app, and the walk shows a run that breaks it. Change what leads there, or the rule. How each kind of rule is meant is in docs/rules.md.",
  subjects: "the rule, and the screen that shows where the walk ends",
};
