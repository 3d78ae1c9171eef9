import { lookup, upTarget } from "../../model/lookup.ts";
import type { Project } from "../../model/schema.ts";
import type { FindingKind, Found } from "./kind.ts";
import { quote } from "./parts.ts";

export const upCycle: FindingKind = {
  code: "up-cycle",
  severity: "blocker",
  says: "Up leads round without end",
  help: "Going up again and again comes back to the same screen. Let one of them lead to no Up, or further out.",
  subjects: "the screens, in document order",
  inDocument: find,
};

/** Up that leads round without end; the screens of the round, in document order. */
function find(project: Project): Found[] {
  const { screens } = lookup(project);
  const found = new Map<string, Found>();
  for (const screen of project.screens) {
    const path: string[] = [];
    let at: string | undefined = screen.id;
    while (at !== undefined && screens.has(at) && !path.includes(at)) {
      path.push(at);
      at = upTarget(project, at);
    }
    if (at === undefined || !path.includes(at)) continue;
    const round = new Set(path.slice(path.indexOf(at)));
    const subjects = project.screens.filter((s) => round.has(s.id)).map((s) => s.id);
    found.set(subjects.join(" "), { subjects, message: `Up leads round without end: ${subjects.map((id) => quote(project, id)).join(", ")}.` });
  }
  return [...found.values()];
}
