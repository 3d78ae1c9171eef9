import { createStore, type StoreApi } from "zustand";
import { appOf, comingInto } from "../../core/insight/app.ts";
import { explain } from "../../core/insight/explain.ts";
import type { NavEvent, Project } from "../../core/model/schema.ts";
import type { Args } from "../../core/plan/data.ts";
import { launch, step } from "../../core/semantics/step.ts";
import type { Outcome, State } from "../../core/semantics/types.ts";

export interface Step {
  event: NavEvent;
  outcome: Outcome["outcome"];
  /** Why nothing happened, as a sentence; empty where it moved. */
  sentence: string;
  state: State;
}
export interface WalkState {
  project: Project | undefined;
  start: State | undefined;
  steps: Step[];
  /** How many of the steps are done; those after it can be gone to again. */
  at: number;
  /** What the walk is evidence for, said at its end. */
  reason: string | undefined;
  /** The kept walk that is loaded. */
  kept: string | undefined;
  /** Where the walk begins, if not with a launch: a screen shown as by a way in. */
  begun: { screen: string; args: Args } | undefined;
  /** Whether time passes: it waits while a person holds it, and while a recorded walk is looked at. */
  time: "passes" | "held" | "paused";
  /** How fast a walk that is played goes on. */
  speed: Speed;
  setSpeed: (speed: Speed) => void;
  /** Whether motions are shown slowly. */
  slow: boolean;
  setSlow: (slow: boolean) => void;
  /** Does something after a while, unless something else is to be done before; playing is stopped by it. */
  later: (ms: number, run: () => void) => void;
  stopPlaying: () => void;
  /** Holds time, or lets it pass. */
  hold: (held: boolean) => void;
  /** Starts over on a screen with arguments, as a way in would show it. */
  beginAt: (screen: string, args: Args) => void;
  /** Replays what was done on a changed project. */
  follow: (project: Project) => void;
  send: (event: NavEvent) => Step | undefined;
  goTo: (at: number) => void;
  restart: () => void;
  /** Shows the whole of a walk, from its start; `play` then steps through it. */
  /** Shows steps that were made elsewhere, at their end. */
  show: (start: State, steps: Step[], reason: string) => void;
  load: (events: NavEvent[], more?: { reason?: string; at?: number; kept?: string }) => void;
}

/** Milliseconds between the steps of a walk that is played. */
export const SPEEDS = { slowly: 1600, steadily: 650, quickly: 160 } as const;
export type Speed = keyof typeof SPEEDS;

/** The walk beside the map: states by `step` from launch. */
export function createWalk(): StoreApi<WalkState> {
  let timer: ReturnType<typeof setTimeout> | undefined;
  return createStore<WalkState>((set, get) => ({
    speed: "steadily",
    setSpeed: (speed) => set({ speed }),
    slow: false,
    setSlow: (slow) => set({ slow }),
    later: (ms, run) => {
      clearTimeout(timer);
      timer = setTimeout(run, ms);
    },
    stopPlaying: () => clearTimeout(timer),
    project: undefined,
    start: undefined,
    steps: [],
    at: 0,
    reason: undefined,
    kept: undefined,
    begun: undefined,
    time: "passes",
    hold: (held) => set({ time: held ? "held" : "passes" }),
    beginAt: (screen, args) => {
      const { project } = get();
      if (project)
        set({ begun: { screen, args }, start: beginning(project, { screen, args }), steps: [], at: 0, reason: undefined, kept: undefined, ...live(get()) });
    },
    follow: (project) => {
      const known = get();
      if (known.project === project) return;
      const start = beginning(project, known.begun);
      const events = known.steps.map((one) => one.event);
      set({ project, start, steps: replay(project, start, events), reason: known.project ? undefined : known.reason });
    },
    send: (event) => {
      const { project, start, steps, at } = get();
      if (!project || !start) return undefined;
      const before = steps[at - 1]?.state ?? start;
      const made = stepOf(project, before, event);
      if (made.outcome !== "ignored") set({ steps: [...steps.slice(0, at), made], at: at + 1, reason: undefined, kept: undefined, ...live(get()) });
      return made;
    },
    goTo: (at) => set({ at: Math.max(0, Math.min(at, get().steps.length)), ...paused(get()) }),
    restart: () => {
      const { project } = get();
      set({ steps: [], at: 0, reason: undefined, kept: undefined, begun: undefined, ...live(get()), ...(project ? { start: launch(appOf(project)) } : {}) });
    },
    show: (start, steps, reason) => set({ start, begun: undefined, steps, at: steps.length, reason, kept: undefined, ...paused(get()) }),
    load: (events, { reason, at, kept } = {}) => {
      const { project } = get();
      if (!project) return;
      const start = launch(appOf(project));
      const steps = replay(project, start, events);
      set({ start, begun: undefined, steps, at: at ?? steps.length, reason, kept, ...paused(get()) });
    },
  }));
}

/** What a person does by hand lets time pass again, unless it is held. */
function live({ time }: WalkState): Pick<WalkState, "time"> {
  return { time: time === "held" ? "held" : "passes" };
}
function paused({ time }: WalkState): Pick<WalkState, "time"> {
  return { time: time === "held" ? "held" : "paused" };
}

/** The state with which a walk begins. */
function beginning(project: Project, begun: WalkState["begun"]): State {
  const first = launch(appOf(project));
  return (begun && comingInto(project, first, begun.screen, begun.args)) ?? first;
}

function replay(project: Project, start: State, events: NavEvent[]): Step[] {
  let state = start;
  return events.map((event) => {
    const made = stepOf(project, state, event);
    state = made.state;
    return made;
  });
}

function stepOf(project: Project, before: State, event: NavEvent): Step {
  const result = step(appOf(project), before, event);
  return { event, outcome: result.outcome, state: result.state, sentence: result.outcome === "moved" ? "" : explain(project, before, event, result) };
}

/** The state that the device shows now. */
export function stateOfWalk({ steps, at, start }: Pick<WalkState, "steps" | "at" | "start">): State | undefined {
  return steps[at - 1]?.state ?? start;
}
