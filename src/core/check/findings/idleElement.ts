import { removeElement } from "../../model/edits/remove.ts";
import { elementIdOf, lookup } from "../../model/lookup.ts";
import type { Project } from "../../model/schema.ts";
import type { FindingKind, Found } from "./kind.ts";
import { ANSWERING, quote, withElements } from "./parts.ts";

export const idleElement: FindingKind = {
  code: "idle-element",
  severity: "warning",
  says: "a control without a leg",
  help: "It looks as if it did something, and nothing starts at it. Lead it somewhere, or show it as text.",
  subjects: "the place and the element",
  inDocument: find,
  open: () => true,
  fixes: (project, [place = "", element = ""]) => [removeElement(project, place, element)],
};

/** Buttons, icons, links, lists and pagers that no leg starts at; planned screens aside. */
function find(project: Project): Found[] {
  return withElements(project, (placeId, elements) => {
    if (lookup(project).screens.get(placeId)?.planned) return [];
    const used = new Set((lookup(project).legsFrom.get(placeId) ?? []).map(elementIdOf));
    return elements
      .filter((e) => ANSWERING.includes(e.kind) && !used.has(e.id))
      .map((e) => ({ subjects: [placeId, e.id], message: `"${e.label}" on ${quote(project, placeId)} leads nowhere: no leg starts at it.` }));
  });
}
