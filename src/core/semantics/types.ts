import type { Args, Json, Refusal, Width } from "../plan/data.ts";
import type { Expression, Values } from "../plan/expression.ts";
import type { Plan } from "../plan/plan.ts";

/**
 * A screen that is shown, or lies beneath. `spent`: the `after` legs that have fired since it was made. Two of them are the same
 * screen, and not two of one kind, if their `args` are one object: each is made with its own.
 */
export interface Shown {
  readonly kind: "shown";
  readonly at: string;
  readonly args: Args;
  readonly spent?: readonly string[];
}
/** A stack; items from the bottom to the top, at least one. */
export interface StackNode {
  readonly kind: "stack";
  readonly at: string;
  readonly items: readonly Node[];
}
/** A tab set; lanes by member id, `visited` latest last. */
export interface TabsNode {
  readonly kind: "tabs";
  readonly at: string;
  readonly active: string;
  readonly lanes: Readonly<Record<string, Node>>;
  readonly visited: readonly string[];
}
/** A drawer with what its members show; `open` is false while it is pinned. */
export interface DrawerNode {
  readonly kind: "drawer";
  readonly at: string;
  readonly active: string;
  readonly lanes: Readonly<Record<string, Node>>;
  readonly visited: readonly string[];
  readonly open: boolean;
}
export type LaneNode = TabsNode | DrawerNode;
export type Node = Shown | StackNode | LaneNode;

/** A modal that is open. */
export interface Layer {
  readonly at: string;
  readonly content: Node;
}
/** An entrance that waits until its condition holds. */
export interface Waiting {
  readonly entrance: string;
  readonly args: Args;
}

/** An event other than using a leg. */
export type PlainEvent =
  | { readonly do: "tab" | "pick"; readonly to: string }
  | { readonly do: "lead" | "back" | "launch" }
  | { readonly do: "close"; readonly via: "outside" | "swipe" | "button" | "back" }
  | { readonly do: "enter"; readonly entrance: string; readonly args?: Args | undefined; readonly cold?: boolean | undefined }
  | { readonly do: "fact"; readonly fact: string; readonly value: Json }
  | { readonly do: "width"; readonly to: Width };
/** Using a leg: `item` is the row used, its key or its position; `fields` is what was typed. */
export interface LegEvent {
  readonly do: "leg";
  readonly leg: string;
  readonly item?: Json | undefined;
  readonly fields?: Args | undefined;
}
export type Event = LegEvent | PlainEvent;

/** An event that a depart leg has put off, and how many layers there were. */
export interface Held {
  readonly event: PlainEvent;
  readonly depth: number;
}

/** The whole navigation state; never changed in place, parts are shared between states. */
export interface State {
  readonly base: Node;
  readonly layers: readonly Layer[];
  readonly facts: Args;
  readonly width: Width;
  readonly waiting?: Waiting;
  readonly held?: Held;
}

/** The reasons that `ignored` outcomes name: no such control now, or nothing that it would do. */
export type Idle = "no-such-control" | "nothing-to-do";

/** What an event comes to. Unless it moved, the state is the very one that it was. `log` is what happened on the way. */
export type Outcome =
  | { readonly state: State; readonly outcome: "moved"; readonly log: Log }
  | { readonly state: State; readonly outcome: "ignored"; readonly why: Idle; readonly log: Log }
  | { readonly state: State; readonly outcome: "refused"; readonly why: Refusal; readonly log: Log }
  | { readonly state: State; readonly outcome: "left"; readonly log: Log };

/** What a step did on the way, in order. */
export interface Log {
  /** Legs that fired, whether or not anything came of it. */
  readonly fired: readonly string[];
  readonly refused: ReadonlyArray<{ readonly leg: string; readonly why: Refusal }>;
  /** Legs that put a second copy of a place into one stack. */
  readonly copied: ReadonlyArray<{ readonly leg: string; readonly place: string }>;
  /** Legs that handed something back, the names, and the screen that showed then. */
  readonly handed: ReadonlyArray<{ readonly leg: string; readonly names: readonly string[]; readonly to: string }>;
  /** Arguments of a screen before and after it was handed something: it is still the same screen. */
  readonly renewed: ReadonlyArray<readonly [before: Args, after: Args]>;
  /** States that arrive legs led on from. */
  readonly passed: readonly State[];
}

/**
 * What a move comes to: a new state, with the place that a push put into a stack again, or why there is none. `back`: it went back to
 * something that may be handed a result.
 */
export type Change =
  | { readonly is: "moved"; readonly state: State; readonly copied?: string; readonly back?: true }
  | { readonly is: "ignored"; readonly why: Idle }
  | { readonly is: "refused"; readonly why: Refusal }
  | { readonly is: "left" };

/** How conditions and values are decided. The app's own works them out; a checker that knows only some of them decides otherwise. */
export interface Evaluator {
  holds(condition: Expression, values: Values): boolean;
  /** The value of an argument, or of a fact; undefined where it has none. */
  value(expression: Expression, values: Values, fact?: string): Json | undefined;
  /** Whether two arguments of one screen are equal. */
  sameArguments(screen: string, a: Args, b: Args): boolean;
}

/**
 * How moves look down a stack, into what does not show, and back at what was. The app's own looks at what is there; a checker that follows stacks to
 * any depth answers for all that may lie beneath.
 */
export interface StackAccess {
  /** The items with the top one known, at least where it is a place. */
  top(items: readonly Node[], place: string): readonly Node[];
  /** The items without the top one. */
  pop(items: readonly Node[]): readonly Node[];
  /**
   * The items down to the topmost one that `find` gives something for, that taking its place; undefined where there is none. `sought`
   * says what is looked for: `is PLACE`, `shows SCREEN` or `holds CONTAINER`.
   */
  cut(items: readonly Node[], find: (item: Node) => Node | undefined, sought: string): readonly Node[] | undefined;
  /** Whether a place is among the items. */
  has(items: readonly Node[], place: string): boolean;
  /** The lowest item alone. */
  bottom(items: readonly Node[]): readonly Node[];
  /** What a lane or a branch that does not show holds: to show it, or to search in it, for one container where `wanted` names it. */
  look(node: Node, why: "search" | "show", wanted?: string): Node;
  /** The lane of a tab set or drawer that was visited before the active one; undefined where there is none. */
  previous(node: LaneNode): string | undefined;
  /** The entrance that waits until its condition holds. */
  waiting(state: State): Waiting | undefined;
}

/** Told of what a step does, while it does it. */
export interface Observer {
  fired(leg: string): void;
}

/** Everything that a step depends on beside state and event. */
export interface App {
  readonly plan: Plan;
  readonly evaluator: Evaluator;
  readonly stacks: StackAccess;
  /** What only the app can tell: facts from outside, by their ids. */
  readonly guards?: Readonly<Record<string, () => Json>>;
  /** The rows of a record type, where the app has its own in place of samples. */
  readonly rows?: (type: string) => readonly Args[] | undefined;
  readonly observer?: Observer;
}
