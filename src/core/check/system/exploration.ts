import type { NavEvent, Width } from "../../model/schema.ts";
import type { Log, Node, Outcome, State } from "../../semantics/types.ts";
import type { Choice } from "./chooser.ts";
import type { Pending } from "./hiding.ts";
import type { Abstraction } from "./types.ts";

/**
 * What a step is to a person: `out` by something that the screen shows, `back` by the system's Back, `automatic` (an outside fact
 * changes), `restart` by a launch or a way in. `reveal` is no event: it says what a hidden context turns out to hold.
 */
export type Way = "out" | "back" | "automatic" | "restart" | "reveal";

/** One step of the search. `event` is undefined where outside facts change. */
export interface Edge {
  event: NavEvent | undefined;
  way: Way;
  choices: readonly Choice[];
  /** Number of the state reached. */
  to: number;
  outcome: Outcome["outcome"];
  /** A stack has more on it than before, so that the state line is another one even where the state is the same. */
  grew: boolean;
  /** What showed and lies beneath now, on a stack or beneath a layer: its number, and the context that may hold it. */
  hides: ReadonlyArray<{ readonly context: string; readonly content: number }>;
  /** The number of what lay beneath, where the step says that this comes to light. */
  uncovers: number | undefined;
  /** Numbers of what it left hidden, as far as that is not as it is made when first visited. */
  leaves: readonly number[];
  /** The number of what it shows again, where some step left that: a way that shows it comes after a way that left it. */
  shows: number | undefined;
  /** What is uncovered is as it is made when first visited; undefined where nothing does, or it is not said yet what. */
  asMade: boolean | undefined;
  why: string | undefined;
  /** Legs that fired and legs that were refused on the way. */
  fired: readonly string[];
  refusals: Log["refused"];
  /** Places that a leg put on a stack that may hold them already: surely, or if they are in one of some contexts. */
  copies: ReadonlyArray<Log["copied"][number] & { readonly beneath: readonly string[] }>;
  /** Legs that handed something back to the screen that showed then; a hidden one is told by its context. */
  handed: Log["handed"];
  /** Screens that arrive legs led on from, and the modals open at that moment. */
  passed: readonly string[];
  /** Those screens with the containers around them. */
  around: readonly string[];
}

export interface Explored {
  state: State;
  key: string;
  line: string;
  screen: string;
  /** By which edge of which state it was reached first; undefined for the launch. */
  from?: { node: number; edge: Edge };
  /** How the unknown turned out at the launch, for states that a launch shows. */
  launched?: readonly Choice[];
  /** Events from launch. */
  distance: number;
  /** Its steps but for `starts`. */
  edges: Edge[];
  /** The launches and ways in that are possible at any moment: one and the same list in all states that keep the same facts. */
  starts: readonly Edge[];
  /** The context that shows here, of which it is not yet said what it holds. */
  pending: Pending | undefined;
  /** Its steps have been worked out; false only where the search stopped before. */
  followed: boolean;
}

export interface Exploration {
  abstraction: Abstraction;
  width: Width;
  /** The widths that it stands for: those in which nothing can be different. */
  widths: Width[];
  nodes: Explored[];
  /** The launches, for every way in which the unknown may turn out. */
  launches: Edge[];
  /** False where the limit of states was reached first. */
  complete: boolean;
  /** What each context may hold. */
  contexts: ReadonlyMap<string, readonly Node[]>;
  /** By the number of what was left hidden those of its parts that came to be hidden by themselves. */
  parts: ReadonlyMap<number, readonly number[]>;
}

/** Of a state that nobody starts anew from: where it is not yet said what shows. */
export const NO_STARTS: readonly Edge[] = [];

/** All steps from a state, new starts among them. */
export function stepsFrom({ edges, starts }: Explored): readonly Edge[] {
  return starts.length === 0 ? edges : [...edges, ...starts];
}

/** Each list of new starts once, with the first state that has it. */
export function startLists(nodes: readonly Explored[]): ReadonlyMap<readonly Edge[], number> {
  const lists = new Map<readonly Edge[], number>();
  nodes.forEach(({ starts }, at) => {
    if (starts.length > 0 && !lists.has(starts)) lists.set(starts, at);
  });
  return lists;
}
