import { lookup, modalOf } from "../model/lookup.ts";
import type { Leg, Motion, NavEvent, Project } from "../model/schema.ts";
import { currentScreen, topBranch } from "../semantics/state.ts";
import type { State } from "../semantics/types.ts";
import { previewMove } from "./preview.ts";

/** How a step looks: what moves, how, from which side, for how long, and whether it is the way back. */
export interface Seen {
  /** The page of a branch, or a whole layer that comes or goes. */
  subject: "page" | "layer";
  /** The branch whose page changes, or the number of the layer, counted from 1. */
  branch: number;
  kind: Motion["kind"];
  from: NonNullable<Motion["from"]>;
  ms: number;
  /** The motion is played backwards, as it is when what came goes again. */
  reverse: boolean;
  /** Elements that move from where they were to where they are. */
  carries: Array<{ from: string; to: string }>;
  /** The key of the row that was used, where a carried element is a list: that row is what is carried. */
  row?: string;
}

const MS = 260;

/** One step of a walk, as far as its look asks for it. */
export interface Step {
  event: NavEvent;
  before: State;
  after: State;
}

/** What a user sees of a step, or undefined where nothing on the device changes place. `earlier` steps tell how what goes now came. */
export function motionOf(project: Project, step: Step, earlier: readonly Step[]): Seen | undefined {
  const { before, after, event } = step;
  const [from, to] = [topBranch(before), topBranch(after)];
  if (to > from) return seen("layer", to, legMotion(project, event) ?? layerMotion(project, after, to), false, event);
  if (to < from) {
    const came = earlier.findLast((one) => topBranch(one.before) < from && topBranch(one.after) === from);
    return seen("layer", from, (came && legMotion(project, came.event)) ?? layerMotion(project, before, from), true, came?.event);
  }
  const [a, b] = [currentScreen(before), currentScreen(after)];
  if (a === b || (a.at === b.at && a.args === b.args)) return undefined;
  const own = legMotion(project, event);
  if (own) return seen("page", to, own, false, event);
  if (event.do === "back" || event.do === "lead" || goesBack(project, event)) {
    const came = earlier.findLast((one) => currentScreen(one.after).at === a.at && currentScreen(one.before).at === b.at);
    return seen(
      "page",
      to,
      (came && (legMotion(project, came.event) ?? defaultMotion(project, came.event))) ?? { kind: "slide", from: "end" },
      true,
      came?.event,
    );
  }
  return seen("page", to, containerMotion(project, b.at) ?? defaultMotion(project, event), false, event);
}

/** The motion that a leg has if none is set for it: its container's, its modal's, or the usual one of its move. Undefined where nothing moves. */
export function usualMotion(project: Project, leg: Leg): Motion | undefined {
  const { move } = leg;
  if (!move) return undefined;
  const { before, change } = previewMove(project, leg.from, move);
  if (change.is !== "moved") return undefined;
  const [from, to] = [topBranch(before), topBranch(change.state)];
  if (to > from) return layerMotion(project, change.state, to);
  if (to < from) return layerMotion(project, before, from);
  const event: NavEvent = { do: "leg", leg: leg.id };
  return containerMotion(project, currentScreen(change.state).at) ?? defaultMotion(project, event);
}

function seen(subject: Seen["subject"], branch: number, motion: Motion, reverse: boolean, by: NavEvent | undefined): Seen | undefined {
  if (motion.kind === "none") return undefined;
  const carries = (motion.carries ?? []).map(({ from, to }) => (reverse ? { from: to, to: from } : { from, to }));
  return {
    subject,
    branch,
    kind: motion.kind,
    from: motion.from ?? (motion.kind === "rise" ? "bottom" : "end"),
    ms: motion.ms ?? MS,
    reverse,
    carries,
    ...rowOf(by),
  };
}

function rowOf(event: NavEvent | undefined): { row?: string } {
  const item = event?.do === "leg" ? event.item : undefined;
  if (item === undefined) return {};
  return { row: String(typeof item === "object" ? Object.values(item)[0] : item) };
}

function legMotion(project: Project, event: NavEvent): Motion | undefined {
  return event.do === "leg" ? lookup(project).legs.get(event.leg)?.motion : undefined;
}

function containerMotion(project: Project, screen: string): Motion | undefined {
  return lookup(project).owners.get(screen)?.motion;
}

function goesBack(project: Project, event: NavEvent): boolean {
  const kind = event.do === "leg" ? lookup(project).legs.get(event.leg)?.move?.kind : undefined;
  return kind === "back" || kind === "up" || kind === "return";
}

/** Push slides in from the end side; replace, reset, tabs and ways in fade. */
function defaultMotion(project: Project, event: NavEvent): Motion {
  const move = event.do === "leg" ? lookup(project).legs.get(event.leg)?.move : undefined;
  return move?.kind === "push" && (move.in === undefined || move.in === "beneath") ? { kind: "slide", from: "end" } : { kind: "fade" };
}

/** A layer rises from its modal's edge, or grows in the centre. */
function layerMotion(project: Project, state: State, branch: number): Motion {
  const modal = modalOf(project, state.layers[branch - 1]?.at ?? "");
  if (modal?.motion) return modal.motion;
  switch (modal?.edge) {
    case "center":
      return { kind: "grow" };
    case "left":
      return { kind: "slide", from: "start" };
    case "right":
      return { kind: "slide", from: "end" };
    case "top":
      return { kind: "rise", from: "top" };
    default:
      return { kind: "rise", from: "bottom" };
  }
}
