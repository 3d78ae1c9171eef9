import type { Proof, RuleStanding } from "./finding.ts";

/** How a rule stands, as a sentence. */
export function standingText({ standing, says }: RuleStanding): string {
  switch (standing) {
    case "proved":
      return "Proved for any depth of stack.";
    case "checked":
      return "Holds as far as the search came; not every state was looked at.";
    default:
      return says ?? "";
  }
}

/** By rule how it stands, as a sentence. */
export function standings({ rules = [] }: Pick<Proof, "rules">): Record<string, string> {
  return Object.fromEntries(rules.map((one) => [one.rule, standingText(one)]));
}
