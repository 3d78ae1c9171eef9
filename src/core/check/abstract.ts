/**
 * The project as the checker follows it: the app's own facts and the width are known,
 * everything else a condition asks (outside facts, arguments, rows, typed text, addresses)
 * may go either way. The engine itself runs; only its conditions and values are exchanged
 * for ones that ask a chooser, and every way of choosing is gone through.
 *
 * Within one event a question has one answer: `fact.online` and `!fact.online` never both hold.
 */

import { type CompiledElement, type CompiledLeg, type CompiledProject, type Condition, compiled, register } from "../engine/compiled.ts";
import { type Node, type Refusal, type Shown, type State, shownIn } from "../engine/state.ts";
import { lookup } from "../model/lookup.ts";
import type { Json, Project } from "../model/schema.ts";
import { Chooser, LANE_QUESTION } from "./chooser.ts";
import { isHidden, isRest, markOf } from "./lanes.ts";
import { truth, valueForFact } from "./unknown.ts";

/** A leg that fired and could not do what it says. */
export interface RefusedLeg {
  leg: string;
  why: Refusal;
}

/** A leg that put a second copy of a place into a stack. */
export interface CopyMade {
  leg: string;
  place: string;
}

/** How closely a project is followed. Coarser is faster; what it can not settle is followed more closely. */
export interface Closeness {
  /** The facts of the app's own that are known. Others may have any value at any moment, and nobody chooses which. */
  facts: ReadonlySet<string>;
  /** Told apart are a drawer's lane that was never visited and one left as it is made, and the pages that a modal was opened over. */
  apart: boolean;
  /** Nothing is hidden: each state stands for itself. There may be no end of them. */
  whole?: boolean;
}

/** Everything told apart. */
function closestOf(project: Project): Closeness {
  return { facts: new Set(project.facts.filter((fact) => fact.source === "app").map((fact) => fact.id)), apart: true };
}

export interface AbstractProject {
  /** To run the engine on: no arguments, no outside facts. */
  project: Project;
  original: Project;
  closeness: Closeness;
  /** Nothing is left out that could be followed. */
  closest: boolean;
  chooser: Chooser;
  /** Facts that are not followed and have been set in this event: how often, and to what, where that is plain. */
  assigned: Map<string, { known: Json | undefined; version: number }>;
  /** Legs refused since it was emptied last, on whatever trigger. */
  refusals: RefusedLeg[];
  /** Screens that arrive legs led on from since it was emptied last. */
  passed: State[];
  /** Legs fired since it was emptied last, in order. */
  fired: string[];
  /** Second copies that legs put into a stack since it was emptied last. */
  copies: CopyMade[];
  /** What lanes held when they were left, by lane and facts. */
  lanes: Map<string, Node[]>;
  /** Those of them on whose screen an arrive leg may lead on at once. */
  arriving: Map<string, Node[]>;
  /** Hidden lanes that were looked into since it was emptied last. */
  looked: Set<string>;
  /** By the facts of concrete states those that are followed. */
  followed: WeakMap<State["facts"], State["facts"]>;
}

export function abstractProject(original: Project, closeness = closestOf(original)): AbstractProject {
  const project: Project = {
    ...original,
    facts: original.facts.filter((fact) => fact.source === "app" && closeness.facts.has(fact.id)),
    screens: original.screens.map((screen) => (screen.params.length > 0 ? { ...screen, params: [] } : screen)),
  };
  const chooser = new Chooser();
  const out: AbstractProject = {
    project,
    original,
    closeness,
    closest: closeness.apart && original.facts.every((fact) => fact.source === "outside" || closeness.facts.has(fact.id)),
    chooser,
    assigned: new Map(),
    refusals: [],
    passed: [],
    fired: [],
    copies: [],
    lanes: new Map(),
    arriving: new Map(),
    looked: new Set(),
    followed: new WeakMap(),
  };
  register(project, abstractCompiled(out, compiled(original)));
  return out;
}

function abstractCompiled(abstract: AbstractProject, concrete: CompiledProject): CompiledProject {
  const known = new Map<CompiledLeg, CompiledLeg>();
  const condition = (c: Condition | undefined): Condition | undefined => c && { ast: c.ast, run: (values) => truth(abstract, c.ast, values) };
  const element = (e: CompiledLeg["element"]): CompiledLeg["element"] =>
    e === undefined || e === "missing" ? e : ({ ...e, shown: condition(e.shown), enabled: condition(e.enabled) } satisfies CompiledElement);
  const leg = (entry: CompiledLeg): CompiledLeg => {
    const made = known.get(entry) ?? (isPlain(entry) && entry.earlier.every((other) => leg(other) === other) ? entry : undefined);
    if (made) return made;
    const next: CompiledLeg = {
      ...entry,
      when: condition(entry.when),
      element: element(entry.element),
      pass: [],
      set: entry.set
        .filter(({ fact }) => lookup(abstract.project).facts.has(fact))
        .map((s) => ({ ...s, run: (values) => valueForFact(abstract, s.fact, s.ast, values) })),
      earlier: [],
    };
    known.set(entry, next);
    next.earlier = entry.earlier.map(leg);
    return next;
  };
  return {
    hasDepart: concrete.hasDepart,
    legs: new Map([...concrete.legs].map(([id, entry]) => [id, leg(entry)])),
    from: new Map(
      [...concrete.from].map(([id, group]) => [id, { events: group.events.map(leg), arrive: group.arrive.map(leg), depart: group.depart.map(leg) }]),
    ),
    entrances: new Map(
      [...concrete.entrances].map(([id, entry]) => [id, { ...entry, pass: [], when: entry.when === "never" ? "never" : condition(entry.when) }]),
    ),
    sameArguments: (screenId) => {
      const declared = lookup(abstract.original).screens.get(screenId);
      return declared === undefined || declared.params.length === 0 || abstract.chooser.choose(`same arguments on ${screenId}`, [true, false]) === true;
    },
    reveal: (node, why) => (isHidden(node) ? contentOf(abstract, markOf(node), node, why) : node),
    rests: {
      isHidden: isRest,
      cut: (hidden, find) => oneOf(abstract, hidden, cuts(abstract, markOf(hidden as Shown), find)),
      known: (hidden) => oneOf(abstract, hidden, restsOf(abstract, markOf(hidden as Shown))) ?? [hidden],
      lowest: (hidden) => oneOf(abstract, hidden, lowests(abstract, markOf(hidden as Shown))) ?? [hidden],
      uncover: (hidden) => uncovered(abstract, hidden as Shown),
    },
    watch: {
      fired: (id) => {
        abstract.fired.push(id);
        for (const { fact, ast } of concrete.legs.get(id)?.set ?? []) {
          const known = ast.op === "value" && typeof ast.args !== "bigint" ? (ast.args as Json) : undefined;
          if (!lookup(abstract.project).facts.has(fact)) abstract.assigned.set(fact, { known, version: (abstract.assigned.get(fact)?.version ?? 0) + 1 });
        }
      },
      refused: (id, why) => abstract.refusals.push({ leg: id, why }),
      copied: (place) => abstract.copies.push({ leg: abstract.fired.at(-1) ?? "", place }),
      passed: (state) => abstract.passed.push(state),
    },
  };
}

/** Whether a leg neither asks, passes nor sets anything: there is nothing in it to exchange. */
function isPlain({ when, element, pass, set }: CompiledLeg): boolean {
  const asks = when !== undefined || (element !== undefined && element !== "missing" && (element.shown !== undefined || element.enabled !== undefined));
  return !asks && pass.length === 0 && set.length === 0;
}

/**
 * What a hidden lane holds. To look into it, any of what it held when it was left; to show it,
 * only what an arrive leg leads on from at once: the rest stays hidden behind the portal.
 */
function contentOf(abstract: AbstractProject, mark: string, hidden: Node, why: "search" | "show"): Node {
  abstract.looked.add(mark);
  const contents = abstract.lanes.get(mark) ?? [hidden];
  if (why === "search") return abstract.chooser.choose(`${LANE_QUESTION}${mark}`, contents);
  const arriving = abstract.arriving.get(mark) ?? [];
  if (arriving.length === 0) return hidden;
  return abstract.chooser.choose(`${LANE_QUESTION}${mark} shown`, arriving.length < contents.length ? [hidden, ...arriving] : arriving);
}

type Items = readonly Node[];

/** What a hidden rest holds, as far as it is known. */
function restsOf(abstract: AbstractProject, mark: string): Items[] {
  abstract.looked.add(mark);
  return (abstract.lanes.get(mark) ?? []).flatMap((content) => (content.kind === "stack" ? [content.items] : []));
}

/** All that a cut in a hidden rest can come to: the items up to what is found, or undefined where nothing is. */
function cuts(abstract: AbstractProject, mark: string, find: (item: Node) => Node | undefined): Array<Items | undefined> {
  const out: Array<Items | undefined> = [];
  let missed = false;
  eachRest(abstract, mark, new Set(), (items) => {
    for (let i = items.length - 1; i >= 0; i--) {
      const item = items[i] as Node;
      if (isRest(item)) return item;
      const found = find(item);
      if (!found) continue;
      out.push([...items.slice(0, i), found]);
      return undefined;
    }
    missed = true;
    return undefined;
  });
  if (missed) out.push(undefined);
  return out;
}

/** Shows all that a rest can hold, and, where it is told to look further down, what the rest beneath can. */
function eachRest(abstract: AbstractProject, mark: string, seen: Set<string>, look: (items: Items) => Shown | undefined) {
  if (seen.has(mark)) return;
  seen.add(mark);
  abstract.looked.add(mark);
  for (const content of abstract.lanes.get(mark) ?? []) {
    const beneath = content.kind === "stack" ? look(content.items) : undefined;
    if (beneath) eachRest(abstract, markOf(beneath), seen, look);
  }
}

function lowests(abstract: AbstractProject, mark: string): Items[] {
  const out: Items[] = [];
  eachRest(abstract, mark, new Set(), ([first]) => {
    if (first && isRest(first)) return first;
    if (first) out.push([first]);
    return undefined;
  });
  return out;
}

function oneOf(abstract: AbstractProject, hidden: Node, ways: Array<Items | undefined>): Items | undefined {
  if (ways.length < 2) return ways[0];
  const different = new Map(ways.map((way) => [JSON.stringify(way) ?? "", way]));
  if (different.size < 2) return ways[0];
  return abstract.chooser.choose(
    `${LANE_QUESTION}${hidden.at} ${[...different.keys()].join(" ")}`,
    [...different.values()].map((way) => ({ way })),
  ).way;
}

/** The items when the top has gone: hidden behind a portal, but for what an arrive leg leads on from at once. */
function uncovered(abstract: AbstractProject, hidden: Shown): Items {
  const mark = markOf(hidden);
  abstract.looked.add(mark);
  if (!abstract.arriving.has(mark)) return [hidden];
  const rests = restsOf(abstract, mark);
  const arriving = rests.filter((items) => arrives(abstract.project, items[items.length - 1] as Node));
  const options = arriving.length < rests.length ? [[hidden], ...arriving] : arriving;
  return abstract.chooser.choose(`${LANE_QUESTION}${hidden.at} shown`, options);
}

/** What shows of the content of a lane, or lies next beneath of a rest. */
export function topOf(content: Node): Node {
  return content.kind === "stack" ? (content.items[content.items.length - 1] as Node) : content;
}

/** Whether the screen that a node shows has arrive legs. */
export function arrives(project: Project, node: Node): boolean {
  return !isHidden(node) && (compiled(project).from.get(shownIn(node).at)?.arrive.length ?? 0) > 0;
}
