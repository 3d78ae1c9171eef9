import { legStart } from "../../model/describe.ts";
import { targetOf } from "../../model/lookup.ts";
import type { Project } from "../../model/schema.ts";
import type { FindingKind, Found } from "./kind.ts";

export const selfLeg: FindingKind = {
  code: "self-leg",
  severity: "note",
  says: "a leg that leads to where it starts",
  help: "It goes to the screen that it is on, with the same values.",
  subjects: "the leg",
  inDocument: find,
};

/** Legs that lead to the place that they start from, without other arguments. */
function find(project: Project): Found[] {
  return project.legs.flatMap((leg) => {
    const pass = leg.move && "pass" in leg.move ? (leg.move.pass ?? {}) : {};
    const same = Object.entries(pass).every(([name, source]) => source.trim() === `param.${name}`);
    return targetOf(leg) === leg.from && same ? [{ subjects: [leg.id], message: `The leg of ${legStart(project, leg)} leads to where it starts.` }] : [];
  });
}
