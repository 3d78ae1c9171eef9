import { firstScreen, lookup } from "../model/lookup.ts";
import type { Json, Project, Screen } from "../model/schema.ts";
import type { Args, Node, Shown } from "./state.ts";

/**
 * Make(place, args): the node of a place when it is first shown. Arguments go to the
 * screen that shows. A place that does not exist, or starts that lead round, give an empty screen of that id.
 */
export function make(project: Project, placeId: string, args: Args = {}): Node {
  return makeInside(project, placeId, args, []);
}

function makeInside(project: Project, placeId: string, args: Args, around: string[]): Node {
  const place = lookup(project).places.get(placeId);
  if (place?.kind === "screen") return shown(place.screen, args);
  const container = place?.container;
  if (!container || container.kind === "modal" || around.includes(placeId)) return { kind: "shown", at: placeId, args: {} };
  const start = makeInside(project, container.start, args, [...around, placeId]);
  switch (container.kind) {
    case "stack":
      return { kind: "stack", at: placeId, items: [start] };
    case "tabs":
      return { kind: "tabs", at: placeId, active: container.start, lanes: { [container.start]: start }, visited: [container.start] };
    case "drawer":
      return { kind: "drawer", at: placeId, active: container.start, lanes: { [container.start]: start }, visited: [container.start], open: false };
  }
}

/** A screen with the arguments that it declares, defaults filled in; others are dropped. */
export function shown(screen: Screen, args: Args): Shown {
  return { kind: "shown", at: screen.id, args: ownArguments(screen, args) };
}

/** The arguments that a screen declares, in its order, declared defaults filled in. */
export function ownArguments(screen: Screen, args: Args): Args {
  const own: Record<string, Json> = {};
  for (const param of screen.params) {
    const value = Object.hasOwn(args, param.name) ? args[param.name] : param.default;
    if (value !== undefined) own[param.name] = value;
  }
  return own;
}

/** The parameters of the screen that a place shows first: those that a move to the place must serve. */
export function parametersOf(project: Project, placeId: string): Screen["params"] {
  return firstScreen(project, placeId)?.params ?? [];
}
