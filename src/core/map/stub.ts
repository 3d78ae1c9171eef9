import { giveOf, lookup, targetOf } from "../model/lookup.ts";
import { moveWord } from "../model/propose.ts";
import type { Leg, Project } from "../model/schema.ts";
import { cut, STUB_FITS } from "./measure.ts";

/** What stands on a stub: the target's name, or what the move does. */
export function stubLabel(project: Project, leg: Leg): string {
  const to = targetOf(leg);
  const place = to === undefined ? undefined : lookup(project).places.get(to);
  if (place) return (place.kind === "screen" ? place.screen.name : place.container.name) || place.id;
  const given = Object.keys(giveOf(leg) ?? {});
  return to ?? `${moveWord(leg.move)}${given.length > 0 ? `: ${given.join(", ")}` : ""}`;
}

/** What stands on a stub: the target's name, cut to what fits, and how many more legs start there. */
export function stubText(target: string, count: number): string {
  return cut(target, count > 1 ? STUB_FITS - 3 : STUB_FITS) + (count > 1 ? ` +${count - 1}` : "");
}

/** The width of a stub with a text, by the usual width of a letter. */
export function stubWidth(text: string): number {
  return Math.max(28, text.length * 6.1 + 12);
}
