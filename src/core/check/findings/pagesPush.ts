import { changeLeg } from "../../model/edits/change.ts";
import { lookup } from "../../model/lookup.ts";
import { withPass } from "../../model/moves.ts";
import type { Project } from "../../model/schema.ts";
import { named } from "../fixes/home.ts";
import type { FindingKind, Found } from "./kind.ts";
import { quote, usesNeighbour } from "./parts.ts";

export const pagesPush: FindingKind = {
  code: "pages-push",
  severity: "warning",
  says: "paging that piles pages up",
  help: "A leg to the next or previous row of the same screen pushes, so that Back leads through every page. Replace instead.",
  subjects: "the leg",
  inDocument: find,
  fixes: (project, [id = ""]) => {
    const leg = lookup(project).legs.get(id);
    if (leg?.move?.kind !== "push") return [];
    const move = withPass({ kind: "replace", to: leg.move.to }, leg.move.pass);
    return [named("Replace the page instead of going on top of it", changeLeg(project, leg, { move }))];
  },
};

/** Legs to the same screen by a neighbour that push instead of replacing. */
function find(project: Project): Found[] {
  return project.legs.flatMap((leg) =>
    leg.move?.kind === "push" && leg.move.to === leg.from && usesNeighbour(project, leg).size > 0
      ? [
          {
            subjects: [leg.id],
            message: `The leg to the neighbour of ${quote(project, leg.from)} goes on top each time, so paging piles copies up; it should replace.`,
          },
        ]
      : [],
  );
}
