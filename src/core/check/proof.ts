import type { Proof } from "./finding.ts";

/** The proof as a sentence: "No dead ends: proved for any depth of stack, 10 screens, 2 ways in." */
export function proofText(proof: Proof): string {
  const over = `${proof.screens} screens, ${proof.entrances.length} ways in, ${proof.factCombinations} fact combinations${proof.widths.length > 1 ? ", all widths" : ""}`;
  return proof.complete
    ? `Proved for any depth of stack: ${over}`
    : `Not complete: looked at ${proof.states} states, whole to ${proof.depth} steps from launch (${over})`;
}
