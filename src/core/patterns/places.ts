import { lookup, mustBePassed, nameOf, ownersAround, parametersOf } from "../model/lookup.ts";
import type { Container, Project, Screen } from "../model/schema.ts";

/** The screen that a place is, where people stay on it: none that leads on at once. */
export function screenAt(project: Project, place: string): Screen | undefined {
  const screen = lookup(project).screens.get(place);
  const passed = lookup(project)
    .legsFrom.get(place)
    ?.some(({ on, when, move }) => (on.kind === "arrive" || on.kind === "after") && when === undefined && move !== undefined);
  return passed ? undefined : screen;
}

/** `on “Plots”`, of a screen on which people stay. */
export function onScreen(project: Project, place: string): string | undefined {
  return screenAt(project, place) && `on “${nameOf(project, place)}”`;
}

/** `before “Yard”`: where the app starts, whichever place is chosen. */
export function beforeStart(project: Project): string | undefined {
  const start = lookup(project).containers.get(project.root);
  const first = start?.kind === "stack" ? start.start : project.root;
  // Whoever comes from there has nothing to hand on to it.
  const needs = parametersOf(project, first).some(mustBePassed);
  return lookup(project).places.has(first) && !needs ? `before “${nameOf(project, first)}”, with which the app starts` : undefined;
}

/** Whether a leg to what stands before the app can begin on a place: on a screen that is in no modal. */
export function leavesFrom(project: Project, place: string): boolean {
  return screenAt(project, place) !== undefined && !kindsAround(project, place).includes("modal");
}

/** The kinds of the containers around a place, the nearest first. */
export function kindsAround(project: Project, place: string): Container["kind"][] {
  return ownersAround(project, place).map(({ kind }) => kind);
}

/** Whether a screen always stands on another in its stack. */
export function standsOnAnother(project: Project, place: string): boolean {
  const owner = lookup(project).owners.get(place);
  return owner?.kind === "stack" && owner.start !== place;
}
