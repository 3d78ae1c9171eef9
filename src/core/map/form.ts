import type { Move } from "../model/schema.ts";

/**
 * The ends of lines, by what the move does: on top, an open arrowhead; instead, a square;
 * over, two bars; back to, a hook; over to another lane, a ring. Form tells, not colour alone.
 * Each is a path in a box of 12 by 12 that a line enters from the left, ending at 9, 6.
 */
export const ENDS = {
  push: { d: "M3 1.5 9 6 3 10.5", filled: false },
  replace: { d: "M3 3h6v6h-6Z", filled: true },
  open: { d: "M5 1.5V10.5M9 1.5V10.5", filled: false },
  back: { d: "M9 2V10M9 6H2", filled: false },
  lane: { d: "M9 6a3 3 0 1 1-6 0a3 3 0 1 1 6 0Z", filled: false },
} as const;
export type End = keyof typeof ENDS;

/** Which end and which dashes the line of a move has. */
export function lineForm(move: Move | undefined): { end: End; dash: string | undefined } {
  switch (move?.kind) {
    case "push":
      return { end: "push", dash: undefined };
    case "replace":
    case "reset":
      return { end: "replace", dash: undefined };
    case "open":
      return { end: "open", dash: "2 3" };
    case "select":
      return { end: "lane", dash: undefined };
    case "return":
    case "back":
    case "up":
    case "close":
    case "proceed":
    case "menu":
    case "leave":
    case undefined:
      return { end: "back", dash: "6 3" };
  }
}
