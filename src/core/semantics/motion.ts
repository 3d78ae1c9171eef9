import type { Json, MotionPlan } from "../plan/data.ts";
import { currentScreen, topBranch } from "./state.ts";
import type { Event, State } from "./types.ts";

/** What a design says of how things move. */
export interface Motions {
  /** By leg: its own motion, and whether its move goes back to something or puts something on top. */
  readonly legs: Readonly<Record<string, { readonly motion?: MotionPlan; readonly goes?: "back" | "on" }>>;
  /** By screen the motion of the container that it is a member of. */
  readonly screens: Readonly<Record<string, MotionPlan>>;
  /** By modal how it comes up. */
  readonly modals: Readonly<Record<string, MotionPlan>>;
}

/** How a step looks: what moves, how, from which side, for how long, and whether it is the way back. */
export interface Seen {
  /** The page of a branch, or a whole layer that comes or goes. */
  readonly subject: "page" | "layer";
  /** The branch whose page changes, or the number of the layer, counted from 1. */
  readonly branch: number;
  readonly kind: MotionPlan["kind"];
  readonly from: "start" | "end" | "top" | "bottom";
  readonly ms: number;
  /** The motion is played backwards, as it is when what came goes again. */
  readonly reverse: boolean;
  /** Elements that move from where they were to where they are. */
  readonly carries: ReadonlyArray<{ readonly from: string; readonly to: string }>;
  /** The key of the row that was used, where a carried element is a list: that row is what is carried. */
  readonly row?: string;
}

const USUAL_MS = 260;

/** One step that was taken, as far as its look asks for it. */
export interface Taken {
  readonly event: Event;
  readonly before: State;
  readonly after: State;
}

/** What a user sees of a step, or undefined where nothing changes place. `earlier` steps tell how what goes now came. */
export function seenMotion(motions: Motions, { before, after, event }: Taken, earlier: readonly Taken[]): Seen | undefined {
  const [from, to] = [topBranch(before), topBranch(after)];
  if (to > from) return seenAs("layer", to, legMotion(motions, event) ?? layerMotion(motions, after, to), false, event);
  if (to < from) {
    const came = latest(earlier, (one) => topBranch(one.before) < from && topBranch(one.after) === from);
    return seenAs("layer", from, (came && legMotion(motions, came.event)) ?? layerMotion(motions, before, from), true, came?.event);
  }
  const [a, b] = [currentScreen(before), currentScreen(after)];
  if (a === b || (a.at === b.at && a.args === b.args)) return undefined;
  const own = legMotion(motions, event);
  if (own) return seenAs("page", to, own, false, event);
  if (event.do === "back" || event.do === "lead" || (event.do === "leg" && motions.legs[event.leg]?.goes === "back")) {
    const came = latest(earlier, (one) => currentScreen(one.after).at === a.at && currentScreen(one.before).at === b.at);
    const motion = came && (legMotion(motions, came.event) ?? pageMotion(motions, came.event));
    return seenAs("page", to, motion ?? { kind: "slide", from: "end" }, true, came?.event);
  }
  return seenAs("page", to, motions.screens[b.at] ?? pageMotion(motions, event), false, event);
}

/** The last step that passes. */
function latest(steps: readonly Taken[], passes: (one: Taken) => boolean): Taken | undefined {
  return steps.filter(passes).pop();
}

function seenAs(subject: Seen["subject"], branch: number, motion: MotionPlan, reverse: boolean, by: Event | undefined): Seen | undefined {
  if (motion.kind === "none") return undefined;
  const carries = (motion.carries ?? []).map(({ from, to }) => (reverse ? { from: to, to: from } : { from, to }));
  const item = by?.do === "leg" ? by.item : undefined;
  return {
    subject,
    branch,
    kind: motion.kind,
    from: motion.from ?? (motion.kind === "rise" ? "bottom" : "end"),
    ms: motion.ms ?? USUAL_MS,
    reverse,
    carries,
    ...(item === undefined ? {} : { row: rowKey(item) }),
  };
}

function rowKey(item: Json): string {
  return String(typeof item === "object" && item !== null ? Object.values(item)[0] : item);
}

function legMotion(motions: Motions, event: Event): MotionPlan | undefined {
  return event.do === "leg" ? motions.legs[event.leg]?.motion : undefined;
}

/** Push slides in from the end side; replace, reset, tabs and ways in fade. */
export function pageMotion(motions: Motions, event: Event): MotionPlan {
  return event.do === "leg" && motions.legs[event.leg]?.goes === "on" ? { kind: "slide", from: "end" } : { kind: "fade" };
}

/** How a layer comes up. */
export function layerMotion(motions: Motions, state: State, branch: number): MotionPlan {
  return motions.modals[state.layers[branch - 1]?.at ?? ""] ?? { kind: "rise", from: "bottom" };
}
