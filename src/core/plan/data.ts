/**
 * A plan: one project made ready to run. It is plain JSON, the same for the engine, the checker and the code that is handed off:
 * ids are resolved, expressions are trees that have been type-checked, and every move is a short list of stack operations.
 */

/** Any value that JSON can hold. */
export type Json = string | number | boolean | null | Json[] | { [key: string]: Json };
/** Values by name: arguments of a screen, facts, a row. */
export type Args = Readonly<Record<string, Json>>;
export type Width = "narrow" | "middle" | "wide";
/** The ways in which a modal or an open drawer can be closed by hand. */
export type Way = "outside" | "swipe" | "button" | "back";

/** An expression as a tree: its operator first, then what it works on. */
export type Tree =
  | readonly ["value", Json]
  /** A name in scope: `width`, or a bag such as `fact` or `param` of which a member is read. */
  | readonly ["name", string]
  | readonly ["member", Tree, string]
  | readonly ["has" | "!" | "negative", Tree]
  | readonly ["&&" | "||" | "==" | "!=" | "<" | "<=" | ">" | ">=" | "+", Tree, Tree]
  | readonly ["?:", Tree, Tree, Tree];

/** What a place looks like when it is made: a screen, or a container with what it shows first. Arguments go to every screen in it. */
export type Template =
  | string
  | { readonly stack: string; readonly items: readonly Template[] }
  | { readonly lanes: string; readonly kind: "tabs" | "drawer"; readonly active: string; readonly shows: Template };

/** Where the app is after coming in from outside: the whole base, or a modal over the base as it is at launch. */
export type Route = { readonly base: Template } | { readonly over: string; readonly shows: Template };

/** Why the design makes an event impossible. */
export type Refusal = "no-stack" | "not-showing" | "no-place" | "no-value" | "inside-itself" | "not-allowed" | "redirect-loop";

/** How an item of a stack is told: by being a place, or by showing a screen. */
export type Matching = "is" | "shows";

/**
 * One stack operation. Operations run one after another on the branch that the move is made from; `stack` and `lanes` choose the
 * container that the following ones work on. `holds` are the containers that the new content brings along: none of them may stand
 * around the slot already. With `quiet` the move is ignored if in the end everything stands as before.
 */
export type Operation =
  | { readonly op: "refuse"; readonly why: Refusal }
  /** The nearest stack, or the nearest one of the branch beneath; where there is none, `otherwise` instead of all that follows. */
  | { readonly op: "stack"; readonly of: "nearest" | "beneath"; readonly otherwise?: readonly Operation[] }
  /** Brings a container onto the visible path, wherever it is. Where it is nowhere, `otherwise` instead of all that follows. */
  | { readonly op: "bring"; readonly up: string; readonly otherwise?: readonly Operation[] }
  /** Loses the top item (`one`), or all but the first (`rest`), of the nearest stack, if what follows can be done. */
  | { readonly op: "tidy"; readonly away: "one" | "rest" }
  /** Ends here if the screen that shows is this one already. */
  | { readonly op: "unless"; readonly shows: string }
  /** Ends here if the top item of the stack is this place; a screen, with the same arguments. */
  | { readonly op: "stay"; readonly on: string; readonly make: Template }
  /**
   * Cuts a stack down to its topmost item that matches, and ends there; goes on if there is none. `beneath` looks only under the
   * top, in the nearest stack or (`outwards`) in each one outwards; `pass` gives the arguments to what is found.
   */
  | {
      readonly op: "pop";
      readonly to: string;
      readonly by: Matching;
      readonly beneath?: "nearest" | "outwards";
      readonly pass?: boolean;
      readonly quiet?: boolean;
    }
  /** The nearest stack loses its top item, if it has more than one. */
  | { readonly op: "drop" }
  /** Puts new content on top of the stack. */
  | { readonly op: "push"; readonly make: Template; readonly holds?: readonly string[] }
  /** Puts new items in place of all that the stack has. */
  | { readonly op: "fill"; readonly make: readonly Template[]; readonly holds?: readonly string[] }
  /** Puts new content in the place of the screen that shows. */
  | { readonly op: "replace"; readonly make: Template; readonly holds?: readonly string[] }
  /** Makes a lane the active one: as it was left, or made again. */
  | { readonly op: "select"; readonly lane: string; readonly fresh?: boolean; readonly quiet?: boolean }
  | { readonly op: "open"; readonly modal: string; readonly make: Template; readonly instead?: boolean }
  /** Closes a layer and all above it: that of a modal, or the one that the move is made from. */
  | { readonly op: "close"; readonly modal?: string }
  /** Opens or closes a drawer on the visible path: the nearest one or the one named; without `open`, whichever it is not. */
  | { readonly op: "menu"; readonly drawer?: string; readonly open?: boolean }
  | { readonly op: "rebuild"; readonly route: Route }
  | { readonly op: "back" }
  | { readonly op: "up" }
  | { readonly op: "proceed" }
  /** `url` is what opens outside of the app. */
  | { readonly op: "leave"; readonly url?: string };

/** A move as stack operations. */
export type Program = readonly Operation[];

export interface BarPlan {
  readonly show: boolean;
  readonly lead: "auto" | "back" | "up" | "menu" | "none";
}

export interface ScreenPlan {
  readonly params: ReadonlyArray<{ readonly name: string; readonly default?: Json }>;
  /** What Up does on the base; left out where there is no up target. */
  readonly up?: Program;
  readonly bar?: BarPlan;
  /** One screen a row: the record type, the parameter that says which row, and the field that orders them. */
  readonly pages?: { readonly over: string; readonly by: string; readonly order?: string };
  readonly coversTabs?: boolean;
  /** The address of the screen itself. */
  readonly path?: string;
}

/** How something moves that comes; what goes plays it backwards. `carries` are elements that move from where they were to where they are. */
export interface MotionPlan {
  readonly kind: "none" | "slide" | "rise" | "fade" | "grow";
  readonly from?: "start" | "end" | "top" | "bottom" | undefined;
  readonly ms?: number | undefined;
  readonly carries?: ReadonlyArray<{ readonly from: string; readonly to: string }> | undefined;
}

export interface ContainerPlan {
  readonly kind: "stack" | "tabs" | "drawer" | "modal";
  readonly start: string;
  readonly members: readonly string[];
  /** The containers in its tree, itself among them. */
  readonly holds: readonly string[];
  readonly bar?: BarPlan;
  readonly onBack?: "leave" | "start" | "previous";
  readonly chosenAgain?: "root" | "nothing";
  readonly keeps?: boolean;
  readonly over?: boolean;
  /** The widths at which a drawer is pinned. */
  readonly pinnedAt?: readonly Width[];
  readonly blocks?: boolean;
  /** How it can be closed by hand. */
  readonly closeOn?: readonly Way[];
}

export interface LegPlan {
  readonly from: string;
  /** What sets it off. `after`, `arrive` and `depart` are the app's own; all else is the user's. */
  readonly on: "user" | "after" | "arrive" | "depart";
  /** Of a leg on `after`: milliseconds from when its screen shows. */
  readonly ms?: number;
  /** Earlier legs of the same place and trigger: the first that can fire does. */
  readonly earlier?: readonly string[];
  /** The kinds of events that a depart leg answers; left out, any. */
  readonly by?: readonly string[];
  /** It can never fire: one of its expressions is ill-typed, or its element is not there. */
  readonly never?: boolean;
  readonly when?: Tree;
  /** Conditions of its element, and the screens that do not show it. */
  readonly shown?: Tree;
  readonly enabled?: Tree;
  readonly except?: readonly string[];
  /** The record type of the rows that its element lists. */
  readonly rows?: string;
  readonly move?: Program;
  /** A drawer that the leg belongs to stays as it is. */
  readonly keepsDrawer?: boolean;
  readonly pass?: ReadonlyArray<{ readonly name: string; readonly value: Tree; readonly required?: boolean }>;
  /** What it hands back to the screen that shows once its move is made. */
  readonly give?: ReadonlyArray<{ readonly name: string; readonly value: Tree }>;
  readonly set?: ReadonlyArray<{ readonly fact: string; readonly value: Tree }>;
  readonly resumes?: boolean;
}

export interface EntrancePlan {
  readonly pattern?: string;
  readonly to: string;
  /** Left out where the screen does not exist. */
  readonly route?: Route;
  /** For `onTop`: what is pushed. */
  readonly make?: Template;
  readonly when?: Tree;
  /** Its condition is ill-typed, and so never holds. */
  readonly never?: boolean;
  readonly pass?: ReadonlyArray<{ readonly name: string; readonly value: Tree }>;
  /** Without `pass`: the parameters that variables of the pattern are for. */
  readonly takes?: ReadonlyArray<{ readonly name: string; readonly type: string }>;
  /** Where it leads while its condition does not hold; `route` is left out where that place does not exist. */
  readonly otherwise?: { readonly to: string; readonly route?: Route };
  readonly resume?: boolean;
  readonly onTop?: boolean;
}

export interface FactPlan {
  readonly initial: Json;
  readonly values?: readonly string[];
  readonly outside?: boolean;
  readonly persists?: boolean;
}

/** The rows of a record type; the key is its first field. */
export interface TypePlan {
  readonly key: string;
  readonly rows: readonly Args[];
}

/** The whole plan: tables by id, each in document order. */
export interface PlanData {
  /** The outermost place as it is at launch. */
  readonly launch: Template;
  readonly screens: Readonly<Record<string, ScreenPlan>>;
  readonly containers: Readonly<Record<string, ContainerPlan>>;
  readonly legs: Readonly<Record<string, LegPlan>>;
  readonly entrances: Readonly<Record<string, EntrancePlan>>;
  readonly facts: Readonly<Record<string, FactPlan>>;
  readonly types: Readonly<Record<string, TypePlan>>;
  /** What members of tabs and drawers look like when they are made, by their ids. */
  readonly lanes: Readonly<Record<string, Template>>;
}
