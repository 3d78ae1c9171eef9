import { addElement } from "../../../core/model/edits/add.ts";
import { type Edit, freshId, quoted } from "../../../core/model/edits/edit.ts";
import { applyEdit, together } from "../../../core/model/edits/kinds.ts";
import { addArea } from "../../../core/model/edits/pictures.ts";
import { elementsOf, lookup, ownersAround, treeOf } from "../../../core/model/lookup.ts";
import type { Element, Picture, Project } from "../../../core/model/schema.ts";
import type { Rect } from "../../../core/pictures/snap.ts";
import { type LinkTarget, linkOf } from "../../session/actions/linking.ts";
import type { Session } from "../../session/session.ts";

/** What a new area is for: a control that is there, or a new element with where it leads. */
export type NewArea = ({ control: string } | { label: string; kind: Element["kind"]; to: LinkTarget | undefined }) & {
  /** The container on all of whose pictures alike it is to be; the screen alone without. */
  within: string | undefined;
};

/** The edit that makes an area with what it is for; one step to undo. */
export function areaEdit(session: Session, project: Project, screen: string, picture: Picture, at: Rect, what: NewArea): Edit {
  if ("control" in what) return addArea(project, screen, picture, { at, control: what.control }, what.within);
  // On all pictures alike it is one element, which the container has.
  const place = what.within ?? screen;
  // An area names an element by its id alone: no other on one of these screens may have it.
  const places = [screen, ...ownersAround(project, screen).map((container) => container.id), ...treeOf(project, place)];
  const id = freshId(what.label, new Set(places.flatMap((one) => elementsOf(project, one).map((element) => element.id))), "element");
  const added = addElement(place, { id, kind: what.kind, label: what.label, ...(what.kind === "icon" ? { at: "bar" } : {}) });
  const withElement = applyEdit(project, added);
  const link = what.to === undefined ? undefined : linkOf(session, withElement, { place, element: id }, what.to)?.edit;
  const linked = link ? applyEdit(withElement, link) : withElement;
  const own =
    lookup(linked)
      .screens.get(screen)
      ?.pictures?.find(({ file }) => file === picture.file) ?? picture;
  const area = addArea(linked, screen, own, { at, control: id }, what.within);
  return together(`Add ${what.kind} ${quoted(what.label)} with its area`, [added, ...(link ? [link] : []), area]);
}
