import { changeContainer } from "../../model/edits/change.ts";
import { lookup } from "../../model/lookup.ts";
import { closed } from "../counterexample/wayOut.ts";
import { named } from "../fixes/home.ts";
import { type Candidate, type Graph, note } from "../reach/graph.ts";
import type { FindingKind } from "./kind.ts";
import { quote } from "./parts.ts";

export const stuckModal: FindingKind = {
  code: "stuck-modal",
  severity: "blocker",
  says: "once a modal is open, nothing closes it",
  help: "Neither a control nor Back gets rid of the modal any more once it is open in some state. Let it be closed by its button or by Back, or give it a control that closes it.",
  subjects: "the modal",
  inSearch: find,
  helps: closed,
  fixes: (project, [id = ""]) => {
    const modal = lookup(project).containers.get(id);
    if (modal?.kind !== "modal") return [];
    const closeOn = [...new Set([...modal.closeOn, "button" as const, "back" as const])];
    return [named(`Let ${quote(project, id)} be closed by its button and Back`, changeContainer(project, id, { closeOn }))];
  },
};

/** Modals that in some state are open and can never be got rid of. */
function find({ project, stuck, name }: Graph): Candidate[] {
  const found = new Map<string, Candidate>();
  for (const [node, modals] of stuck)
    for (const modal of modals)
      if (project.containers.some((c) => c.id === modal))
        note(found, [modal], { node }, () => `${name(modal)} cannot be closed: once it is open, nothing that people do closes it.`);
  return [...found.values()];
}
