import { removeAreas } from "../../model/edits/pictures.ts";
import { areaProblem } from "../../model/pictures.ts";
import type { Project } from "../../model/schema.ts";
import type { FindingKind, Found } from "./kind.ts";
import { quote } from "./parts.ts";

export const lostArea: FindingKind = {
  code: "lost-area",
  severity: "warning",
  says: "an area that stands for nothing",
  help: "An area of a picture stands for a control that the screen does not have, or lies outside the picture. People who tap there get nothing. Give the area another control, move it, or delete it.",
  subjects: "the screen and the control",
  inDocument: find,
  fixes: (project, [screen = "", control = ""]) => [removeAreas(project, screen, control)],
};

/** Areas whose control is not on the screen, or that lie outside their picture. */
function find(project: Project): Found[] {
  return project.screens.flatMap((screen) =>
    (screen.pictures ?? []).flatMap((picture) =>
      picture.areas.flatMap((area) => {
        const problem = areaProblem(project, screen.id, picture, area);
        return problem ? [{ subjects: [screen.id, area.control], message: `An area on "${picture.file}" of ${quote(project, screen.id)} ${problem}.` }] : [];
      }),
    ),
  );
}
