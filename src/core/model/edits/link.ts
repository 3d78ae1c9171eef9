import { elementIdOf, elementOf, lookup, nameOf } from "../lookup.ts";
import { type Proposal, propose } from "../propose.ts";
import type { Leg, Project } from "../schema.ts";
import { addLeg, addScreen, freshLegId, freshPlaceId, newScreen, together } from "./add.ts";
import { wrap, wrapped } from "./arrange.ts";
import { changeLeg } from "./change.ts";
import { type Edit, quoted } from "./edit.ts";

export interface Link {
  edit: Edit;
  legId: string;
  proposal: Proposal;
}

/**
 * Leads an element to a place by the move that suits it. An element that has one plain leg
 * already is led there instead, so that linking again corrects and never doubles.
 */
export function linkElement(project: Project, placeId: string, elementId: string, to: string): Link {
  const proposal = propose(project, placeId, elementId, to);
  const known = plainLeg(project, placeId, elementId);
  if (known) return { edit: changeLeg(project, known, { move: proposal.move }, `Lead to ${quoted(nameOf(project, to))}: target`), legId: known.id, proposal };
  const kind = elementOf(project, placeId, elementId)?.kind;
  const leg: Leg = {
    id: freshLegId(project, `${placeId} ${elementId}`),
    from: placeId,
    on: { kind: kind === "field" ? "submit" : "tap", element: elementId },
    move: proposal.move,
  };
  return { edit: addLeg(project, leg), legId: leg.id, proposal };
}

/** The only leg of an element, if it has no condition and no outcome. */
function plainLeg(project: Project, placeId: string, elementId: string): Leg | undefined {
  const legs = (lookup(project).legsFrom.get(placeId) ?? []).filter((leg) => elementIdOf(leg) === elementId);
  const [only] = legs;
  const plain =
    only &&
    legs.length === 1 &&
    only.when === undefined &&
    "element" in only.on &&
    (only.on.kind === "swipe" || ("outcome" in only.on && only.on.outcome === undefined) || !("outcome" in only.on));
  return plain ? only : undefined;
}

/** Makes a new screen beside the source and leads the element there, as one edit. */
export function linkToNewScreen(project: Project, placeId: string, elementId: string, name: string): Link & { screenId: string } {
  const { edit, screenId } = addScreenBeside(project, placeId, name);
  const link = linkElement(edit.apply(project), placeId, elementId, screenId);
  return { ...link, screenId, edit: together(`Lead to the new screen ${quoted(name)}`, [edit, link.edit]) };
}

/**
 * Adds a screen to the container that holds a place, or to the container itself. Where the app
 * is still one bare screen, the two are put into a stack, so that one can lead to the other and back.
 */
export function addScreenBeside(project: Project, placeId: string | undefined, name: string): { edit: Edit; screenId: string } {
  const { containers, owners, screens } = lookup(project);
  const screenId = freshPlaceId(project, name);
  const screen = newScreen(screenId, name);
  const owner =
    placeId !== undefined && containers.has(placeId) ? placeId : (owners.get(placeId ?? "")?.id ?? (containers.has(project.root) ? project.root : undefined));
  if (owner !== undefined || !screens.has(project.root)) return { edit: addScreen(screen, owner), screenId };
  const wrapped = wrap(project, [project.root], "stack", "Main");
  const stack = wrapped.apply(project).root;
  return { edit: together(`Add screen ${quoted(name)}`, [wrapped, addScreen(screen, stack)]), screenId };
}

/**
 * Makes a new modal and leads the element there, as one edit: with a new screen in it, or around
 * a screen that is there already, whose other legs are kept right.
 */
export function linkToNewModal(project: Project, placeId: string, elementId: string, what: { name: string } | { around: string }): Link & { modalId: string } {
  const around = "around" in what ? what.around : undefined;
  const name = "name" in what ? what.name : nameOf(project, what.around);
  const screenId = around ?? freshPlaceId(project, name);
  const modalName = `${name} sheet`;
  const added: Edit[] = around === undefined ? [{ name: "", apply: (p) => ({ ...p, screens: [...p.screens, newScreen(screenId, name)] }) }] : [];
  const before = added.reduce((p, edit) => edit.apply(p), project);
  const { id, project: after } = wrapped(before, [screenId], "modal", modalName);
  const link = linkElement(after, placeId, elementId, id);
  const edits: Edit[] = [...added, { name: "", apply: (p) => wrapped(p, [screenId], "modal", modalName).project }, link.edit];
  return { ...link, modalId: id, edit: together(`Lead to ${quoted(name)} in a new modal`, edits) };
}
