/**
 * What a search worked out, for the search of the same project after an edit. A step comes to the same as before unless what it rests on
 * was edited: legs that a person takes count only for their own steps, names and labels for none; where anything else changed,
 * all is forgotten. A step that looked into hidden lanes counts only where they hold what they held then.
 */

import type { Element, Leg, Project, Screen, Width } from "../model/schema.ts";
import type { Node, State } from "../semantics/types.ts";
import type { Edge, Explored } from "./exploration.ts";
import type { Closeness } from "./followed.ts";
import type { Step } from "./steps.ts";

/** A state as a search keeps it, its lanes hidden, and what they held as they were left, by mark. */
export interface Hidden {
  state: State;
  key: string;
  left: Array<{ mark: string; content: Node }>;
  /** Filled in where the state is new to a search. */
  shown?: Pick<Explored, "line" | "screen" | "portal">;
}

/** All that a step comes to, and what the hidden lanes held that it looked into. */
export interface Worked {
  looked: Array<{ mark: string; held: readonly string[] }>;
  outcomes: Array<{ edge: Edge; after: Hidden | undefined }>;
}

type Contents = ReadonlyMap<string, ReadonlySet<string>>;
type Steps = Map<string, Worked[]>;

/** What searches of one width and closeness worked out. */
export class SearchMemory {
  /** Numbers of the moments at which lanes were left: the same ones each time. */
  readonly moments = new Map<string, number>();
  private before = new Map<string, Steps>();
  private now = new Map<string, Steps>();
  private edited: ReadonlySet<string> = new Set();
  private since = new Set<string>();
  /** Steps taken from memory in the search that was begun last. */
  reused = 0;

  /** Of legs from these places nothing is known any more. */
  forget(places: ReadonlySet<string>) {
    for (const place of places) this.since.add(place);
  }

  /** A search begins: it may use what the one before it worked out. */
  begin() {
    this.before = this.now;
    this.now = new Map();
    this.edited = this.since;
    this.since = new Set();
    this.reused = 0;
  }

  /** What a step from a state comes to, if that is known for what hidden lanes hold now. `from` is the place of the step's leg. */
  find(key: string, step: Step, from: string | undefined, contents: Contents): Worked | undefined {
    if (from !== undefined && this.edited.has(from)) return undefined;
    const found = this.before
      .get(key)
      ?.get(stepName(step))
      ?.find((worked) => holdTheSame(worked, contents));
    if (!found) return undefined;
    this.reused += 1;
    this.keep(key, step, found);
    return { looked: found.looked, outcomes: found.outcomes.map(({ edge, after }) => ({ edge: { ...edge, event: step.event }, after })) };
  }

  keep(key: string, step: Step, worked: Worked) {
    const steps = this.now.get(key) ?? new Map<string, Worked[]>();
    this.now.set(key, steps);
    const name = stepName(step);
    // As lanes fill up, a step is worked out again and again; the last two times are enough to begin and to end with.
    steps.set(name, [worked, ...(steps.get(name) ?? []).slice(0, 1)]);
  }
}

/** What tells the steps from one state apart. */
export function stepName({ event, way }: Step): string {
  switch (event?.do) {
    case "leg":
      return event.leg;
    case "tab":
    case "pick":
      return `${event.do} ${event.to}`;
    case "close":
      return `close ${event.via}`;
    default:
      return `${event?.do ?? "facts"} ${way}`;
  }
}

function holdTheSame({ looked }: Worked, contents: Contents): boolean {
  return looked.every(({ mark, held }) => {
    const now = contents.get(mark);
    return (now?.size ?? 0) === held.length && held.every((text) => now?.has(text));
  });
}

/** What checks of one project worked out, from edit to edit. */
export class Memory {
  private project: Project | undefined;
  private readonly searches = new Map<string, SearchMemory>();

  /** The project comes next: forgets what may not be so in it. */
  next(project: Project) {
    const edited = this.project ? editedPlaces(this.project, project) : undefined;
    if (!edited) this.searches.clear();
    else for (const search of this.searches.values()) search.forget(edited);
    this.project = project;
  }

  of(closeness: Closeness, width: Width): SearchMemory | undefined {
    if (closeness.whole) return undefined;
    const key = `${width} ${closeness.apart} ${[...closeness.facts].sort()}`;
    const known = this.searches.get(key) ?? new SearchMemory();
    this.searches.set(key, known);
    return known;
  }

  /** Steps taken from memory by the searches begun last. */
  get reused(): number {
    return [...this.searches.values()].reduce((sum, search) => sum + search.reused, 0);
  }
}

/** The places whose taken legs or elements differ between two projects; undefined where anything else does that steps rest on. */
export function editedPlaces(before: Project, after: Project): Set<string> | undefined {
  const edited = new Set<string>();
  for (const field of ["root", "facts", "types", "entrances"] as const) if (!same(before[field], after[field])) return undefined;
  if (before.containers.length !== after.containers.length || before.screens.length !== after.screens.length) return undefined;
  for (const list of ["containers", "screens"] as const)
    for (const [i, was] of before[list].entries()) {
      const is = after[list][i];
      if (was === is) continue;
      if (!is || !same(withoutLooks(was), withoutLooks(is))) return undefined;
      if (!same(was.elements, is.elements)) edited.add(is.id);
    }
  const [from, to] = [legsByPlace(before), legsByPlace(after)];
  for (const place of new Set([...from.keys(), ...to.keys()])) {
    const [was, is] = [from.get(place) ?? [], to.get(place) ?? []];
    if (was.length === is.length && was.every((leg, i) => leg === is[i])) continue;
    if (same(was, is)) continue;
    if (!same(was.filter(isItself), is.filter(isItself))) return undefined;
    edited.add(place);
  }
  return edited;
}

/** Legs that fire within other events. */
function isItself({ on }: Leg): boolean {
  return on.kind === "arrive" || on.kind === "depart";
}

function legsByPlace({ legs }: Project): Map<string, Leg[]> {
  const out = new Map<string, Leg[]>();
  for (const leg of legs) {
    const known = out.get(leg.from);
    if (known) known.push(leg);
    else out.set(leg.from, [leg]);
  }
  return out;
}

/** A place without what no step rests on, and of its elements only what gives expressions their types. */
function withoutLooks(place: Project["containers"][number] | Screen): object {
  const { name: _, elements, ...rest } = place;
  const typing = (elements ?? []).filter(isTyped).map(({ id, kind, of }) => ({ id, kind, of }));
  const { title: _title, planned: _planned, path: _path, ...steps } = rest as Partial<Screen>;
  return { ...steps, typing };
}

function isTyped({ kind, of }: Element): boolean {
  return kind === "field" || kind === "switch" || of !== undefined;
}

function same(a: unknown, b: unknown): boolean {
  return a === b || JSON.stringify(a) === JSON.stringify(b);
}
