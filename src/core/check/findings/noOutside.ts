import { changeContainer } from "../../model/edits/change.ts";
import { lookup } from "../../model/lookup.ts";
import type { Project } from "../../model/schema.ts";
import { named } from "../fixes/home.ts";
import type { FindingKind, Found } from "./kind.ts";
import { quote } from "./parts.ts";

export const noOutside: FindingKind = {
  code: "no-outside",
  severity: "warning",
  says: "a full-screen modal that counts on a tap outside",
  help: "It fills the screen, so there is no outside to tap.",
  subjects: "the modal",
  inDocument: find,
  fixes: (project, [id = ""]) => {
    const modal = lookup(project).containers.get(id);
    if (modal?.kind !== "modal") return [];
    const closeOn = [...modal.closeOn.filter((way) => way !== "outside" && way !== "button"), "button" as const];
    return [named(`Close ${quote(project, id)} by its × button instead`, changeContainer(project, id, { closeOn }))];
  },
};

/** Modals that fill the screen and count on being closed by a tap outside. */
function find(project: Project): Found[] {
  return project.containers.flatMap((c) =>
    c.kind === "modal" && c.shape === "full" && c.closeOn.includes("outside")
      ? [{ subjects: [c.id], message: `${quote(project, c.id)} fills the screen, so there is no outside to tap to close it.` }]
      : [],
  );
}
