import { lookup, treeOf } from "../../model/lookup.ts";
import type { Project } from "../../model/schema.ts";
import type { FindingKind, Found } from "./kind.ts";
import { quote } from "./parts.ts";

export const unusedElement: FindingKind = {
  code: "unused-element",
  severity: "note",
  says: "a shared control that no screen shows",
  help: "Every screen in the container is excepted.",
  subjects: "the container and the element",
  inDocument: find,
};

/** Shared elements that no screen shows, because each is excepted. */
function find(project: Project): Found[] {
  return project.containers.flatMap((c) => {
    const screens = treeOf(project, c.id).filter((id) => lookup(project).screens.has(id));
    return (c.elements ?? [])
      .filter((e) => screens.every((id) => e.except?.includes(id)))
      .map((e) => ({ subjects: [c.id, e.id], message: `"${e.label}" of ${quote(project, c.id)} is excepted on every screen in it, so nobody ever sees it.` }));
  });
}
