import { appOf } from "../../insight/app.ts";
import { candidateEvents } from "../../insight/available.ts";
import { typedFields } from "../../insight/typed.ts";
import { lookup } from "../../model/lookup.ts";
import type { NavEvent, Project } from "../../model/schema.ts";
import { planOf } from "../../plan/planOf.ts";
import { stateLine } from "../../semantics/line.ts";
import { arrive, beginning, step } from "../../semantics/step.ts";
import type { Outcome, State } from "../../semantics/types.ts";

/** States that are looked at for the next leg: by what a user does; by that and the outside, from where a walk stands and from a launch. */
const BY_USER = 1_500;
const NEAR = 150;
const FAR = 4_000;

export interface Cover {
  /** Each begins with a launch. */
  walks: NavEvent[][];
  /** Legs that no walk uses: none was found by which they fire. */
  unused: string[];
}

/**
 * Few walks that use every leg: each goes on to the nearest leg that was not used yet (breadth
 * first over whole states), and a new one begins where none is near. Greedy, so not the fewest
 * that could be; the fewest is at least one launch.
 */
export function coveringWalks(project: Project): Cover {
  const app = appOf(project);
  const unused = new Set(project.legs.map((leg) => leg.id));
  const used = ({ log }: Outcome) => log.fired.filter((leg) => unused.has(leg));
  const walks: NavEvent[][] = [];
  for (let first = true; unused.size > 0; first = false) {
    const launched = arrive(app, undefined, beginning(app));
    const atOnce = used(launched);
    for (const leg of atOnce) unused.delete(leg);
    let { state } = launched;
    const walk: NavEvent[] = [];
    for (;;) {
      const next = nearest(project, state, BY_USER, isOfUser, used) ?? nearest(project, state, walk.length === 0 ? FAR : NEAR, () => true, used);
      if (!next) break;
      walk.push(...next.events);
      state = next.state;
      for (const leg of next.used) unused.delete(leg);
    }
    if (walk.length === 0 && !(first && atOnce.length > 0)) break;
    walks.push(walk);
  }
  return { walks, unused: [...unused] };
}

interface Next {
  events: NavEvent[];
  state: State;
  used: string[];
}

const isOfUser = (event: NavEvent): boolean => event.do !== "enter" && event.do !== "launch" && event.do !== "fact" && event.do !== "width";

function nearest(project: Project, from: State, most: number, wanted: (event: NavEvent) => boolean, used: (result: Outcome) => string[]): Next | undefined {
  const seen = new Set([keyOf(project, from)]);
  const queue: Array<{ state: State; events: NavEvent[] }> = [{ state: from, events: [] }];
  for (let i = 0; i < queue.length && i < most; i++) {
    const at = queue[i] as { state: State; events: NavEvent[] };
    for (const event of ordered(candidateEvents(project, at.state).filter(wanted)).flatMap((one) => withFields(project, at.state, one))) {
      const result = step(appOf(project), at.state, event);
      if (result.outcome === "ignored" || result.outcome === "refused") continue;
      const events = [...at.events, event];
      const legs = used(result);
      if (legs.length > 0) return { events, state: result.state, used: legs };
      if (result.outcome === "left") continue;
      const key = keyOf(project, result.state);
      if (seen.has(key)) continue;
      seen.add(key);
      queue.push({ state: result.state, events });
    }
  }
  return undefined;
}

/** An event with what might be typed, where its leg asks what was. */
function withFields(project: Project, state: State, event: NavEvent): NavEvent[] {
  const leg = event.do === "leg" ? lookup(project).legs.get(event.leg) : undefined;
  if (!leg || event.do !== "leg") return [event];
  return typedFields(project, state, leg).map((fields) => (fields ? { ...event, fields } : event));
}

/** What a user does comes before what the outside does. */
function ordered(events: NavEvent[]): NavEvent[] {
  const rank = (event: NavEvent) =>
    event.do === "leg" ? 0 : event.do === "fact" || event.do === "width" ? 2 : event.do === "enter" || event.do === "launch" ? 3 : 1;
  return [...events].sort((a, b) => rank(a) - rank(b));
}

function keyOf(project: Project, state: State): string {
  return `${stateLine(planOf(project), state)} ${JSON.stringify(state.facts)} ${state.width}`;
}
