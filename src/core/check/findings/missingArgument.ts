import { firstScreen, lookup, passOf, passTarget } from "../../model/lookup.ts";
import type { Leg, Project, Screen } from "../../model/schema.ts";
import { handIn, handOn } from "../fixes/arguments.ts";
import type { FindingKind, Found } from "./kind.ts";
import { needed, quote } from "./parts.ts";

export const missingArgument: FindingKind = {
  code: "missing-argument",
  severity: "blocker",
  says: "a required parameter that is not passed",
  help: "The screen needs a value, and this leg or way in does not hand it over. Pass it, or make the parameter optional.",
  subjects: "the leg or way in, the screen and the parameter",
  inDocument: find,
  fixes: (project, [id = "", screen = "", name = ""]) => {
    const leg = lookup(project).legs.get(id);
    return leg ? handOn(project, leg, screen, name) : handIn(project, id, screen, name);
  },
};

/** Required parameters that a leg, or an entrance without a pattern, does not pass. */
function find(project: Project): Found[] {
  const legs = project.legs.flatMap((leg) => {
    const screen = shownBy(project, leg);
    const pass = passOf(leg);
    return screen && screen.params.length > 0 ? missing(project, leg.id, `The leg from ${quote(project, leg.from)}`, screen, pass) : [];
  });
  const entrances = project.entrances.flatMap((e) => {
    const screen = e.pattern === undefined ? lookup(project).screens.get(e.to) : undefined;
    return screen ? missing(project, e.id, `The way in ${quote(project, e.id)}`, screen, e.pass) : [];
  });
  return [...legs, ...entrances];
}

/** The screen that a leg's move creates, and so has to serve with arguments. */
function shownBy(project: Project, leg: Leg): Screen | undefined {
  if (leg.move?.kind === "return" && leg.move.orElse === "nothing") return undefined;
  const target = passTarget(project, leg);
  return target === undefined ? undefined : firstScreen(project, target);
}

function missing(project: Project, id: string, who: string, screen: Screen, pass: Record<string, string> | undefined): Found[] {
  return needed(screen)
    .filter((p) => pass?.[p.name] === undefined)
    .map((p) => ({ subjects: [id, screen.id, p.name], message: `${who} leads to ${quote(project, screen.id)} without the "${p.name}" that it needs.` }));
}
