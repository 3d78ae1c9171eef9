import { changeLeg } from "../../model/edits/change.ts";
import type { Edit } from "../../model/edits/edit.ts";
import { lookup } from "../../model/lookup.ts";
import type { Leg, Project } from "../../model/schema.ts";
import type { FindingKind, Found } from "./kind.ts";
import { quote, usesNeighbour } from "./parts.ts";

export const pastTheEnd: FindingKind = {
  code: "past-the-end",
  severity: "warning",
  says: "paging that does not ask whether there is a neighbour",
  help: "At the last row there is no next one. Ask has(next.…) in the condition, and the control is off at the end.",
  subjects: "the leg",
  inDocument: find,
  fixes: (project, [id = ""]) => {
    const leg = lookup(project).legs.get(id);
    return leg ? [askNeighbour(project, leg)] : [];
  },
};

/** Legs that use a neighbour without asking in their condition whether there is one. */
function find(project: Project): Found[] {
  return project.legs.flatMap((leg) => {
    const unasked = [...usesNeighbour(project, leg)].filter((name) => !new RegExp(`\\bhas\\(\\s*${name}\\.`).test(leg.when ?? ""));
    return unasked.length === 0
      ? []
      : [
          {
            subjects: [leg.id],
            message: `The leg from ${quote(project, leg.from)} uses "${unasked[0]}" without asking has(${unasked[0]}.…): at the end there is none.`,
          },
        ];
  });
}

function askNeighbour(project: Project, leg: Leg): Edit {
  const sources = JSON.stringify(leg.move ?? {}) + JSON.stringify(leg.set ?? {});
  const used = (["next", "prev"] as const).flatMap((name) => {
    const field = new RegExp(`\\b${name}\\.(\\w+)`).exec(sources)?.[1];
    return field !== undefined && !new RegExp(`has\\(\\s*${name}\\.`).test(leg.when ?? "") ? [`has(${name}.${field})`] : [];
  });
  return {
    ...changeLeg(project, leg, { when: [...(leg.when === undefined ? [] : [`(${leg.when})`]), ...used].join(" && ") }),
    name: `Ask ${used.join(" and ")} first`,
  };
}
