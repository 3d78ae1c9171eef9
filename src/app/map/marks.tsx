import type { Move } from "../../core/model/schema.ts";

/**
 * The ends of lines, by what the move does: on top, an open arrowhead; instead, a square;
 * over, two bars; back to, a hook; over to another lane, a ring. Form tells, not colour alone.
 */
export function LineEnds() {
  const shape = { fill: "none", stroke: "context-stroke", strokeWidth: 1.4 } as const;
  const common = { markerWidth: 12, markerHeight: 12, refX: 9, refY: 6, orient: "auto-start-reverse", markerUnits: "userSpaceOnUse" } as const;
  return (
    <defs>
      <marker id="end-push" {...common}>
        <path d="M3 1.5 9 6 3 10.5" {...shape} />
      </marker>
      <marker id="end-replace" {...common}>
        <rect x="3" y="3" width="6" height="6" {...shape} fill="context-stroke" />
      </marker>
      <marker id="end-open" {...common}>
        <path d="M5 1.5V10.5M9 1.5V10.5" {...shape} />
      </marker>
      <marker id="end-back" {...common}>
        <path d="M9 2V10M9 6H2" {...shape} />
      </marker>
      <marker id="end-lane" {...common}>
        <circle cx="6" cy="6" r="3" {...shape} />
      </marker>
    </defs>
  );
}

/** Which end and dash a move's line has. */
export function lineForm(move: Move | undefined): { end: string; dash: string | undefined } {
  switch (move?.kind) {
    case "push":
      return { end: "url(#end-push)", dash: undefined };
    case "replace":
    case "reset":
      return { end: "url(#end-replace)", dash: undefined };
    case "open":
      return { end: "url(#end-open)", dash: "2 3" };
    case "select":
      return { end: "url(#end-lane)", dash: undefined };
    case "return":
    case "back":
    case "up":
    case "close":
    case "proceed":
    case "menu":
    case "leave":
    case undefined:
      return { end: "url(#end-back)", dash: "6 3" };
  }
}
