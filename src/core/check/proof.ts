import type { Proof, RuleStanding } from "./finding.ts";

/** The proof as a sentence: "No dead ends: proved for any depth of stack, 10 screens, 2 ways in." */
export function proofText(proof: Proof): string {
  const some = (n: number, one: string, many: string) => `${n} ${n === 1 ? one : many}`;
  const over = `${some(proof.screens, "screen", "screens")}, ${some(proof.entrances.length, "way in", "ways in")}, ${some(proof.factCombinations, "fact combination", "fact combinations")}${proof.widths.length > 1 ? ", all widths" : ""}`;
  return proof.complete
    ? `Proved for any depth of stack: ${over}${proof.rules ? `; ${rulesText(proof.rules)}` : ""}`
    : `Not complete: looked at ${proof.states} states, ${proof.depth === Number.MAX_SAFE_INTEGER ? "but not at every way in which one of its conditions may turn out" : `whole to ${proof.depth} steps from launch`} (${over})`;
}

/** How many of the team's rules hold: "4 of 5 rules hold". */
function rulesText(rules: readonly RuleStanding[]): string {
  const held = rules.filter(({ standing }) => standing === "proved").length;
  return `${held} of ${rules.length} ${rules.length === 1 ? "rule holds" : "rules hold"}`;
}
