/** Quick lines as they are read: what stands where, with its column for errors. */

/** Where something stands in the text, both from 1. */
export interface At {
  line: number;
  column: number;
}

export interface LineProblem extends At {
  message: string;
}

/** One word or phrase between the commas of parentheses: `push`, `if fact.member`, `path /plots/{plotId}`. */
export interface Option extends At {
  text: string;
}

export interface ParamNode extends At {
  name: string;
  type: string;
  required: boolean;
  /** As JSON. */
  default?: unknown;
}

export type Target =
  | { is: "place"; path: string[] }
  /** Back, up, close and so on: what is no place. */
  | { is: "doing"; what: "back" | "up" | "close" | "menu" | "open menu" | "close menu" | "leave" | "go on" | "nothing"; name?: string };

export interface LegNode extends At {
  outcome?: string;
  target: Target;
  /** Undefined where the text says nothing of arguments: then those that are known are passed. */
  args?: Record<string, string>;
  options: Option[];
  /** What the target is where its name ends with a condition: `Home if member`. */
  perhaps?: { path: string[]; condition: Option };
}

export type PlaceTriggerNode =
  | { kind: "arrive" }
  | { kind: "depart" }
  | { kind: "after"; ms: number }
  | { kind: "swipe"; to: "left" | "right" | "up" | "down" };

export interface ElementNode extends At {
  label: string;
  kind: "button" | "icon" | "link" | "list" | "field" | "switch" | "text" | "image" | "pager";
  /** What it is where it leads nowhere, by the last word of its label: a field, a picture. */
  idle?: ElementNode["kind"];
  /** It is no element but something that happens by itself. */
  trigger?: PlaceTriggerNode;
  options: Option[];
  legs: LegNode[];
}

export interface PlaceNode extends At {
  name: string;
  /** The name stands in quotes: it is one of its own, whatever else is called so. */
  literal?: boolean;
  /** What it holds stands beneath a heading, and not further in: then what belongs to that may stand elsewhere, too. */
  flat?: boolean;
  params: ParamNode[];
  options: Option[];
  elements: ElementNode[];
  members: PlaceNode[];
}

export interface FactNode extends At {
  id: string;
  name?: string;
  values: Array<string | boolean>;
  options: Option[];
}

export interface RowsNode extends At {
  id: string;
  fields: Array<{ name: string; type: string }>;
  rows: string[][];
}

export interface WayInNode extends At {
  name?: string;
  pattern?: string;
  leg: LegNode;
}

/** What a rule speaks of: a place, the legs of an element by its label and place, or a way in. */
export type ThingNode = At & ({ is: "place"; path: string[] } | { is: "legs"; label: string; on: string[] } | { is: "way in"; name: string });

export interface RuleNode extends At {
  name: string;
  options: Option[];
  kind: "never" | "first" | "only" | "reach";
  /** By the word before them: `never`, `after`, `until`, `first`, `before`, `only`, `reach`, `of`. */
  things: Record<string, ThingNode[]>;
  while?: string;
  taps?: number;
}

export interface Lines {
  name?: string;
  facts: FactNode[];
  rows: RowsNode[];
  ways: WayInNode[];
  places: PlaceNode[];
  rules: RuleNode[];
}
