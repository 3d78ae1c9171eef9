import { elementOf, firstScreen, ownersAround, targetOf } from "../../model/lookup.ts";
import type { Leg, Project } from "../../model/schema.ts";
import type { FindingKind, Found } from "./kind.ts";
import { quote } from "./parts.ts";

export const carryMismatch: FindingKind = {
  code: "carry-mismatch",
  severity: "warning",
  says: "what a transition carries does not fit",
  help: "An element that grows into another is missing on one side, carried twice, or its motion does not grow.",
  subjects: "the leg",
  inDocument: find,
};

/** Carried elements that are missing on a side, carried twice, or in a leg whose motion does not grow. */
function find(project: Project): Found[] {
  return project.legs.flatMap((leg) => {
    const carries = leg.motion?.carries ?? [];
    if (carries.length === 0) return [];
    const wrong = carryProblem(project, leg, carries);
    return wrong === undefined ? [] : [{ subjects: [leg.id], message: `What the leg from ${quote(project, leg.from)} carries does not fit: ${wrong}.` }];
  });
}

function carryProblem(project: Project, leg: Leg, carries: Array<{ from: string; to: string }>): string | undefined {
  if (leg.motion?.kind !== "grow") return `only the motion "grow" carries elements, not "${leg.motion?.kind}"`;
  const target = targetOf(leg);
  const to = target === undefined ? undefined : firstScreen(project, target)?.id;
  const known = (placeId: string, id: string) => [placeId, ...ownersAround(project, placeId).map((c) => c.id)].some((p) => elementOf(project, p, id));
  for (const [i, carry] of carries.entries()) {
    if (!known(leg.from, carry.from)) return `there is no element "${carry.from}" where it starts`;
    if (to !== undefined && !known(to, carry.to)) return `there is no element "${carry.to}" where it leads`;
    if (carries.findIndex((c) => c.from === carry.from || c.to === carry.to) < i) return `"${carry.from}" or "${carry.to}" is carried twice`;
  }
  return undefined;
}
