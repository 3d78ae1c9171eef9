import { legStart } from "../../model/describe.ts";
import type { Leg, Project } from "../../model/schema.ts";
import { triggerKey } from "../../plan/lower/legs.ts";
import type { FindingKind, Found } from "./kind.ts";

export const ambiguous: FindingKind = {
  code: "ambiguous",
  severity: "blocker",
  says: "a leg that never fires because another comes first",
  help: "Two legs start at the same trigger, and the earlier one has no condition. Give it one, or put it last.",
  subjects: "the later leg and the earlier",
  inDocument: find,
};

/** Later legs that never fire, because an earlier one with the same source and trigger has no condition. */
function find(project: Project): Found[] {
  const seen = new Map<string, Leg[]>();
  return project.legs.flatMap((leg) => {
    const key = triggerKey(leg);
    const before = seen.get(key);
    const earlier = before?.find((other) => other.when === undefined && covers(other, leg));
    if (before) before.push(leg);
    else seen.set(key, [leg]);
    return earlier && leg.on.kind !== "after"
      ? [
          {
            subjects: [leg.id, earlier.id],
            message: `A leg of ${legStart(project, leg)} never fires: another comes before it on the same trigger, without a condition.`,
          },
        ]
      : [];
  });
}

function covers(earlier: Leg, later: Leg): boolean {
  if (earlier.on.kind !== "depart" || later.on.kind !== "depart") return true;
  const { by } = earlier.on;
  return by === undefined || (later.on.by?.every((kind) => by.includes(kind)) ?? false);
}
