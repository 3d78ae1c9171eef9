import { flushSync } from "react-dom";
import type { StoreApi } from "zustand";
import { appOf } from "../../../core/insight/app.ts";
import { motionOf, type Seen, type Step } from "../../../core/insight/motion.ts";
import type { NavEvent } from "../../../core/model/schema.ts";
import { step } from "../../../core/semantics/step.ts";
import type { Step as Made, WalkState } from "../walk.ts";

/** How much slower motions are shown when that is asked for. */
const SLOW = 5;
type WalkStore = StoreApi<WalkState>;

/** Does an event on the device and shows it move, where the browser can and the user wants it. */
export function sendMoving(walk: WalkStore, event: NavEvent): Made | undefined {
  const { project, start, steps, at, send } = walk.getState();
  if (!project || !start) return undefined;
  const before = steps[at - 1]?.state ?? start;
  const result = step(appOf(project), before, event);
  if (result.outcome !== "moved") return send(event);
  const seen = motionOf(project, { event, before, after: result.state }, stepsSoFar(walk));
  let made: Made | undefined;
  moving(walk, seen, () => {
    made = send(event);
  });
  return made ?? { event, outcome: "moved", sentence: "", state: result.state };
}

/** Goes one step on in a walk that is there already, and shows it move. */
export function stepOnMoving(walk: WalkStore) {
  const { project, steps, at, goTo } = walk.getState();
  const next = steps[at];
  const all = stepsSoFar(walk);
  const before = all.at(-1)?.after ?? walk.getState().start;
  if (!project || !next || !before) return;
  moving(walk, motionOf(project, { event: next.event, before, after: next.state }, all), () => goTo(at + 1));
}

function stepsSoFar(walk: WalkStore): Step[] {
  const { start, steps, at } = walk.getState();
  return start ? steps.slice(0, at).map((one, i) => ({ event: one.event, before: steps[i - 1]?.state ?? start, after: one.state })) : [];
}

function moving(walk: WalkStore, seen: Seen | undefined, update: () => void) {
  const still = !seen || !("startViewTransition" in document) || matchMedia("(prefers-reduced-motion: reduce)").matches || document.hidden;
  if (still) {
    update();
    return;
  }
  const root = document.documentElement;
  root.dataset.moving = `${seen.subject} ${seen.kind} ${seen.from} ${seen.reverse ? "back" : "on"}`;
  root.style.setProperty("--moving-ms", `${seen.ms * (walk.getState().slow ? SLOW : 1)}ms`);
  const named = [...name(seen, "from")];
  const transition = document.startViewTransition(() => {
    for (const element of named) element.style.viewTransitionName = "";
    flushSync(update);
    named.push(...name(seen, "to"));
  });
  transition.finished.finally(() => {
    for (const element of named) element.style.viewTransitionName = "";
    delete root.dataset.moving;
  });
}

/** Names what moves on the device as it is drawn now; the carried elements by their end of the motion. */
function name(seen: Seen, end: "from" | "to"): HTMLElement[] {
  const device = document.querySelector<HTMLElement>("[data-testid=device]");
  const subject = device?.querySelector<HTMLElement>(seen.subject === "layer" ? `[data-layer="${seen.branch}"]` : `[data-page="${seen.branch}"]`);
  const out: HTMLElement[] = [];
  const put = (element: HTMLElement | null | undefined, as: string) => {
    if (!element) return;
    element.style.viewTransitionName = as;
    out.push(element);
  };
  put(subject, "subject");
  seen.carries.forEach((carry, i) => {
    const found = [...(device?.querySelectorAll<HTMLElement>(`[data-element="${carry[end]}"]`) ?? [])];
    put(found.find((element) => element.dataset.item === seen.row && seen.row !== undefined) ?? found.at(-1), `carry-${i}`);
  });
  return out;
}
