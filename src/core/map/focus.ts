import { followValue } from "../insight/flow.ts";
import { firstScreen, lookup, ownersAround, targetOf, treeOf } from "../model/lookup.ts";
import type { Leg, Project } from "../model/schema.ts";
import { type End, lineForm } from "./form.ts";

/** What a reader of the map wants to see alone. */
export type Focus =
  | { kind: "legs"; place: string }
  | { kind: "path"; from: string; to: string }
  | { kind: "form"; form: End }
  | { kind: "lane"; place: string }
  | { kind: "value"; screen: string; param: string };

/** The legs in focus and the places they touch; all else steps back. */
export interface InFocus {
  legs: Leg[];
  places: Set<string>;
}

/** The part of a project that a focus means. A path that there is not has no legs and the two ends alone. */
export function inFocus(project: Project, focus: Focus): InFocus {
  switch (focus.kind) {
    case "legs":
      return ends(
        project,
        project.legs.filter(
          (leg) => leg.from === focus.place || shownBy(project, leg) === focus.place || targetOf(leg) === focus.place || isSharedOn(project, leg, focus.place),
        ),
        [focus.place],
      );
    case "form":
      return ends(
        project,
        project.legs.filter((leg) => leg.move && lineForm(leg.move).end === focus.form),
        [],
      );
    case "lane": {
      const inside = new Set(treeOf(project, focus.place));
      const legs = project.legs.filter((leg) => inside.has(leg.from) || inside.has(shownBy(project, leg) ?? ""));
      return { legs, places: new Set([...inside, ...legs.flatMap((leg) => [leg.from, shownBy(project, leg) ?? leg.from])]) };
    }
    case "value": {
      const flow = followValue(project, { screen: focus.screen, param: focus.param });
      return ends(
        project,
        flow.legs,
        flow.slots.map((slot) => slot.screen),
      );
    }
    case "path": {
      const path = pathBetween(project, focus.from, focus.to);
      return ends(project, path ?? [], [focus.from, focus.to]);
    }
  }
}

function shownBy(project: Project, leg: Leg): string | undefined {
  const { move } = leg;
  const to = move?.kind === "open" && move.show !== undefined ? move.show : targetOf(leg);
  return to === undefined ? undefined : (firstScreen(project, to)?.id ?? to);
}

function isSharedOn(project: Project, leg: Leg, placeId: string): boolean {
  return ownersAround(project, placeId).some((container) => container.id === leg.from);
}

function ends(project: Project, legs: Leg[], also: string[]): InFocus {
  const places = new Set(also);
  for (const leg of legs) {
    places.add(leg.from);
    const shown = shownBy(project, leg);
    if (shown !== undefined) places.add(shown);
  }
  return { legs, places };
}

/** The fewest legs from one place to another, conditions left aside (breadth first); undefined where none lead there. */
export function pathBetween(project: Project, from: string, to: string): Leg[] | undefined {
  const goal = firstScreen(project, to)?.id ?? to;
  const start = firstScreen(project, from)?.id ?? from;
  const came = new Map<string, { leg: Leg; from: string } | undefined>([[start, undefined]]);
  const queue = [start];
  for (let at = queue.shift(); at !== undefined; at = queue.shift()) {
    if (at === goal) break;
    const here = [at, ...ownersAround(project, at).map((c) => c.id)];
    for (const place of here)
      for (const leg of lookup(project).legsFrom.get(place) ?? []) {
        const next = shownBy(project, leg);
        if (next === undefined || came.has(next)) continue;
        came.set(next, { leg, from: at });
        queue.push(next);
      }
  }
  if (!came.has(goal)) return undefined;
  const path: Leg[] = [];
  for (let step = came.get(goal); step; step = came.get(step.from)) path.unshift(step.leg);
  return path;
}
