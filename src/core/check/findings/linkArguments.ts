import { lookup } from "../../model/lookup.ts";
import type { Entrance, Project, Screen } from "../../model/schema.ts";
import { patternVariables } from "../../model/template.ts";
import { bindInAddress } from "../fixes/arguments.ts";
import type { FindingKind, Found } from "./kind.ts";
import { needed, quote } from "./parts.ts";

export const linkArguments: FindingKind = {
  code: "link-arguments",
  severity: "blocker",
  says: "an address that does not say what its screen needs",
  help: "A required parameter is bound by no variable of the pattern, or it is a whole record, which no address can carry.",
  subjects: "the way in and the parameter",
  inDocument: find,
  fixes: (project, [id = "", name = ""]) => bindInAddress(project, id, name),
};

/** Patterns that bind no variable for a required parameter, and parameters of a record type behind a link. */
function find(project: Project): Found[] {
  return project.entrances.flatMap((entrance) => {
    const screen = lookup(project).screens.get(entrance.to);
    if (!screen || (entrance.pattern === undefined && entrance.kind !== "link")) return [];
    return [...unbound(project, entrance, screen), ...records(project, entrance, screen)];
  });
}

function unbound(project: Project, entrance: Entrance, screen: Screen): Found[] {
  if (entrance.pattern === undefined) return [];
  const given = entrance.pass ? Object.keys(entrance.pass) : patternVariables(entrance.pattern);
  return needed(screen)
    .filter((p) => !given.includes(p.name) && lookup(project).types.get(p.type) === undefined)
    .map((p) => ({
      subjects: [entrance.id, p.name],
      message: `The address ${entrance.pattern} says nothing of the "${p.name}" that ${quote(project, screen.id)} needs.`,
    }));
}

function records(project: Project, entrance: Entrance, screen: Screen): Found[] {
  return screen.params
    .filter((p) => lookup(project).types.has(p.type))
    .map((p) => ({
      subjects: [entrance.id, p.name],
      message: `${quote(project, screen.id)} wants a whole ${p.type} as "${p.name}", which no address can carry.`,
    }));
}
