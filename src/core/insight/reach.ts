import { firstScreen, lookup, treeOf } from "../model/lookup.ts";
import type { NavEvent, Project } from "../model/schema.ts";
import { branchNode, currentScreen, isOpenDrawer, shownIn, topBranch, visiblePath } from "../semantics/state.ts";
import { launch, step } from "../semantics/step.ts";
import type { State } from "../semantics/types.ts";
import { appOf } from "./app.ts";
import { candidateEvents } from "./available.ts";
import { typedFields } from "./typed.ts";

/** A state that was gone on from, or met at a screen. */
interface Met {
  screen: string;
  /** The containers that it is shown in. */
  within: readonly string[];
  state: State;
  /** Taps from launch. */
  taps: number;
}

/** What people can do from a launch, as far as it was followed: states, and what each tap makes of them. */
export interface ReachGraph {
  met: readonly Met[];
  /** By state the states that one event of a user leads to; time that passes is no tap. */
  next: ReadonlyArray<ReadonlyArray<{ to: number; taps: 0 | 1 }>>;
}

/** States that are gone on from for each thing that shows, at most: they differ in facts, and in what lies beneath. */
const EACH = 6;
/** States in all. */
const MOST = 6_000;

/**
 * Follows what users can do from a launch, breadth first, through the engine. States are put together that show the same over the
 * same, with the same facts; so what is beneath further down can make a way shorter that is not found here. What comes from outside
 * (ways in, facts, another width) does not happen.
 */
export function reachGraph(project: Project, width: State["width"] = "narrow"): ReachGraph {
  const app = appOf(project);
  const met: Met[] = [];
  const next: Array<Array<{ to: number; taps: 0 | 1 }>> = [];
  const known = new Map<string, number>();
  const kinds = new Map<string, number>();
  const add = (state: State, taps: number): number | undefined => {
    const kind = shows(state);
    const key = `${kind} ${beneath(state)} ${JSON.stringify(state.facts)}`;
    const at = known.get(key);
    if (at !== undefined) return at;
    const count = kinds.get(kind) ?? 0;
    if (count >= EACH || met.length >= MOST) return undefined;
    kinds.set(kind, count + 1);
    known.set(key, met.length);
    const path = visiblePath(branchNode(state, topBranch(state)));
    met.push({ screen: currentScreen(state).at, within: path.slice(0, -1).map(({ at: place }) => place), state, taps });
    next.push([]);
    return met.length - 1;
  };
  let wave = [add({ ...launch(app), width }, 0)].filter((i) => i !== undefined);
  const done = new Set<number>();
  for (let taps = 0; wave.length > 0; taps++) {
    const later: number[] = [];
    for (const i of wave) {
      if (done.has(i)) continue;
      done.add(i);
      const at = met[i];
      if (!at) continue;
      for (const event of eventsOf(project, at.state)) {
        const result = step(app, at.state, event);
        if (result.outcome !== "moved") continue;
        const free = isTime(project, event);
        const to = add(result.state, taps + (free ? 0 : 1));
        if (to === undefined) continue;
        next[i]?.push({ to, taps: free ? 0 : 1 });
        if (done.has(to)) continue;
        if (free) wave.push(to);
        else later.push(to);
      }
    }
    wave = later;
  }
  return { met, next };
}

/** What a user can do. Which row is tapped makes no difference to how far things are, unless a condition asks for it. */
function eventsOf(project: Project, state: State): NavEvent[] {
  const tried = new Set<string>();
  return candidateEvents(project, state).flatMap((event): NavEvent[] => {
    if (event.do === "enter" || event.do === "launch" || event.do === "fact" || event.do === "width") return [];
    const leg = event.do === "leg" ? lookup(project).legs.get(event.leg) : undefined;
    if (!leg) return [event];
    if (tried.has(leg.id) && leg.when === undefined) return [];
    tried.add(leg.id);
    return typedFields(project, state, leg).map((fields) => (fields ? { ...event, fields } : event));
  });
}

function isTime(project: Project, event: NavEvent): boolean {
  return event.do === "leg" && lookup(project).legs.get(event.leg)?.on.kind === "after";
}

/** The screens that show, on the page and in each layer, and whether a drawer is open. */
function shows(state: State): string {
  const branches = [state.base, ...state.layers.map(({ content }) => content)];
  return branches.map((node) => `${shownIn(node).at}${visiblePath(node).some(isOpenDrawer) ? "!" : ""}`).join(" ");
}

/** What lies directly beneath what shows, in the stacks around it. */
function beneath(state: State): string {
  const path = visiblePath(branchNode(state, topBranch(state)));
  return path
    .map((node) => (node.kind === "stack" ? (node.items.at(-2) ? shownIn(node.items[node.items.length - 2] as (typeof node.items)[number]).at : "") : ""))
    .join(" ");
}

/** The fewest taps to each screen from a launch, or from where a container or screen first shows; screens that are not reached are left out. */
export function tapsFrom(project: Project, { met, next }: ReachGraph, from?: string): ReadonlyMap<string, number> {
  const start = from === undefined ? 0 : firstMet(project, met, from);
  const out = new Map<string, number>();
  if (start === undefined || met.length === 0) return out;
  for (const [i, taps] of distances(next, [start])) {
    const screen = met[i]?.screen;
    if (screen !== undefined && taps < (out.get(screen) ?? Infinity)) out.set(screen, taps);
  }
  return out;
}

/** The fewest taps from each screen, as it is first come to, back to a screen. */
export function tapsTo({ met, next }: ReachGraph, to: string): ReadonlyMap<string, number> {
  const back: Array<Array<{ to: number; taps: 0 | 1 }>> = met.map(() => []);
  next.forEach((list, from) => {
    for (const edge of list) back[edge.to]?.push({ to: from, taps: edge.taps });
  });
  const goals = met.flatMap(({ screen }, i) => (screen === to ? [i] : []));
  const far = distances(back, goals);
  const out = new Map<string, number>();
  const nearest = new Map<string, number>();
  met.forEach(({ screen, taps }, i) => {
    if (taps >= (nearest.get(screen) ?? Infinity)) return;
    nearest.set(screen, taps);
    const back = far.get(i);
    if (back === undefined) out.delete(screen);
    else out.set(screen, back);
  });
  return out;
}

/** The state nearest to a launch in which a screen shows, or a container with its first screen. */
function firstMet(project: Project, met: readonly Met[], place: string): number | undefined {
  const first = firstScreen(project, place)?.id;
  const inside = new Set(treeOf(project, place));
  let best: number | undefined;
  met.forEach(({ screen, within, taps }, i) => {
    if (!inside.has(screen) || (place !== screen && !within.includes(place))) return;
    const rank = taps + (screen === first ? 0 : 1000);
    const known = best === undefined ? undefined : met[best];
    if (known === undefined || rank < known.taps + (known.screen === first ? 0 : 1000)) best = i;
  });
  return best;
}

/** Shortest ways over steps of no tap and of one: a queue with two ends, after Dijkstra. */
function distances(next: ReachGraph["next"], starts: readonly number[]): Map<number, number> {
  const out = new Map<number, number>();
  let wave = [...starts];
  for (let taps = 0; wave.length > 0; taps++) {
    const later: number[] = [];
    for (const at of wave) {
      if (out.has(at)) continue;
      out.set(at, taps);
      for (const edge of next[at] ?? []) if (!out.has(edge.to)) (edge.taps === 0 ? wave : later).push(edge.to);
    }
    wave = later;
  }
  return out;
}
