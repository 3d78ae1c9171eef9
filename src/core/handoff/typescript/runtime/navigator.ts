import { buildAddress, findByAddress } from "../../../model/address.ts";
import { type Lead, leadOf } from "../../../semantics/bar.ts";
import { guardEvents } from "../../../semantics/guards.ts";
import { stateLine } from "../../../semantics/line.ts";
import { currentScreen, topBranch } from "../../../semantics/state.ts";
import { launch, step } from "../../../semantics/step.ts";
import type { App, Event, Outcome, Shown, State } from "../../../semantics/types.ts";

/** A move as hooks see it. */
export interface Moving {
  readonly event: Event;
  readonly from: State;
  readonly to: State;
}
export interface Hooks {
  /** Before a move; `false` holds it, and `resume` makes it later if nothing else has moved. */
  readonly before?: (moving: Moving, resume: () => void) => boolean | undefined;
  readonly after?: (moving: Moving) => void;
}

/** Keeps a state, carries out events, and tells who listens. */
export class Core {
  readonly app: App;
  private readonly hooks: Hooks;
  private now: State;
  private readonly listeners = new Set<(state: State, event: Event | undefined) => void>();

  constructor(app: App, hooks: Hooks = {}) {
    this.app = app;
    this.hooks = hooks;
    this.now = launch(app);
    // What guards say first is part of where the app starts, not a move: no hook runs before its navigator is there.
    this.askGuards(() => {});
  }

  get state(): State {
    return this.now;
  }
  /** The screen that shows, with its parameters. */
  get screen(): Shown {
    return currentScreen(this.now);
  }
  /** What the control at the start of the bar is. */
  get lead(): Lead {
    return leadOf(this.app.plan, this.now, topBranch(this.now));
  }
  get line(): string {
    return stateLine(this.app.plan, this.now);
  }

  /** Carries out an event; what guards say of the outside is asked first. */
  send(event: Event): Outcome["outcome"] | "held" {
    this.askGuards();
    const from = this.now;
    const result = step(this.app, from, event);
    if (result.outcome !== "moved") return result.outcome;
    const moving: Moving = { event, from, to: result.state };
    let held = false;
    const go = () => {
      if (this.now !== from) return;
      this.now = result.state;
      this.told(moving);
    };
    if (this.hooks.before?.(moving, () => held && go()) === false) {
      held = true;
      return "held";
    }
    go();
    return "moved";
  }

  /** Puts a state in place that was kept before, as a browser's history does. */
  restore(state: State): void {
    this.now = state;
    this.tell(undefined);
  }

  /** Calls a function after each change of the state; gives what ends that. */
  subscribe(listener: (state: State, event: Event | undefined) => void): () => void {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }

  /** The entrance that an address belongs to, with what its variables stand for. */
  match(address: string): { entrance: string; args: Record<string, string> } | undefined {
    const found = findByAddress(this.app.plan.entrances.values(), address);
    return found && { entrance: found.one.id, args: found.values };
  }

  /** The address of the screen that shows: its own, else that of the first entrance that leads to it, if all its variables are known. */
  get address(): string | undefined {
    const { at, args } = this.screen;
    const ways = [...this.app.plan.entrances.values()].filter(({ to }) => to === at);
    for (const pattern of [this.app.plan.screens.get(at)?.path, ...ways.map((way) => way.pattern)]) {
      const found = pattern === undefined ? undefined : buildAddress(pattern, args);
      if (found !== undefined) return found;
    }
    return undefined;
  }

  private askGuards(tell = (moving: Moving) => this.told(moving)): void {
    for (const event of guardEvents(this.app, this.now)) {
      const from = this.now;
      const result = step(this.app, from, event);
      if (result.outcome !== "moved") continue;
      // What is so outside can not be held; but who listens is told, for an arrive leg may have led on.
      this.now = result.state;
      tell({ event, from, to: this.now });
    }
  }

  private told(moving: Moving): void {
    this.hooks.after?.(moving);
    this.tell(moving.event);
  }

  private tell(event: Event | undefined): void {
    for (const listener of this.listeners) listener(this.now, event);
  }
}
