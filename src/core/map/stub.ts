import { giveOf, lookup, targetOf } from "../model/lookup.ts";
import { moveWord } from "../model/propose.ts";
import type { Leg, Project } from "../model/schema.ts";

/** What stands on a stub: the target's name, or what the move does. */
export function stubLabel(project: Project, leg: Leg): string {
  const to = targetOf(leg);
  const place = to === undefined ? undefined : lookup(project).places.get(to);
  if (place) return (place.kind === "screen" ? place.screen.name : place.container.name) || place.id;
  const given = Object.keys(giveOf(leg) ?? {});
  return to ?? `${moveWord(leg.move)}${given.length > 0 ? `: ${given.join(", ")}` : ""}`;
}
