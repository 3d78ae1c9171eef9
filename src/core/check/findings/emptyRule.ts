import type { FindingKind } from "./kind.ts";

/** Found for each rule by itself: rules/rules.ts. */
export const emptyRule: FindingKind = {
  code: "empty-rule",
  severity: "warning",
  says: "a rule of your own says nothing",
  help: "The rule holds only because something that it speaks of never happens, or is not there any longer. Name what you meant, or delete the rule.",
  subjects: "the rule",
};
