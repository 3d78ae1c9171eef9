import { addressValues } from "../../insight/addresses.ts";
import { appOf } from "../../insight/app.ts";
import { candidateEvents } from "../../insight/available.ts";
import { typedFields } from "../../insight/typed.ts";
import { lookup } from "../../model/lookup.ts";
import type { NavEvent, Project } from "../../model/schema.ts";
import { planOf } from "../../plan/planOf.ts";
import { stateLine } from "../../semantics/line.ts";
import { currentScreen, isOpenDrawer, shownIn, visiblePath } from "../../semantics/state.ts";
import { arrive, beginning, step } from "../../semantics/step.ts";
import type { State } from "../../semantics/types.ts";

/** One look for legs: what is tried, how states are put together that are much alike, and how many of each kind are gone on from. */
interface Look {
  wanted: (event: NavEvent) => boolean;
  alike: (project: Project, state: State) => string;
  each: number;
}

/** From coarse to fine: most legs fire where their screen shows, whatever lies beneath; some want other facts, or what came from outside. */
const LOOKS: readonly Look[] = [
  { wanted: isOfUser, alike: shows, each: 2 },
  { wanted: isOfUser, alike: (project, state) => `${shows(project, state)} ${JSON.stringify(state.facts)}`, each: 2 },
  { wanted: () => true, alike: (project, state) => `${shows(project, state)} ${JSON.stringify(currentScreen(state).args)}`, each: 2 },
  { wanted: () => true, alike: (project, state) => `${shows(project, state)} ${JSON.stringify(state.facts)} ${state.width}`, each: 2 },
  { wanted: () => true, alike: (project, state) => stateLine(planOf(project), state), each: 4 },
];
/** States that one look goes on from, at most. */
const MOST = 3_000;

export interface Cover {
  /** By leg the events after a launch by which it fires first, in document order of the legs. */
  walks: Array<{ leg: string; events: NavEvent[] }>;
  /** Legs that no walk uses: none was found by which they fire. */
  unused: string[];
}

/**
 * For each leg a short walk of its own from a launch, breadth first: by what users do, and where a leg does not fire by that alone, with the
 * outside (facts, widths, ways in, new launches) too. Values of addresses, rows and fields are tried that conditions compare with.
 */
export function coveringWalks(project: Project): Cover {
  const found = new Map<string, NavEvent[]>();
  const launched = arrive(appOf(project), undefined, beginning(appOf(project)));
  for (const leg of launched.log.fired) if (!found.has(leg)) found.set(leg, []);
  for (const look of LOOKS) if (found.size < project.legs.length) search(project, launched.state, look, found);
  return {
    walks: project.legs.flatMap(({ id }) => {
      const events = found.get(id);
      return events ? [{ leg: id, events }] : [];
    }),
    unused: project.legs.flatMap(({ id }) => (found.has(id) ? [] : [id])),
  };
}

function isOfUser(event: NavEvent): boolean {
  return event.do !== "enter" && event.do !== "launch" && event.do !== "fact" && event.do !== "width";
}

/** What shows, page and layers, and whether a drawer is open. */
function shows(_: Project, state: State): string {
  const branches = [state.base, ...state.layers.map(({ content }) => content)];
  return branches.map((node) => `${shownIn(node).at}${visiblePath(node).some(isOpenDrawer) ? "!" : ""}`).join(" ");
}

interface Reached {
  state: State;
  from: Reached | undefined;
  event: NavEvent | undefined;
}

function search(project: Project, start: State, { wanted, alike, each }: Look, found: Map<string, NavEvent[]>) {
  const seen = new Set([keyOf(project, start)]);
  const met = new Map<string, number>();
  const queue: Reached[] = [{ state: start, from: undefined, event: undefined }];
  for (let i = 0; i < queue.length && i < MOST && found.size < project.legs.length; i++) {
    const at = queue[i] as Reached;
    for (const event of eventsIn(project, at.state).filter(wanted)) {
      const result = step(appOf(project), at.state, event);
      if (result.outcome === "ignored" || result.outcome === "refused") continue;
      const next: Reached = { state: result.state, from: at, event };
      for (const leg of result.log.fired) if (!found.has(leg)) found.set(leg, eventsTo(next));
      if (result.outcome === "left") continue;
      const key = keyOf(project, result.state);
      if (seen.has(key)) continue;
      seen.add(key);
      const kind = alike(project, result.state);
      const count = met.get(kind) ?? 0;
      if (count >= each) continue;
      met.set(kind, count + 1);
      queue.push(next);
    }
  }
}

function eventsTo(reached: Reached): NavEvent[] {
  const out: NavEvent[] = [];
  for (let at: Reached | undefined = reached; at?.event; at = at.from) out.unshift(at.event);
  return out;
}

/** Every event that could be tried, with each that might be typed for it and each value that an address might have. */
function eventsIn(project: Project, state: State): NavEvent[] {
  return candidateEvents(project, state).flatMap((event): NavEvent[] => {
    if (event.do === "enter") {
      const entrance = lookup(project).entrances.get(event.entrance);
      return entrance?.pattern === undefined ? [event] : addressValues(project, entrance).map((args) => ({ ...event, args }));
    }
    const leg = event.do === "leg" ? lookup(project).legs.get(event.leg) : undefined;
    return leg ? typedFields(project, state, leg).map((fields) => (fields ? { ...event, fields } : event)) : [event];
  });
}

/** What tells states apart: where everything stands, what the screen that shows knows, facts and width. */
function keyOf(project: Project, state: State): string {
  return `${stateLine(planOf(project), state)} ${JSON.stringify(currentScreen(state).args)} ${JSON.stringify(state.facts)} ${state.width}`;
}
