import type { Move } from "./schema.ts";

/** A move that newly shows a place, and so can hand arguments on to it. */
export type PassingMove = Extract<Move, { kind: "push" | "replace" | "reset" | "return" | "open" }>;

/** Whether a move can hand on arguments. */
export function takesPass(move: Move): move is PassingMove {
  return move.kind === "push" || move.kind === "replace" || move.kind === "reset" || move.kind === "return" || move.kind === "open";
}

/** A move that hands on other arguments, or none; a move that cannot hand on any stays as it is. */
export function withPass(move: Move, pass: Record<string, string> | undefined): Move {
  if (!takesPass(move)) return move;
  const { pass: _, ...rest } = move;
  return pass ? { ...rest, pass } : rest;
}

/** A move with other expressions for what it passes and what it hands back. */
export function withSources(move: Move, change: (values: Record<string, string>) => Record<string, string>): Move {
  const passes = "pass" in move && move.pass ? { pass: change(move.pass) } : {};
  const gives = "give" in move && move.give ? { give: change(move.give) } : {};
  return { ...move, ...passes, ...gives } as Move;
}

/** A move that hands back other values, or none; a move that cannot hand anything back stays as it is. */
export function withGive(move: Move, give: Record<string, string> | undefined): Move {
  if (!takesGive(move)) return move;
  const { give: _, ...rest } = move;
  return give && Object.keys(give).length > 0 ? { ...rest, give } : rest;
}

/** A move that goes back to something that stands there already, and so can hand it a result. */
export type GivingMove = Extract<Move, { kind: "back" | "close" | "return" }>;

/** Whether a move can hand something back. */
export function takesGive(move: Move): move is GivingMove {
  return move.kind === "back" || move.kind === "close" || move.kind === "return";
}
