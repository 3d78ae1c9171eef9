import { elementsOf, lookup, nameOf, ownersAround, upTarget } from "../model/lookup.ts";
import { once } from "../model/once.ts";
import type { Move, Project, Screen } from "../model/schema.ts";
import type { PlaceNode } from "./ast.ts";
import { startsOver } from "./elements.ts";
import { CONTAINER_KINDS } from "./words.ts";

/** A modal that holds its screens side by side, without a stack of their own. */
export const NO_STACK = "no stack";

/** Whether what stands in a modal are the steps of something: several screens, which get a stack, so that each leads on to the next. */
export function hasSteps({ members, options }: PlaceNode): boolean {
  const plain = members.every((member) => member.members.length === 0 && CONTAINER_KINDS[member.options[0]?.text ?? ""] === undefined);
  return members.length > 1 && plain && !options.some(({ text }) => text === NO_STACK);
}

/**
 * The screens whose bar people expect to have the menu button, though nothing says so: what each member of a drawer shows first. Not where
 * a control of the design opens the menu, nor where the drawer or a container in it has a bar of its own.
 */
export function menuScreens(project: Project): ReadonlySet<string> {
  return once(project, findMenuScreens);
}

function findMenuScreens(project: Project): Set<string> {
  const { screens, containers } = lookup(project);
  const opened = project.legs.filter(({ move }) => move?.kind === "menu").flatMap(({ from }) => [from, ...ownersAround(project, from).map(({ id }) => id)]);
  const found = new Set<string>();
  const first = (id: string, seen: ReadonlySet<string>) => {
    const container = containers.get(id);
    if (screens.get(id)?.bar === undefined && screens.has(id)) found.add(id);
    if (!container || container.bar || seen.has(id)) return;
    const within = new Set([...seen, id]);
    if (container.kind === "stack") first(container.start, within);
    if (container.kind === "tabs") for (const member of container.members) first(member, within);
  };
  for (const drawer of project.containers)
    if (drawer.kind === "drawer" && !drawer.bar && !opened.includes(drawer.id)) for (const member of drawer.members) first(member, new Set([drawer.id]));
  return found;
}

/** A project in which those screens have it. */
export function withMenus(project: Project): Project {
  const wanted = menuScreens(project);
  if (wanted.size === 0) return project;
  return { ...project, screens: project.screens.map((screen) => (wanted.has(screen.id) ? { ...screen, bar: { show: true, lead: "menu" } } : screen)) };
}

/** Hubs whose Up, where nothing is said of it, would lead back to what was to be gone through once: a welcome, a splash, a tour. */
export function hubsWithoutUp(project: Project): ReadonlySet<string> {
  const { screens } = lookup(project);
  const leads = ({ id, hub, up }: Screen) => hub === true && up === "auto" && screens.get(upTarget(project, id) ?? "")?.once === true;
  return new Set(project.screens.filter(leads).map(({ id }) => id));
}

/** A project in which they have none. */
export function withoutUp(project: Project): Project {
  const wanted = hubsWithoutUp(project);
  if (wanted.size === 0) return project;
  return { ...project, screens: project.screens.map((screen) => (wanted.has(screen.id) ? { ...screen, up: "none" } : screen)) };
}

/** Whether a place is not itself a tab or an entry of a menu, but what a stack that is one shows first: lines switch to the stack. */
export function insideLane(project: Project, id: string): boolean {
  const [owner, around] = ownersAround(project, id);
  const isLane = owner?.kind === "stack" && (around?.kind === "tabs" || around?.kind === "drawer");
  return isLane && (owner.start === id || nameOf(project, owner.id) === nameOf(project, id));
}

/**
 * Whether a move pops to a tab or an entry of a menu, or to what one shows first, from elsewhere, and says no more than that: the tab is
 * meant then, wherever it may lie beneath.
 */
export function popsToOtherLane(project: Project, from: string, move: Move): boolean {
  if (move.kind !== "return" || Object.keys(move.give ?? {}).length > 0 || move.orElse) return false;
  const { to } = move;
  const [owner] = ownersAround(project, to);
  const lane = insideLane(project, to) ? owner?.id : owner?.kind === "tabs" || owner?.kind === "drawer" ? to : undefined;
  return lane !== undefined && lane !== from && !ownersAround(project, from).some(({ id }) => id === lane);
}

/**
 * Whether a control that leads to a page starts the app over there: by its label, or because it leads out of the tabs to where people sign in.
 */
export function isStartOver(project: Project, from: string, elementId: string, to: string): boolean {
  const elements = elementsOf(project, from);
  const element = elements.find(({ id }) => id === elementId);
  const isModal = [to, ...ownersAround(project, to).map(({ id }) => id)].some((id) => lookup(project).containers.get(id)?.kind === "modal");
  if (!element || isModal) return false;
  const isForm = elements.some(({ kind }) => kind === "field");
  return startsOver(element.label || element.id, nameOf(project, to), isForm) || leadsOut(project, from, to);
}

/** A screen that is called like where people sign in. */
const FRONT = /^(log ?in|sign ?in|welcome|landing|onboarding)( (screen|page|form|\d+))?$/i;

/** Whether a screen stands in the stack before the tabs or the menu, and another stands in those, or in a modal. */
function leadsOut(project: Project, from: string, to: string): boolean {
  const { containers, owners } = lookup(project);
  const stack = owners.get(to);
  const isLanes = (id: string) => ["tabs", "drawer"].includes(containers.get(id)?.kind ?? "");
  const isFront = stack?.kind === "stack" && stack.start === to && FRONT.test(nameOf(project, to));
  return isFront && stack.members.some(isLanes) && owners.get(from) !== stack;
}
