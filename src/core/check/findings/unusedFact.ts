import { entranceExpressions, legExpressions, placeExpressions, ruleExpressions } from "../../model/expressions.ts";
import { lookup } from "../../model/lookup.ts";
import type { Project } from "../../model/schema.ts";
import type { FindingKind, Found } from "./kind.ts";
import { readNames } from "./parts.ts";

export const unusedFact: FindingKind = {
  code: "unused-fact",
  severity: "note",
  says: "a fact that nothing asks or shows",
  help: "It is set, or not even that, and nothing depends on it.",
  subjects: "the fact",
  inDocument: find,
};

/** Facts that nothing reads or shows. */
function find(project: Project): Found[] {
  const { places } = lookup(project);
  const all = [
    ...[...places.keys()].flatMap((id) => placeExpressions(project, id)),
    ...project.legs.flatMap((leg) => legExpressions(project, leg)),
    ...project.entrances.flatMap((e) => entranceExpressions(project, e)),
    ...(project.rules ?? []).flatMap((rule) => ruleExpressions(project, rule)),
  ];
  const read = new Set(readNames(all, "fact"));
  return project.facts.filter((f) => !read.has(f.id)).map((f) => ({ subjects: [f.id], message: `The fact "${f.name ?? f.id}" is never asked or shown.` }));
}
