import { legExpressions, placeExpressions } from "../../model/expressions.ts";
import { firstScreen, lookup, upTarget } from "../../model/lookup.ts";
import type { Project } from "../../model/schema.ts";
import { patternVariables } from "../../model/template.ts";
import { dropParameter } from "../fixes/arguments.ts";
import type { FindingKind, Found } from "./kind.ts";
import { quote, readNames } from "./parts.ts";

export const unusedParameter: FindingKind = {
  code: "unused-parameter",
  severity: "note",
  says: "a parameter that its screen neither shows nor uses",
  help: "Every leg to the screen has to pass it for nothing.",
  subjects: "the screen and the parameter",
  inDocument: find,
  fixes: (project, [screen = "", name = ""]) => dropParameter(project, screen, name),
};

/** Parameters that nothing on their screen reads or shows. */
function find(project: Project): Found[] {
  const { legsFrom, containers } = lookup(project);
  const shared = [...containers.keys()].flatMap((id) => [
    ...placeExpressions(project, id),
    ...(legsFrom.get(id) ?? []).flatMap((leg) => legExpressions(project, leg)),
  ]);
  const everywhere = new Set(readNames(shared, "param"));
  return project.screens.flatMap((screen) => {
    if (screen.params.length === 0) return [];
    const read = new Set(
      readNames([...placeExpressions(project, screen.id), ...(legsFrom.get(screen.id) ?? []).flatMap((leg) => legExpressions(project, leg))], "param"),
    );
    if (screen.pages) read.add(screen.pages.by);
    for (const name of patternVariables(screen.path ?? "")) read.add(name);
    const up = upTarget(project, screen.id);
    for (const p of (up === undefined ? undefined : firstScreen(project, up))?.params ?? []) read.add(p.name);
    return screen.params
      .filter((p) => !read.has(p.name) && !everywhere.has(p.name))
      .map((p) => ({ subjects: [screen.id, p.name], message: `${quote(project, screen.id)} is handed "${p.name}" and neither shows nor uses it.` }));
  });
}
