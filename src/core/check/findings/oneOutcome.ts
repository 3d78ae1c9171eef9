import { elementIdOf, lookup } from "../../model/lookup.ts";
import type { Project } from "../../model/schema.ts";
import type { FindingKind, Found } from "./kind.ts";
import { quote, withElements } from "./parts.ts";

export const oneOutcome: FindingKind = {
  code: "one-outcome",
  severity: "warning",
  says: "a control that knows one outcome only",
  help: "What if it comes out otherwise? Add a leg for the other outcome, or leave the outcome out.",
  subjects: "the place and the element",
  inDocument: find,
};

/** Elements whose legs name only one outcome. */
function find(project: Project): Found[] {
  return withElements(project, (placeId, elements) => {
    const legs = (lookup(project).legsFrom.get(placeId) ?? []).flatMap((leg) =>
      "outcome" in leg.on && leg.on.outcome !== undefined ? [{ element: elementIdOf(leg), outcome: leg.on.outcome }] : [],
    );
    if (legs.length === 0) return [];
    return elements.flatMap((e) => {
      const outcomes = new Set(legs.flatMap(({ element, outcome }) => (element === e.id ? [outcome] : [])));
      return outcomes.size === 1
        ? [
            {
              subjects: [placeId, e.id],
              message: `"${e.label}" on ${quote(project, placeId)} knows only the outcome "${[...outcomes][0]}": what if it comes out otherwise?`,
            },
          ]
        : [];
    });
  });
}
