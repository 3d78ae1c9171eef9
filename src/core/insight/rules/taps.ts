import { lookup } from "../../model/lookup.ts";
import { once } from "../../model/once.ts";
import type { NavEvent, Project } from "../../model/schema.ts";
import { step } from "../../semantics/step.ts";
import type { State } from "../../semantics/types.ts";
import { appOf } from "../app.ts";
import { candidateEvents } from "../available.ts";
import { typedFields } from "../typed.ts";
import { momentOf, placesShown } from "./moment.ts";

/** How many taps something takes: 1 a way out that a person takes, 0 what happens by itself; undefined what is no way out, such as Back. */
export type Cost = 0 | 1 | undefined;

const afterLegs = (project: Project): ReadonlySet<string> => new Set(project.legs.flatMap(({ id, on }) => (on.kind === "after" ? [id] : [])));

/** What an event costs in taps. */
export function tapsOf(project: Project, event: NavEvent): Cost {
  switch (event.do) {
    case "leg":
      return once(project, afterLegs).has(event.leg) ? 0 : 1;
    case "tab":
    case "pick":
    case "lead":
      return 1;
    case "close":
      return event.via === "back" ? undefined : 1;
    case "fact":
      return 0;
    default:
      return undefined;
  }
}

/** Events with all that might be typed for them. */
function typed(project: Project, state: State, event: NavEvent): NavEvent[] {
  const leg = event.do === "leg" ? lookup(project).legs.get(event.leg) : undefined;
  if (!leg || event.do !== "leg") return [event];
  return typedFields(project, state, leg).map((fields) => (fields ? { ...event, fields } : event));
}

/** States that are looked at, at most. */
const MOST = 800;

/** What may be spent on all questions together, in states; what is left is counted down. */
export interface Budget {
  left: number;
}

/**
 * The fewest taps that lead from a state to a moment that sees one of some places; more than `limit` where it takes more, or there is no
 * way. Undefined where there were too many states to look at. `least` tells of a state how many taps it takes at least, by which the nearest
 * are looked at first (A*, Hart, Nilsson and Raphael 1968).
 */
export function fewestTaps(
  project: Project,
  from: State,
  to: readonly string[],
  limit: number,
  least: (state: State) => number = () => 0,
  budget: Budget = { left: MOST },
): number | undefined {
  const app = appOf(project);
  const wanted = new Set(to);
  const sees = (places: Iterable<string>) => [...places].some((id) => wanted.has(id));
  if (sees(placesShown(from))) return 0;
  const waiting: Array<Array<{ state: State; taps: number }>> = [];
  const seen = new Map<string, number>();
  const wait = (state: State, taps: number) => {
    const rank = taps + least(state);
    if (rank > limit) return;
    const key = JSON.stringify(state);
    if ((seen.get(key) ?? Number.POSITIVE_INFINITY) <= taps) return;
    seen.set(key, taps);
    waiting[rank] ??= [];
    waiting[rank]?.push({ state, taps });
  };
  wait(from, 0);
  let best = limit + 1;
  for (let rank = 0; rank < Math.min(waiting.length, best); rank++) {
    const list = waiting[rank] ?? [];
    for (let next = list.pop(); next; next = list.pop()) {
      const { state, taps } = next;
      budget.left -= 1;
      if (seen.size > MOST || budget.left < 0) return undefined;
      // Facts come first, so that they are tried last.
      const events = candidateEvents(project, state).flatMap((event) => (tapsOf(project, event) === undefined ? [] : typed(project, state, event)));
      events.sort((a, b) => Number(b.do === "fact") - Number(a.do === "fact"));
      for (const event of events) {
        const cost = tapsOf(project, event) ?? 0;
        if (taps + cost > limit) continue;
        const outcome = step(app, state, event);
        if (outcome.outcome !== "moved") continue;
        if (sees(momentOf(event, outcome).places)) best = Math.min(best, taps + cost);
        else wait(outcome.state, taps + cost);
      }
      if (best <= rank) return best;
    }
  }
  return best;
}
