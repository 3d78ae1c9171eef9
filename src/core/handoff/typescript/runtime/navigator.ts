import { buildAddress, findByAddress } from "../../../model/address.ts";
import type { Args, Json, Width } from "../../../plan/data.ts";
import { type Lead, leadOf } from "../../../semantics/bar.ts";
import { factsFitting, guardEvents } from "../../../semantics/guards.ts";
import { stateLine } from "../../../semantics/line.ts";
import { type Seen, seenMotion, type Taken } from "../../../semantics/motion.ts";
import { branchesInReach, firingOf } from "../../../semantics/reach.ts";
import { branchNode, currentScreen, screensIn, screensOf, shownIn, topBranch, visiblePath } from "../../../semantics/state.ts";
import { arrive, beginning, step } from "../../../semantics/step.ts";
import type { App, Event, Idle, Node, Outcome, Shown, State } from "../../../semantics/types.ts";
import { type LogOptions, logger } from "./log.ts";
import { type ElementNow, elementNow, type LooksData, titleOf } from "./looks.ts";

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
/** What came of an event: `held` where a hook holds it. */
export type Came = Outcome["outcome"] | "held";
/** Why an event would do nothing: what the design says, or undefined where it would do something. */
export type Why = Idle | Extract<Outcome, { outcome: "refused" }>["why"] | undefined;

/** A screen that stands: its key is its own as long as it stands, covered or not, and no other screen ever has it. */
export interface Standing {
  readonly id: string;
  readonly params: Args;
  readonly key: number;
  readonly title: string;
}
/** A container around a screen that shows. */
export interface Around {
  readonly id: string;
  readonly kind: "stack" | "tabs" | "drawer";
  /** Of tabs and drawers: the member that is chosen, and all of them in order. */
  readonly active?: string;
  readonly members?: readonly string[];
  /** Of a drawer: whether it is open, or always there at this width. */
  readonly open?: boolean;
  readonly pinned?: boolean;
}
/** The page, or a modal over it. */
export interface Branch {
  /** Undefined for the page itself. */
  readonly modal: string | undefined;
  readonly screen: Standing;
  /** The containers around the screen, outermost first. */
  readonly around: readonly Around[];
  /** All screens that stand in it, covered ones and those of other tabs among them. */
  readonly standing: readonly Standing[];
  /** Whether it can be used: nothing above it blocks. */
  readonly inReach: boolean;
}

export interface CoreOptions extends LogOptions {
  readonly hooks?: Hooks | undefined;
  /** Facts as they were stored. */
  readonly facts?: Readonly<Record<string, Json>> | undefined;
  /** Opens what lies outside of the app. */
  readonly open?: ((url: string) => void) | undefined;
  /** False: legs on `after` are left to the app, which sends them itself. */
  readonly timers?: boolean | undefined;
}

/** The clock, which is no part of the language itself. */
const clock = globalThis as unknown as { setTimeout(ring: () => void, ms: number): unknown; clearTimeout(timer: unknown): void };

/** Moves that begin so go to where one was, or nowhere: no link. */
const NO_LINKS: readonly string[] = ["close", "back", "up", "menu", "unless", "proceed", "leave", "refuse"];

/** Steps that are remembered to tell how what goes had come. */
const REMEMBERED = 60;

/** Keeps a state, carries out events, and tells who listens. */
export class Core {
  readonly app: App;
  private readonly looks: LooksData;
  private readonly hooks: Hooks;
  private readonly timed: boolean;
  private readonly note: ReturnType<typeof logger>;
  private now: State;
  private readonly listeners = new Set<(state: State, event: Event | undefined) => void>();
  private readonly timers = new Map<string, unknown>();
  private keys = new WeakMap<Args, number>();
  private nextKey = 1;
  private taken: Taken[] = [];
  private seen: Seen | undefined;
  private read: { state: State; branches: readonly Branch[] } | undefined;
  /** Opens what lies outside of the app. */
  open: ((url: string) => void) | undefined;
  /** The path beneath which the app lives. */
  base = "";

  constructor(app: App, looks: LooksData, options: CoreOptions = {}) {
    this.app = app;
    this.looks = looks;
    this.hooks = options.hooks ?? {};
    this.open = options.open;
    this.timed = options.timers !== false;
    const first = beginning(app);
    this.now = arrive(app, undefined, { ...first, facts: { ...first.facts, ...factsFitting(app, options.facts) } }).state;
    this.note = logger(app, options);
    this.note(this.now, { do: "launch" }, true);
    // What guards say first is part of where the app starts, not a move: no hook runs before its navigator is there.
    this.askGuards(() => {});
    this.setTimers();
  }

  get state(): State {
    return this.now;
  }
  /** The screen that shows. The same object as long as nothing changes. */
  get screen(): Standing {
    const { branches } = this;
    return (branches[branches.length - 1] as Branch).screen;
  }
  /** The page and what lies over it, lowest first. The same object as long as nothing changes. */
  get branches(): readonly Branch[] {
    if (this.read?.state !== this.now) this.read = { state: this.now, branches: this.readBranches() };
    return this.read.branches;
  }
  /** What the control at the start of the bar is. */
  get lead(): Lead {
    return leadOf(this.app.plan, this.now, topBranch(this.now));
  }
  get line(): string {
    return stateLine(this.app.plan, this.now);
  }
  /** How the last step looks; undefined where nothing changed place. */
  get motion(): Seen | undefined {
    return this.seen;
  }
  /** The facts as they are now, with stored ones as far as the design has them. */
  factsWith(stored: Readonly<Record<string, Json>>): State["facts"] {
    return { ...this.now.facts, ...factsFitting(this.app, stored) };
  }
  /** The facts that outlive the app. */
  get stored(): Readonly<Record<string, Json>> {
    return Object.fromEntries(Object.entries(this.now.facts).filter(([id]) => this.app.plan.facts.get(id)?.persists));
  }

  /** Carries out an event; what guards say of the outside is asked first. */
  send(event: Event): Came {
    this.askGuards();
    const from = this.now;
    const result = step(this.app, from, event);
    if (result.outcome === "left") this.openOutside(result.log.fired);
    if (result.outcome !== "moved") {
      this.note(from, event);
      return result.outcome;
    }
    const moving: Moving = { event, from, to: result.state };
    let held = false;
    const go = () => {
      if (this.now !== from) return;
      this.become(result, moving);
      this.told(moving);
    };
    if (this.hooks.before?.(moving, () => held && go()) === false) {
      held = true;
      return "held";
    }
    go();
    return "moved";
  }

  /** Why an event would do nothing now; undefined where it would do something. Nothing is changed by asking. */
  why(event: Event): Why {
    const asked = guardEvents(this.app, this.now).reduce((state, one) => step(this.app, state, one).state, this.now);
    const result = step(this.app, asked, event);
    return result.outcome === "ignored" || result.outcome === "refused" ? result.why : undefined;
  }

  /** How an element of a place stands now. */
  element(place: string, id: string): ElementNow {
    return elementNow(this.app, this.looks, this.now, place, id);
  }

  /** Puts a state in place that was kept before, as a browser's history does, with the keys of its screens. */
  restore(state: State, keys: readonly number[] = []): void {
    this.now = state;
    this.seen = undefined;
    this.taken = [];
    this.note(state);
    for (const [i, screen] of screensIn(state).entries()) {
      const key = keys[i];
      if (key === undefined) continue;
      this.keys.set(screen.args, key);
      this.nextKey = Math.max(this.nextKey, key + 1);
    }
    this.setTimers();
    this.tell(undefined);
  }

  /** The keys of all screens that stand, in the order in which `restore` takes them. */
  get standingKeys(): number[] {
    return screensIn(this.now).map((screen) => this.keyOf(screen));
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
    return this.addressOf(this.now);
  }

  /**
   * Where an event would lead, as an address of the page. Undefined where the address alone would not do what the event does: it goes
   * back or closes something, sets a fact, does nothing now, or shows something that has no address.
   */
  href(event: Event): string | undefined {
    const leg = event.do === "leg" ? this.app.plan.legs.get(event.leg) : undefined;
    if (leg && (leg.set.length > 0 || NO_LINKS.includes(leg.move?.[0]?.op ?? "close"))) return undefined;
    const { outcome, state } = step(this.app, this.now, event);
    const address = outcome === "moved" ? this.addressOf(state) : undefined;
    return address === undefined ? undefined : `${this.base}${address}`;
  }

  private addressOf(state: State): string | undefined {
    const { at, args } = currentScreen(state);
    const { entrances } = this.app.plan;
    const ways = [...entrances.values()].filter(({ to }) => to === at);
    for (const { pattern } of [entrances.get(`~${at}`) ?? {}, ...ways]) {
      const found = pattern === undefined ? undefined : buildAddress(pattern, args);
      if (found !== undefined) return found;
    }
    return undefined;
  }

  /** Ends what the navigator does by itself. */
  stop(): void {
    for (const timer of this.timers.values()) clock.clearTimeout(timer);
    this.timers.clear();
    this.listeners.clear();
  }

  private become(result: Extract<Outcome, { outcome: "moved" }>, { event, from }: Moving): void {
    for (const [before, after] of result.log.renewed) {
      const key = this.keys.get(before);
      if (key !== undefined) this.keys.set(after, key);
    }
    this.now = result.state;
    this.note(this.now, event);
    const taken: Taken = { event, before: from, after: this.now };
    this.seen = seenMotion(this.looks.motions, taken, this.taken);
    this.taken = [...this.taken.slice(-REMEMBERED), taken];
    this.setTimers();
  }

  private askGuards(tell = (moving: Moving) => this.told(moving)): void {
    for (const event of guardEvents(this.app, this.now)) {
      const from = this.now;
      const result = step(this.app, from, event);
      if (result.outcome !== "moved") continue;
      // What is so outside can not be held; but who listens is told, for an arrive leg may have led on.
      const moving: Moving = { event, from, to: result.state };
      this.become(result, moving);
      tell(moving);
    }
  }

  private told(moving: Moving): void {
    this.hooks.after?.(moving);
    this.tell(moving.event);
  }

  private tell(event: Event | undefined): void {
    for (const listener of this.listeners) listener(this.now, event);
  }

  private openOutside(fired: readonly string[]): void {
    const leg = this.app.plan.legs.get(fired[fired.length - 1] ?? "");
    const last = leg?.move?.[0];
    if (last?.op === "leave" && last.url !== undefined) this.open?.(last.url);
  }

  /** Starts the clock of each leg on `after` that has come in reach, and stops those that are no longer. */
  private setTimers(): void {
    if (!this.timed) return;
    const due = new Map<string, { leg: string; ms: number }>();
    for (const leg of this.app.plan.legs.values()) {
      if (leg.on !== "after" || leg.ms === undefined) continue;
      const firing = firingOf(this.app, this.now, leg, {});
      if (firing) due.set(`${this.keyOf(currentScreen(this.now, firing.branch))} ${leg.id}`, { leg: leg.id, ms: leg.ms });
    }
    for (const [name, timer] of this.timers)
      if (!due.has(name)) {
        clock.clearTimeout(timer);
        this.timers.delete(name);
      }
    for (const [name, { leg, ms }] of due) {
      if (this.timers.has(name)) continue;
      const ring = () => {
        this.timers.delete(name);
        this.send({ do: "leg", leg });
      };
      this.timers.set(name, clock.setTimeout(ring, ms));
    }
  }

  private keyOf({ args }: Shown): number {
    const key = this.keys.get(args) ?? this.nextKey++;
    this.keys.set(args, key);
    return key;
  }

  private readBranches(): Branch[] {
    const reach = branchesInReach(this.app, this.now);
    return Array.from({ length: topBranch(this.now) + 1 }, (_, branch) => {
      const node = branchNode(this.now, branch);
      const standing = screensOf(node).map((screen) => this.standingOf(screen));
      const screen = shownIn(node);
      return {
        modal: this.now.layers[branch - 1]?.at,
        screen: standing.find(({ key }) => key === this.keyOf(screen)) ?? this.standingOf(screen),
        around: visiblePath(node).flatMap((one) => (one.kind === "shown" ? [] : [this.aroundOf(one, this.now.width)])),
        standing,
        inReach: reach.includes(branch),
      };
    });
  }

  private standingOf(screen: Shown): Standing {
    return { id: screen.at, params: screen.args, key: this.keyOf(screen), title: titleOf(this.app, this.looks, this.now, screen) };
  }

  private aroundOf(node: Exclude<Node, Shown>, width: Width): Around {
    const { at: id, kind } = node;
    if (kind === "stack") return { id, kind };
    const container = this.app.plan.containers.get(id);
    const chosen = { id, kind, active: node.active, members: container?.members ?? [] };
    return kind === "tabs" ? chosen : { ...chosen, open: node.open, pinned: container?.pinnedAt?.includes(width) === true };
  }
}
