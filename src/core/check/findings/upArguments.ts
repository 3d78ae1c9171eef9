import { changeScreen } from "../../model/edits/change.ts";
import { firstScreen, mustBePassed, upTarget } from "../../model/lookup.ts";
import type { Project } from "../../model/schema.ts";
import { named } from "../fixes/home.ts";
import type { FindingKind, Found } from "./kind.ts";
import { quote } from "./parts.ts";

export const upArguments: FindingKind = {
  code: "up-arguments",
  severity: "blocker",
  says: "Up leads to a screen that needs what this one does not have",
  help: "The screen above needs a value by a name that this screen has no parameter for.",
  subjects: "the screen, its up target and the parameter",
  inDocument: find,
  fixes: (project, [id = ""]) => [named(`Show no Up on ${quote(project, id)}`, changeScreen(project, id, { up: "none" }))],
};

/** Screens whose up target needs an argument that they do not have by that name. */
function find(project: Project): Found[] {
  return project.screens.flatMap((screen) => {
    const target = upTarget(project, screen.id);
    const shown = target === undefined ? undefined : firstScreen(project, target);
    if (target === undefined || !shown) return [];
    return shown.params
      .filter((p) => mustBePassed(p) && !screen.params.some((own) => own.name === p.name))
      .map((p) => ({
        subjects: [screen.id, target, p.name],
        message: `Up from ${quote(project, screen.id)} leads to ${quote(project, target)}, which needs "${p.name}", and ${quote(project, screen.id)} has none to hand on.`,
      }));
  });
}
