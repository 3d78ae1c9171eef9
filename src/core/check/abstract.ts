/**
 * The project as the checker follows it: the app's own facts and the width are known,
 * everything else a condition asks (outside facts, arguments, rows, typed text, addresses)
 * may go either way. The semantics itself runs; only how conditions are decided and how moves look down a stack are exchanged
 * for an evaluator and a stack access that ask a chooser, and every way of choosing is gone through.
 *
 * Within one event a question has one answer: `fact.online` and `!fact.online` never both hold.
 */

import { lookup } from "../model/lookup.ts";
import type { Project } from "../model/schema.ts";
import type { Leg, Plan } from "../plan/plan.ts";
import { planOf } from "../plan/planOf.ts";
import { plainApp } from "../semantics/app.ts";
import { shownIn } from "../semantics/state.ts";
import type { App, Node, Shown } from "../semantics/types.ts";
import { Chooser, LANE_QUESTION } from "./chooser.ts";
import type { AbstractProject, Closeness } from "./followed.ts";
import { isHidden, isRest, markOf } from "./lanes.ts";
import { truth, valueForFact } from "./unknown.ts";

/** Everything told apart. */
function closestOf(project: Project): Closeness {
  return { facts: new Set(project.facts.filter((fact) => fact.source === "app").map((fact) => fact.id)), apart: true };
}

export function abstractProject(original: Project, closeness = closestOf(original)): AbstractProject {
  const project: Project = {
    ...original,
    facts: original.facts.filter((fact) => fact.source === "app" && closeness.facts.has(fact.id)),
    screens: original.screens.map((screen) => (screen.params.length > 0 ? { ...screen, params: [] } : screen)),
  };
  const chooser = new Chooser();
  const plan = abstractPlan(planOf(original), project);
  const out: AbstractProject = {
    project,
    // Exchanged below for what asks this very project.
    app: plainApp(plan),
    original,
    closeness,
    closest: closeness.apart && original.facts.every((fact) => fact.source === "outside" || closeness.facts.has(fact.id)),
    chooser,
    assigned: new Map(),
    lanes: new Map(),
    arriving: new Map(),
    looked: new Set(),
    followed: new WeakMap(),
    held: new WeakMap(),
  };
  out.app = abstractApp(out, plan);
  return out;
}

/** The plan without arguments, and without the facts that are not followed. */
function abstractPlan(plan: Plan, project: Project): Plan {
  const { facts } = lookup(project);
  const known = new Map<Leg, Leg>();
  const leg = (one: Leg): Leg => {
    const made = known.get(one) ?? { ...one, pass: [], set: one.set.filter(({ fact }) => facts.has(fact)), earlier: one.earlier.map(leg) };
    known.set(one, made);
    return made;
  };
  return {
    ...plan,
    screens: new Map([...plan.screens].map(([id, screen]) => [id, screen.params.length > 0 ? { ...screen, params: [] } : screen])),
    facts: new Map([...plan.facts].filter(([id]) => facts.has(id))),
    legs: new Map([...plan.legs].map(([id, one]) => [id, leg(one)])),
    from: new Map([...plan.from].map(([id, group]) => [id, { events: group.events.map(leg), arrive: group.arrive.map(leg), depart: group.depart.map(leg) }])),
    entrances: new Map([...plan.entrances].map(([id, entrance]) => [id, { ...entrance, pass: [] }])),
  };
}

function abstractApp(abstract: AbstractProject, plan: Plan): App {
  const { legs } = planOf(abstract.original);
  return {
    plan,
    evaluator: {
      holds: (condition, values) => truth(abstract, condition.tree, values),
      value: (expression, values, fact) => (fact === undefined ? undefined : valueForFact(abstract, fact, expression.tree, values)),
      sameArguments: (screenId) => {
        const declared = lookup(abstract.original).screens.get(screenId);
        return declared === undefined || declared.params.length === 0 || abstract.chooser.choose(`same arguments on ${screenId}`, [true, false]) === true;
      },
    },
    stacks: {
      look: (node, why, wanted) => (isHidden(node) ? contentOf(abstract, markOf(node), node, why, wanted) : node),
      top: (items) => hiddenTop(items, (hidden) => oneOf(abstract, hidden, restsOf(abstract, markOf(hidden)))) ?? items,
      pop: (items) => hiddenTop(items.slice(0, -1), (hidden) => uncovered(abstract, hidden)) ?? items.slice(0, -1),
      cut: (items, find) => cutIn(abstract, items, find),
      bottom: ([first]) => (first === undefined ? [] : isRest(first) ? (oneOf(abstract, first, lowests(abstract, markOf(first))) ?? [first]) : [first]),
    },
    observer: {
      fired: (id) => {
        for (const { fact, value } of legs.get(id)?.set ?? []) {
          const known = value.tree[0] === "value" ? value.tree[1] : undefined;
          if (!plan.facts.has(fact)) abstract.assigned.set(fact, { known, version: (abstract.assigned.get(fact)?.version ?? 0) + 1 });
        }
      },
    },
  };
}

/** What the topmost item stands for, if it is a hidden rest. */
function hiddenTop(items: Items, known: (hidden: Shown) => Items | undefined): Items | undefined {
  const top = items[items.length - 1];
  return top && isRest(top) ? known(top) : undefined;
}

/** Cuts a stack down through what is known of it, and on through what is hidden. */
function cutIn(abstract: AbstractProject, items: Items, find: (item: Node) => Node | undefined): Items | undefined {
  for (let i = items.length - 1; i >= 0; i--) {
    const item = items[i] as Node;
    if (isRest(item)) return oneOf(abstract, item, cuts(abstract, markOf(item), find));
    const found = find(item);
    if (found) return found === item ? items.slice(0, i + 1) : [...items.slice(0, i), found];
  }
  return undefined;
}

/**
 * What a hidden lane holds. To look into it, any of what it held when it was left; to show it,
 * only what an arrive leg leads on from at once: the rest stays hidden behind the portal.
 */
function contentOf(abstract: AbstractProject, mark: string, hidden: Node, why: "search" | "show", wanted: string | undefined): Node {
  abstract.looked.add(mark);
  const contents = abstract.lanes.get(mark) ?? [hidden];
  if (why === "search") return searched(abstract, mark, contents, wanted);
  const arriving = abstract.arriving.get(mark) ?? [];
  if (arriving.length === 0) return hidden;
  return abstract.chooser.choose(`${LANE_QUESTION}${mark} shown`, arriving.length < contents.length ? [hidden, ...arriving] : arriving);
}

/** Any content of a hidden lane or branch; of those that can not hold a container that is looked for, one stands for all. */
function searched(abstract: AbstractProject, mark: string, contents: Node[], wanted: string | undefined): Node {
  if (wanted === undefined || contents.length < 2) return abstract.chooser.choose(`${LANE_QUESTION}${mark}`, contents);
  const without = new Set<string>();
  const holding = contents.filter((content) => mayHold(abstract, content, wanted, without));
  const [other] = contents.filter((content) => !holding.includes(content));
  if (!other) return abstract.chooser.choose(`${LANE_QUESTION}${mark}`, contents);
  return holding.length === 0 ? other : abstract.chooser.choose(`${LANE_QUESTION}${mark} for ${wanted}`, [...holding, other]);
}

/** Whether a container may be found in a node, or in what is hidden in it; `without` are marks that are known not to lead to it. */
function mayHold(abstract: AbstractProject, node: Node, wanted: string, without: Set<string>): boolean {
  const seen = new Set<string>();
  const search = (at: Node): boolean => {
    const { containers, marks } = heldBy(abstract, at);
    return containers.has(wanted) || marks.some((mark) => searchMark(mark));
  };
  const searchMark = (mark: string): boolean => {
    if (seen.has(mark) || without.has(mark)) return false;
    seen.add(mark);
    abstract.looked.add(mark);
    return (abstract.lanes.get(mark) ?? []).some(search);
  };
  if (search(node)) return true;
  for (const mark of seen) without.add(mark);
  return false;
}

/** The containers in a node, those of lanes that were never visited among them, and the marks of what is hidden in it. */
function heldBy(abstract: AbstractProject, node: Node): { containers: ReadonlySet<string>; marks: readonly string[] } {
  const known = abstract.held.get(node);
  if (known) return known;
  const containers = new Set<string>();
  const marks = new Set<string>();
  const visit = (at: Node) => {
    if (isHidden(at)) marks.add(markOf(at));
    if (at.kind === "shown") return;
    containers.add(at.at);
    if (at.kind === "stack") return at.items.forEach(visit);
    const plan = abstract.app.plan.containers;
    for (const id of plan.get(at.at)?.members ?? []) if (!Object.hasOwn(at.lanes, id)) for (const inside of plan.get(id)?.holds ?? []) containers.add(inside);
    Object.values(at.lanes).forEach(visit);
  };
  visit(node);
  const made = { containers, marks: [...marks] };
  abstract.held.set(node, made);
  return made;
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
  const arriving = rests.filter((items) => arrives(abstract.app.plan, items[items.length - 1] as Node));
  const options = arriving.length < rests.length ? [[hidden], ...arriving] : arriving;
  return abstract.chooser.choose(`${LANE_QUESTION}${hidden.at} shown`, options);
}

/** What shows of the content of a lane, or lies next beneath of a rest. */
export function topOf(content: Node): Node {
  return content.kind === "stack" ? (content.items[content.items.length - 1] as Node) : content;
}

/** Whether the screen that a node shows has arrive legs. */
export function arrives(plan: Plan, node: Node): boolean {
  return !isHidden(node) && (plan.from.get(shownIn(node).at)?.arrive.length ?? 0) > 0;
}
