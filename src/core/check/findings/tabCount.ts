import type { Project } from "../../model/schema.ts";
import type { FindingKind, Found } from "./kind.ts";
import { quote } from "./parts.ts";

export const tabCount: FindingKind = {
  code: "tab-count",
  severity: "warning",
  says: "one tab, or more than five at the bottom",
  help: "A single tab chooses nothing, and more than five at the bottom do not fit a hand.",
  subjects: "the tabs",
  inDocument: find,
};

/** Tab sets with one member, and bottom bars with more than five. */
function find(project: Project): Found[] {
  return project.containers.flatMap((c) => {
    if (c.kind !== "tabs") return [];
    if (c.members.length === 1) return [{ subjects: [c.id], message: `The tab set ${quote(project, c.id)} has only one tab.` }];
    return c.edge === "bottom" && c.members.length > 5
      ? [{ subjects: [c.id], message: `The bottom bar of ${quote(project, c.id)} has ${c.members.length} tabs; more than five do not fit a hand.` }]
      : [];
  });
}
