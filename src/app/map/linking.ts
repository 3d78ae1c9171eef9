import type { Doing } from "../../core/insight/nowhere.ts";
import { proposal } from "../../core/insight/proposal.ts";
import { type Link, linkElement, linkToDoing, linkToNewModal, linkToNewScreen } from "../../core/model/edits/link.ts";
import { useDocument } from "../store/document.ts";
import { useSelection } from "../store/selection.ts";
import { walkStateNow } from "../store/walk.ts";

/** Where the element that is being linked leads: a place, something to do that is no place, or a screen yet to be made, by itself or in a modal. */
export type LinkTarget = string | { doing: Doing } | { screen: string } | { modal: string } | { modalAround: string };

/** Ends the picking of a target: the leg is made (or led elsewhere) and chosen. Escape right afterwards takes it back. */
export function linkTo(target: LinkTarget, from = useSelection.getState().linking) {
  const { project, apply } = useDocument.getState();
  if (!from) return;
  const made = linkOf(project, from, target);
  apply(made.edit);
  const { project: now } = useDocument.getState();
  if (now !== project) useSelection.getState().made(made.legId, now);
  else {
    // It leads there already: nothing was made that could be taken back.
    useSelection.getState().link(undefined);
    useSelection.getState().select({ kind: "leg", id: made.legId });
  }
}

function linkOf(
  project: ReturnType<typeof useDocument.getState>["project"],
  from: { place: string; element: string },
  target: LinkTarget,
): Pick<Link, "edit" | "legId"> {
  if (typeof target === "string")
    return linkElement(project, from.place, from.element, target, proposal(project, from.place, from.element, target, walkStateNow()));
  if ("doing" in target) return linkToDoing(project, from.place, from.element, target.doing.name, target.doing.does);
  if ("screen" in target) return linkToNewScreen(project, from.place, from.element, target.screen);
  if ("modal" in target) return linkToNewModal(project, from.place, from.element, { name: target.modal });
  return linkToNewModal(project, from.place, from.element, { around: target.modalAround });
}
