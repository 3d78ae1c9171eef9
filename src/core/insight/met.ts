import { firstScreen, lookup } from "../model/lookup.ts";
import { once } from "../model/once.ts";
import type { NavEvent, Project } from "../model/schema.ts";
import { branchesInReach } from "../semantics/reach.ts";
import { branchNode, currentScreen, topBranch, visiblePath } from "../semantics/state.ts";
import { launch, step } from "../semantics/step.ts";
import type { State } from "../semantics/types.ts";
import { appOf, comingInto } from "./app.ts";
import { candidateEvents } from "./available.ts";
import { typedFields } from "./typed.ts";

/** A state, and the branch of it on which a place shows. */
export interface Met {
  state: State;
  branch: number;
  /** False where no way from launch was found, and the state is the one that a way in would lay down. */
  real: boolean;
}

/** States looked into before a place is taken for one that nothing leads to yet. */
const LOOKED_INTO = 150;
/** States of one screen that are gone on from: another may come along with other facts, or other layers beneath. */
const EACH = 2;

/** What was looked for in a project: by place; a project is never changed in place, so it is kept with it. */
const searches = (_: Project) => new Map<string, Met[]>();

/**
 * States in which a place shows, nearest to launch first, at most `most` (of two); the one that somebody stands on, if it shows there,
 * before all others. Breadth-first, going on from a screen's first few states alone, so that it stays quick in a large app; where
 * nothing leads to the place, the state that a way in to it would lay down.
 */
export function metStates(project: Project, place: string, at?: State, most = EACH): Met[] {
  const branch = at && branchShowing(project, at, place);
  const here: Met[] = at && branch !== undefined ? [{ state: at, branch, real: true }] : [];
  if (here.length >= most) return here;
  const known = once(project, searches);
  const found = known.get(place) ?? search(project, place);
  known.set(place, found);
  return [...here, ...found.filter(({ real }) => real || here.length === 0)].slice(0, most);
}

function search(project: Project, place: string): Met[] {
  const near = once(project, nearLaunch);
  const out: Met[] = [];
  for (let i = 0; i < LOOKED_INTO && out.length < EACH; i++) {
    const state = near.state(i);
    if (!state) break;
    const branch = branchShowing(project, state, place);
    if (branch !== undefined) out.push({ state, branch, real: true });
  }
  if (out.length > 0) return out;
  const state = laidDown(project, place);
  return [{ state, branch: topBranch(state), real: false }];
}

const nearLaunch = (project: Project) => new NearLaunch(project);

/** The states nearest to launch, as many as somebody asks for: they are the same for every place that is looked for. */
class NearLaunch {
  private readonly states: State[];
  private readonly seen = new Map<string, number>();
  /** The states that were gone on from. */
  private expanded = 0;

  constructor(private readonly project: Project) {
    this.states = [launch(appOf(project))];
  }

  /** The state at a place in their order; undefined where there are no more. */
  state(i: number): State | undefined {
    while (this.states.length <= i && this.expanded < this.states.length) this.expand(this.expanded++);
    return this.states[i];
  }

  private expand(i: number) {
    const { project } = this;
    const state = this.states[i] as State;
    for (const event of candidateEvents(project, state).flatMap((one) => typedFor(project, state, one))) {
      if (!goesOn(event, i === 0)) continue;
      const { outcome, state: next } = step(appOf(project), state, event);
      if (outcome !== "moved") continue;
      const key = keyOf(next);
      const count = this.seen.get(key) ?? 0;
      if (count >= EACH) continue;
      this.seen.set(key, count + 1);
      this.states.push(next);
    }
  }
}

/** An event with each that might be typed for it. */
function typedFor(project: Project, state: State, event: NavEvent): NavEvent[] {
  const leg = event.do === "leg" ? lookup(project).legs.get(event.leg) : undefined;
  return leg ? typedFields(project, state, leg).map((fields) => (fields ? { ...event, fields } : event)) : [event];
}

/** What people do in the app, and cold ways in at the beginning. */
function goesOn(event: NavEvent, first: boolean): boolean {
  switch (event.do) {
    case "width":
    case "launch":
      return false;
    case "enter":
      return first && event.cold === true;
    default:
      return true;
  }
}

/** States in which the same screens show over one another are alike. */
function keyOf(state: State): string {
  const shown = Array.from({ length: state.layers.length + 1 }, (_, branch) => currentScreen(state, branch).at);
  const open = visiblePath(branchNode(state, topBranch(state))).some((node) => node.kind === "drawer" && node.open);
  return `${shown.join(" ")}${open ? " !" : ""}`;
}

function branchShowing(project: Project, state: State, place: string): number | undefined {
  return branchesInReach(appOf(project), state).find(
    (branch) => state.layers[branch - 1]?.at === place || visiblePath(branchNode(state, branch)).some((node) => node.at === place),
  );
}

/** What a way in to a place would lay down. */
function laidDown(project: Project, place: string): State {
  const first = launch(appOf(project));
  return comingInto(project, first, firstScreen(project, place)?.id ?? place) ?? first;
}
