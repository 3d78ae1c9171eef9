import { lookup } from "../model/lookup.ts";
import { once } from "../model/once.ts";
import type { Leg, Modal, Motion, NavEvent, Project } from "../model/schema.ts";
import { layerMotion, type Motions, pageMotion, type Seen, seenMotion, type Taken } from "../semantics/motion.ts";
import { currentScreen, topBranch } from "../semantics/state.ts";
import { previewMove } from "./preview.ts";

export type { Seen } from "../semantics/motion.ts";

/** One step of a walk, as far as its look asks for it. */
export interface Step extends Taken {
  readonly event: NavEvent;
}

/** What a user sees of a step, or undefined where nothing on the device changes place. `earlier` steps tell how what goes now came. */
export function motionOf(project: Project, step: Step, earlier: readonly Step[]): Seen | undefined {
  return seenMotion(motionsOf(project), step, earlier);
}

/** What a project says of how things move. */
export function motionsOf(project: Project): Motions {
  return once(project, makeMotions);
}

function makeMotions(project: Project): Motions {
  const { legs, containers, screens } = project;
  const { owners } = lookup(project);
  return {
    legs: Object.fromEntries(legs.map((leg) => [leg.id, { ...(leg.motion ? { motion: leg.motion } : {}), ...goes(leg) }])),
    screens: Object.fromEntries(
      screens.flatMap(({ id }): Array<[string, Motion]> => {
        const motion = owners.get(id)?.motion;
        return motion ? [[id, motion]] : [];
      }),
    ),
    modals: Object.fromEntries(
      containers.flatMap((one): Array<[string, Motion]> => (one.kind === "modal" ? [[one.id, one.motion ?? comingUp(one.edge)]] : [])),
    ),
  };
}

function goes({ move }: Leg): Motions["legs"][string] {
  switch (move?.kind) {
    case "back":
    case "up":
    case "return":
      return { goes: "back" };
    case "push":
      return move.in === undefined || move.in === "beneath" ? { goes: "on" } : {};
    default:
      return {};
  }
}

/** A layer rises from its modal's edge, or grows in the centre. */
function comingUp(edge: Modal["edge"]): Motion {
  switch (edge) {
    case "center":
      return { kind: "grow" };
    case "left":
      return { kind: "slide", from: "start" };
    case "right":
      return { kind: "slide", from: "end" };
    case "top":
      return { kind: "rise", from: "top" };
    case "bottom":
      return { kind: "rise", from: "bottom" };
  }
}

/** The motion that a leg has if none is set for it: its container's, its modal's, or the usual one of its move. Undefined where nothing moves. */
export function usualMotion(project: Project, leg: Leg): Motion | undefined {
  const { move } = leg;
  if (!move) return undefined;
  const { before, change } = previewMove(project, leg.from, move);
  if (change.is !== "moved") return undefined;
  const motions = motionsOf(project);
  const [from, to] = [topBranch(before), topBranch(change.state)];
  const motion =
    to > from
      ? layerMotion(motions, change.state, to)
      : to < from
        ? layerMotion(motions, before, from)
        : (motions.screens[currentScreen(change.state).at] ?? pageMotion(motions, { do: "leg", leg: leg.id }));
  return motion as Motion;
}
