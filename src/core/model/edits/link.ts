import { elementIdOf, elementOf, lookup, nameOf, ownersAround } from "../lookup.ts";
import { moveSentence, type Proposal, propose } from "../propose.ts";
import type { Element, Leg, Project, Trigger } from "../schema.ts";
import { addContainer, addElement, addLeg, addScreen, freshElementId, freshLegId, freshPlaceId, newContainer, newScreen } from "./add.ts";
import { moveInto, wrap, wrapped } from "./arrange.ts";
import { changeLeg } from "./change.ts";
import { type Edit, quoted } from "./edit.ts";
import { applyEdit, together } from "./kinds.ts";

/** A trigger that needs no element: arriving, departing, time passing, a swipe anywhere. */
export type PlaceTrigger = Exclude<Trigger, { kind: "tap" | "submit" | "hold" }>;

/**
 * Where a leg starts: at an element, or by a trigger of the place itself. With neither, a button is made for it on the place, named
 * for where the leg leads.
 */
export interface LegStart {
  place: string;
  element?: string | undefined;
  on?: PlaceTrigger | undefined;
  /** The leg that is to be led elsewhere, whatever else starts there too. */
  leg?: string | undefined;
}

export interface Link {
  edit: Edit;
  legId: string;
  proposal: Proposal;
}

/**
 * Leads to a place by the move that suits it. What has one plain leg already is led there instead, so that linking again corrects
 * and never doubles. `proposal` is the move, where it is known better.
 */
export function linkElement(project: Project, start: LegStart, to: string, proposal = propose(project, start.place, start.element, to)): Link {
  const ready = started(project, start, nameOf(project, to));
  const known = plainLeg(ready.project, ready.start);
  if (known) return { edit: changeLeg(project, known, { move: proposal.move }, `Lead to ${quoted(nameOf(project, to))}`), legId: known.id, proposal };
  const leg: Leg = { ...newLeg(ready.project, ready.start), move: proposal.move };
  const added = addLeg(ready.project, leg);
  return { edit: ready.made ? together(added.name, [ready.made, added]) : added, legId: leg.id, proposal };
}

/** What a leg does that leads to no place: its move, or what it sets where it moves nothing; and what a button for it says. */
export interface Does extends Pick<Leg, "move" | "set"> {
  name: string;
  label: string;
}

/** Has an element do something that leads to no place: back, closing, setting a fact. Its one plain leg does that instead, where it has one. */
export function linkToDoing(project: Project, start: LegStart, { name, label, ...does }: Does): { edit: Edit; legId: string } {
  const ready = started(project, start, label);
  const known = plainLeg(ready.project, ready.start);
  if (known) return { edit: changeLeg(project, known, { move: does.move, ...(does.set ? { set: does.set } : {}) }, name), legId: known.id };
  const leg: Leg = { ...newLeg(ready.project, ready.start), ...does };
  const added = { ...addLeg(ready.project, leg), name };
  return { edit: ready.made ? together(name, [ready.made, added]) : added, legId: leg.id };
}

/** The start with its element, and the edit that makes a button of a name where there is neither element nor trigger. */
function started(project: Project, start: LegStart, label: string): { project: Project; start: LegStart; made?: Edit } {
  if (start.element !== undefined || start.on || start.leg !== undefined) return { project, start };
  const element: Element = { id: freshElementId(project, start.place, label), kind: "button", label };
  const made = addElement(start.place, element);
  return { project: applyEdit(project, made), start: { place: start.place, element: element.id }, made };
}

function newLeg(project: Project, { place, element, on }: LegStart): Leg {
  const id = freshLegId(project, `${place} ${element ?? on?.kind ?? ""}`);
  if (element === undefined) return { id, from: place, on: on ?? { kind: "arrive" } };
  return { id, from: place, on: { kind: elementOf(project, place, element)?.kind === "field" ? "submit" : "tap", element } };
}

/** The leg that is named; else the only one with that start, if it has no condition and no outcome. */
function plainLeg(project: Project, { place, element, on, leg: wanted }: LegStart): Leg | undefined {
  if (wanted !== undefined) return lookup(project).legs.get(wanted);
  const fits = (leg: Leg) => (element !== undefined ? elementIdOf(leg) === element : on !== undefined && sameTrigger(leg.on, on));
  const legs = (lookup(project).legsFrom.get(place) ?? []).filter(fits);
  const [only] = legs;
  return only && legs.length === 1 && only.when === undefined && !("outcome" in only.on && only.on.outcome !== undefined) ? only : undefined;
}

function sameTrigger(a: Trigger, b: PlaceTrigger): boolean {
  if (a.kind === "swipe") return b.kind === "swipe" && a.to === b.to && a.element === b.element;
  if (a.kind === "after") return b.kind === "after" && a.ms === b.ms;
  return a.kind === b.kind;
}

/**
 * Makes a new screen and leads there, as one edit: it is put on top of the source, in the stack around it. Where there
 * is none (a bare screen in a modal, tabs or a drawer), one is made around the source first. A control of a tab set or a drawer
 * puts it on top of whatever it shows, and so never makes one more tab.
 */
export function linkToNewScreen(project: Project, start: LegStart, name: string): Link & { screenId: string } {
  const screenId = freshPlaceId(project, name);
  const { edit: stacked, stack } = stackFor(project, start.place);
  const added = addScreen(newScreen(screenId, name), stack);
  const edit = stacked ? together("", [stacked, added]) : added;
  const after = applyEdit(project, edit);
  const move = { kind: "push", to: screenId } as const;
  const link = linkElement(after, start, screenId, { move, sentence: moveSentence(after, start.place, move) });
  return { ...link, screenId, edit: together(`Lead to the new screen ${quoted(name)}`, [edit, link.edit]) };
}

/** Makes a new screen with a stack of its own, for steps that belong together, and puts the stack on top of the source's. */
export function linkToNewStack(project: Project, start: LegStart, name: string): Link & { screenId: string } {
  const made = linkToNewScreen(project, start, name);
  const stackName = `${name} steps`;
  // The leg to the screen leads to the stack around it as soon as there is one.
  const wrapping = wrap(applyEdit(project, made.edit), [made.screenId], "stack", stackName);
  return { ...made, edit: together(`Lead to ${quoted(name)} in a new stack`, [made.edit, wrapping]) };
}

/** Makes a new screen as one more member of the tabs or the drawer around the source, with a history of its own, and goes over to it. */
export function linkToNewLane(project: Project, start: LegStart, name: string): (Link & { screenId: string }) | undefined {
  const lanes = lanesAround(project, start.place);
  if (!lanes) return undefined;
  const screenId = freshPlaceId(project, name);
  const stackId = freshPlaceId({ ...project, screens: [...project.screens, newScreen(screenId, name)] }, `${name} ${lanes.kind === "tabs" ? "tab" : "steps"}`);
  const added = together("", [
    addScreen(newScreen(screenId, name)),
    addContainer(newContainer("stack", stackId, name, [screenId])),
    moveInto(project, stackId, lanes.id),
  ]);
  const after = applyEdit(project, added);
  const move = { kind: "select", to: stackId } as const;
  const link = linkElement(after, start, stackId, { move, sentence: moveSentence(after, start.place, move) });
  return { ...link, screenId, edit: together(`Lead to the new ${lanes.kind === "tabs" ? "tab" : "menu entry"} ${quoted(name)}`, [added, link.edit]) };
}

/** The tabs or the drawer nearest around a place, itself included. */
export function lanesAround(project: Project, placeId: string): { id: string; kind: "tabs" | "drawer" } | undefined {
  const own = lookup(project).containers.get(placeId);
  for (const { id, kind } of [...(own ? [own] : []), ...ownersAround(project, placeId)]) if (kind === "tabs" || kind === "drawer") return { id, kind };
  return undefined;
}

/** The stack that a place puts screens on, and the edit that makes one where there is none. */
export function stackFor(project: Project, placeId: string): { edit?: Edit; stack: string | undefined } {
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
  const stack = applyEdit(project, wrapped).root;
  return { edit: together(`Add screen ${quoted(name)}`, [wrapped, addScreen(screen, stack)]), screenId };
}

/**
 * Makes a new modal and leads there, as one edit: with a new screen in it (by itself, or in a stack on which further steps can go),
 * or around a screen that is there already, whose other legs are kept right.
 */
export function linkToNewModal(project: Project, start: LegStart, what: { name: string; steps?: boolean } | { around: string }): Link & { modalId: string } {
  const around = "around" in what ? what.around : undefined;
  const name = "name" in what ? what.name : nameOf(project, what.around);
  const screenId = around ?? freshPlaceId(project, name);
  const modalName = `${name} sheet`;
  const added: Edit[] = around === undefined ? [addScreen(newScreen(screenId, name))] : [];
  const bare = added.reduce(applyEdit, project);
  const stepped = "steps" in what && what.steps ? wrap(bare, [screenId], "stack", `${name} steps`) : undefined;
  const before = stepped ? applyEdit(bare, stepped) : bare;
  const inside = lookup(before).owners.get(screenId)?.id;
  const member = stepped && inside !== undefined ? inside : screenId;
  const { id, project: after } = wrapped(before, [member], "modal", modalName);
  // A button that is made for it is named for the screen: people say "New plot", and not "New plot sheet".
  const ready = started(after, start, name);
  const link = linkElement(ready.project, ready.start, id);
  const edits: Edit[] = [
    ...added,
    ...(stepped ? [stepped] : []),
    wrap(before, [member], "modal", modalName, id),
    ...(ready.made ? [ready.made] : []),
    link.edit,
  ];
  return { ...link, modalId: id, edit: together(`Lead to ${quoted(name)} in a new modal`, edits) };
}
