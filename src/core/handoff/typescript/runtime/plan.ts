/** JSON values. */
export type Json = string | number | boolean | null | { readonly [key: string]: Json } | readonly Json[];
export type Args = Readonly<Record<string, Json>>;
export type Width = "narrow" | "middle" | "wide";
export type Way = "outside" | "swipe" | "button" | "back";

/** What an expression may read; what is not there is undefined. */
export interface Values {
  readonly fact: Args;
  readonly width: Width;
  readonly param: Args;
  readonly item: Args | undefined;
  readonly field: Args | undefined;
  readonly link: Args | undefined;
  readonly next: Args | undefined;
  readonly prev: Args | undefined;
}
/** An expression as a function; undefined where a value that it needs is not there. */
export type Expression = (v: Values) => Json | undefined;

export interface Bar {
  readonly show: boolean;
  readonly lead: "auto" | "back" | "up" | "menu" | "none";
}
export interface ScreenPlan {
  readonly kind: "screen";
  readonly params: ReadonlyArray<{ readonly name: string; readonly type: string; readonly default?: Json }>;
  readonly up: string;
  readonly bar?: Bar;
  readonly pages?: { readonly over: string; readonly by: string; readonly order?: string };
  readonly coversTabs?: boolean;
  /** The address that the screen has. */
  readonly path?: string;
}
export interface ContainerPlan {
  readonly kind: "stack" | "tabs" | "drawer" | "modal";
  readonly start: string;
  readonly members: readonly string[];
  readonly bar?: Bar;
  readonly onBack?: "leave" | "start" | "previous";
  readonly chosenAgain?: "root" | "nothing";
  readonly keeps?: boolean;
  readonly over?: boolean;
  readonly pinnedFrom?: "never" | "middle" | "wide";
  readonly full?: boolean;
  readonly blocks?: boolean;
  readonly closeOn?: readonly Way[];
}
export type PlacePlan = ScreenPlan | ContainerPlan;

export type Move =
  | { readonly kind: "push"; readonly to: string; readonly in?: string; readonly repeat?: "copy" | "stay" | "rewind"; readonly tidy?: "source" | "stack" }
  | { readonly kind: "replace"; readonly to: string }
  | { readonly kind: "reset"; readonly to: string; readonly in?: string }
  | { readonly kind: "return"; readonly to: string; readonly orElse?: "push" | "replace" | "nothing" }
  | { readonly kind: "open"; readonly to: string; readonly show?: string; readonly instead?: boolean }
  | { readonly kind: "close"; readonly modal?: string }
  | { readonly kind: "select"; readonly to: string; readonly fresh?: boolean; readonly tidy?: "source" | "stack" }
  | { readonly kind: "menu"; readonly drawer?: string; readonly action?: "open" | "close" | "toggle" }
  | { readonly kind: "back" | "up" | "proceed" | "leave" };

export interface LegPlan {
  readonly from: string;
  /** What sets it off. "after", "arrive" and "depart" are the app's own; all else is the user's. */
  readonly on: "user" | "after" | "arrive" | "depart";
  /** Legs of one key stand in for one another: the first that can fire does. */
  readonly key: string;
  /** Kinds of events that a depart leg answers; left out: any. */
  readonly by?: readonly string[];
  /** It can never fire: one of its expressions is of the wrong type, or its element is not there. */
  readonly never?: boolean;
  readonly when?: Expression;
  readonly shown?: Expression;
  readonly enabled?: Expression;
  readonly except?: readonly string[];
  /** The record type of the rows that its element lists. */
  readonly rows?: string;
  readonly move?: Move;
  readonly passes?: boolean;
  readonly pass?: Readonly<Record<string, { readonly value: Expression; readonly required: boolean }>>;
  readonly set?: Readonly<Record<string, Expression>>;
  readonly resumes?: boolean;
}
export interface EntrancePlan {
  readonly pattern?: string;
  readonly variables: readonly string[];
  readonly to: string;
  readonly pass?: Readonly<Record<string, Expression>>;
  readonly when?: Expression;
  readonly otherwise?: string;
  readonly resume?: boolean;
  readonly onTop?: boolean;
}
export interface FactPlan {
  readonly initial: Json;
  readonly values?: readonly string[];
  readonly outside?: boolean;
  readonly persists?: boolean;
}
/** The design as data: places, legs, entrances, facts, and the rows that stand for real ones until the app gives its own. */
export interface Plan {
  readonly root: string;
  readonly places: Readonly<Record<string, PlacePlan>>;
  readonly legs: Readonly<Record<string, LegPlan>>;
  readonly entrances: Readonly<Record<string, EntrancePlan>>;
  readonly facts: Readonly<Record<string, FactPlan>>;
  readonly rows: Readonly<Record<string, { readonly key: string; readonly all: () => readonly Args[] }>>;
}

export type Event =
  | { readonly do: "leg"; readonly leg: string; readonly item?: Json; readonly fields?: Args; readonly args?: Args }
  | { readonly do: "tab" | "pick"; readonly to: string }
  | { readonly do: "lead" | "back" | "launch" }
  | { readonly do: "close"; readonly via: Way }
  | { readonly do: "enter"; readonly entrance: string; readonly args?: Args; readonly cold?: boolean }
  | { readonly do: "fact"; readonly fact: string; readonly value: Json }
  | { readonly do: "width"; readonly to: Width };
