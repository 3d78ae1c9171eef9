import { elementIdOf, elementOf, lookup, nameOf, ownersAround } from "../lookup.ts";
import { moveSentence, type Proposal, propose } from "../propose.ts";
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
 * already is led there instead, so that linking again corrects and never doubles. `proposal` is the move, where it is known better.
 */
export function linkElement(project: Project, placeId: string, elementId: string, to: string, proposal = propose(project, placeId, elementId, to)): Link {
  const known = plainLeg(project, placeId, elementId);
  if (known) return { edit: changeLeg(project, known, { move: proposal.move }, `Lead to ${quoted(nameOf(project, to))}`), legId: known.id, proposal };
  const kind = elementOf(project, placeId, elementId)?.kind;
  const leg: Leg = {
    id: freshLegId(project, `${placeId} ${elementId}`),
    from: placeId,
    on: { kind: kind === "field" ? "submit" : "tap", element: elementId },
    move: proposal.move,
  };
  return { edit: addLeg(project, leg), legId: leg.id, proposal };
}

/** Has an element do something that leads to no place: back, closing, setting a fact. Its one plain leg does that instead, where it has one. */
export function linkToDoing(
  project: Project,
  placeId: string,
  elementId: string,
  name: string,
  does: Pick<Leg, "move" | "set">,
): { edit: Edit; legId: string } {
  const known = plainLeg(project, placeId, elementId);
  if (known) return { edit: changeLeg(project, known, { move: does.move, ...(does.set ? { set: does.set } : {}) }, name), legId: known.id };
  const kind = elementOf(project, placeId, elementId)?.kind;
  const id = freshLegId(project, `${placeId} ${elementId}`);
  const leg: Leg = { id, from: placeId, on: { kind: kind === "field" ? "submit" : "tap", element: elementId }, ...does };
  return { edit: { ...addLeg(project, leg), name }, legId: id };
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

/**
 * Makes a new screen and leads the element there, as one edit: it is put on top of the source, in the stack around it. Where there
 * is none (a bare screen in a modal, tabs or a drawer), one is made around the source first. A control of a tab set or a drawer
 * puts it on top of whatever it shows, and so never makes one more tab.
 */
export function linkToNewScreen(project: Project, placeId: string, elementId: string, name: string): Link & { screenId: string } {
  const screenId = freshPlaceId(project, name);
  const { edit: stacked, stack } = stackFor(project, placeId);
  const added = addScreen(newScreen(screenId, name), stack);
  const edit = stacked ? together("", [stacked, added]) : added;
  const after = edit.apply(project);
  const move = { kind: "push", to: screenId } as const;
  const link = linkElement(after, placeId, elementId, screenId, { move, sentence: moveSentence(after, placeId, move) });
  return { ...link, screenId, edit: together(`Lead to the new screen ${quoted(name)}`, [edit, link.edit]) };
}

/** The stack that a place puts screens on, and the edit that makes one where there is none. */
function stackFor(project: Project, placeId: string): { edit?: Edit; stack: string | undefined } {
  const { containers } = lookup(project);
  const around = ownersAround(project, placeId).find((c) => c.kind === "stack")?.id;
  const container = containers.get(placeId);
  if (!container) return around === undefined ? stackAround(project, placeId) : { stack: around };
  const start = containers.get(container.start);
  if (container.kind === "stack") return { stack: placeId };
  if (start?.kind === "stack") return { stack: start.id };
  if (around !== undefined && container.kind !== "modal") return { stack: around };
  return start ? stackFor(project, start.id) : stackAround(project, container.start);
}

function stackAround(project: Project, placeId: string): { edit?: Edit; stack: string | undefined } {
  if (!lookup(project).places.has(placeId)) return { stack: undefined };
  const name = placeId === project.root ? "Main" : `${nameOf(project, placeId)} steps`;
  const { id, project: after } = wrapped(project, [placeId], "stack", name);
  return after === project ? { stack: undefined } : { edit: wrap(project, [placeId], "stack", name), stack: id };
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
