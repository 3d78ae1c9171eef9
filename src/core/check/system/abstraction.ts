/**
 * The project as the checker follows it. The facts that the precision names and the width are known; everything else that a condition asks (other
 * facts, outside facts, arguments, rows, typed text, addresses) may go either way. The semantics itself runs: only how conditions are decided and
 * how moves look down a stack is exchanged, for an evaluator and a stack access that leave what is not known to a chooser. Every way
 * of choosing is gone through.
 *
 * Within one event a question has one answer: `fact.online` and `!fact.online` never both hold.
 */

import { lookup } from "../../model/lookup.ts";
import { once } from "../../model/once.ts";
import type { Project } from "../../model/schema.ts";
import { expressionOf } from "../../plan/expression.ts";
import type { Entrance, Leg, Plan } from "../../plan/plan.ts";
import { planOf } from "../../plan/planOf.ts";
import { plainApp } from "../../semantics/app.ts";
import { plainStacks } from "../../semantics/stacks.ts";
import { shownIn } from "../../semantics/state.ts";
import type { App, Node, Shown, StackAccess } from "../../semantics/types.ts";
import { Chooser, CONTEXT_QUESTION, FACT_QUESTION, showing, whetherFound } from "./chooser.ts";
import { contextOf, isHidden, isRest, restOn } from "./hiding.ts";
import { cutTo } from "./insideContainers.ts";
import { handedIn } from "./missingParameters.ts";
import { type Valued, valuedOf } from "./parameterValues.ts";
import { closest, followable, visitsOf, WAITING } from "./precision.ts";
import { rulesFollowed } from "./ruleProgress.ts";
import type { Abstraction, KnownContexts, Rests } from "./types.ts";
import { truth, valueForFact } from "./unknownValues.ts";

export const noRests = (): Rests => ({ each: new Set(), eachArriving: new Set(), flags: new Set(), asked: new Map() });

export function abstractionOf(original: Project, precision = closest(original)): Abstraction {
  const project: Project = {
    ...original,
    facts: original.facts.filter((fact) => fact.source === "app" && precision.follows.has(fact.id)),
    screens: original.screens.map((screen) => (screen.params.length > 0 ? { ...screen, params: [] } : screen)),
  };
  const plan = abstractPlan(planOf(original), project, valuedOf(original));
  const out: Abstraction = {
    project,
    // Exchanged below for what asks this very abstraction.
    app: plainApp(plan),
    original,
    precision,
    closest: precision.apart && precision.contexts === "moment" && [...followable(original)].every((id) => precision.follows.has(id)),
    chooser: new Chooser(),
    valued: valuedOf(original),
    rules: rulesFollowed(original, precision.follows),
    assigned: new Map(),
    contexts: undefined,
    rests: noRests(),
    missed: new Map(),
    only: undefined,
    followed: new WeakMap(),
  };
  out.app = abstractApp(out, plan);
  return out;
}

/** The value of what is handed on or back: which does not matter to where the app goes. */
const UNKNOWN = expressionOf(["value", null]);

/** The plan without the facts that are not followed, and of arguments with those alone that may be missing though they must not. */
function abstractPlan(plan: Plan, project: Project, valued: Valued): Plan {
  const { facts } = lookup(project);
  const followed = (id: string) => [...(valued.followed.get(id) ?? [])].map(([name, is]) => (is === "has a default" ? { name, default: null } : { name }));
  const handed = (entrance: Entrance) => (valued.followed.size === 0 ? [] : [...handedIn(entrance).keys()].map((name) => ({ name, value: UNKNOWN })));
  const known = new Map<Leg, Leg>();
  const leg = (one: Leg): Leg => {
    const made = known.get(one) ?? {
      ...one,
      pass: valued.keeps(one),
      give: one.give.map(({ name, value }) => ({ name, value: valued.lacks(one, value.tree) ? value : UNKNOWN })),
      set: one.set.filter(({ fact }) => facts.has(fact)),
      earlier: one.earlier.map(leg),
    };
    known.set(one, made);
    return made;
  };
  return {
    ...plan,
    screens: new Map([...plan.screens].map(([id, screen]) => [id, screen.params.length > 0 ? { ...screen, params: followed(id) } : screen])),
    facts: new Map([...plan.facts].filter(([id]) => facts.has(id))),
    legs: new Map([...plan.legs].map(([id, one]) => [id, leg(one)])),
    from: new Map([...plan.from].map(([id, group]) => [id, { events: group.events.map(leg), arrive: group.arrive.map(leg), depart: group.depart.map(leg) }])),
    entrances: new Map([...plan.entrances].map(([id, entrance]) => [id, { ...entrance, pass: handed(entrance) }])),
  };
}

function abstractApp(abstraction: Abstraction, plan: Plan): App {
  const { legs } = planOf(abstraction.original);
  return {
    plan,
    evaluator: {
      holds: (condition, values) => truth(abstraction, condition.tree, values),
      value: (expression, values, fact) => {
        if (fact !== undefined) return valueForFact(abstraction, fact, expression.tree, values);
        return expression === UNKNOWN || abstraction.valued.mayBe(expression.tree, values.screen, values.param) ? null : undefined;
      },
      sameArguments: (screenId) => {
        const declared = lookup(abstraction.original).screens.get(screenId);
        return declared === undefined || declared.params.length === 0 || abstraction.chooser.choose(`same arguments on ${screenId}`, [true, false]) === true;
      },
    },
    stacks: stackAccess(abstraction),
    observer: {
      fired: (id) => {
        for (const { fact, value } of legs.get(id)?.set ?? []) {
          const known = value.tree[0] === "value" ? value.tree[1] : undefined;
          if (!plan.facts.has(fact)) abstraction.assigned.set(fact, { known, version: (abstraction.assigned.get(fact)?.version ?? 0) + 1 });
        }
      },
    },
  };
}

type Items = readonly Node[];
type Find = (item: Node) => Node | undefined;

/** Looks down stacks as far as they are known, and asks the contexts for what is hidden. */
function stackAccess(abstraction: Abstraction): StackAccess {
  return {
    look: (node, why, wanted) => (isHidden(node) ? contentOf(abstraction, node, why, wanted) : node),
    top: (items, place) => {
      const top = items[items.length - 1];
      return top && isRest(top) ? topOf(abstraction, top, place) : items;
    },
    pop: (items) => {
      const beneath = items.slice(0, -1);
      const top = beneath[beneath.length - 1];
      return top && isRest(top) ? itemsOf(abstraction, contextOf(top)) : beneath;
    },
    cut: (items, find, sought) => cutIn(abstraction, items, find, sought),
    has: (items, place) => mayHave(abstraction, items, place),
    previous: (node) => {
      if (abstraction.precision.follows.has(visitsOf(node.at))) return plainStacks.previous(node);
      const { members = [], start = node.active } = abstraction.app.plan.containers.get(node.at) ?? {};
      // What is shown first may be no member, where a document is wrong.
      const others = (members.includes(start) ? members : [...members, start]).filter((id) => id !== node.active);
      return abstraction.chooser.choose<string | null>(`${FACT_QUESTION}${visitsOf(node.at)}`, [...others, null]) ?? undefined;
    },
    waiting: (state) => {
      if (abstraction.precision.follows.has(WAITING)) return state.waiting;
      abstraction.rests.flags.add(WAITING);
      const entrance = abstraction.chooser.choose<string | null>(`${FACT_QUESTION}${WAITING}`, [...contexts(abstraction).waiting, null]);
      return entrance === null ? undefined : { entrance, args: {} };
    },
    bottom: ([first]) => {
      if (first === undefined) return [];
      if (!isRest(first)) return [first];
      return itemsOf(abstraction, contexts(abstraction).cut(contextOf(first), "lowest", "lowest").context);
    },
  };
}

function contexts({ contexts: known }: Abstraction): KnownContexts {
  if (!known) throw new Error("stackAccess: a hidden context was met outside of a search");
  return known;
}

/** The items of a stack that is uncovered: hidden, except for what an arrive leg leads on from at once. */
function itemsOf(abstraction: Abstraction, context: string): Items {
  const found = arrivingOr(abstraction, { kind: "shown", at: restOn(context), args: {} });
  return found.kind === "stack" ? found.items : [found];
}

/** What a context shows when it is uncovered: hidden still, or one of the contents that an arrive leg leads on from at once. */
function arrivingOr(abstraction: Abstraction, hidden: Shown): Node {
  if (!once(abstraction.app.plan, hasArriving)) return hidden;
  const context = contextOf(hidden);
  const arriving = contexts(abstraction).contentsArriving(context);
  abstraction.rests.flags.add(`arriving ${context}`);
  if (arriving.length === 0) return hidden;
  const others = arriving.length < contexts(abstraction).contents(context).length;
  abstraction.rests.eachArriving.add(context);
  if (!others) abstraction.rests.flags.add(`quiet ${context}`);
  return pick(abstraction, context, showing(context), others ? [hidden, ...arriving] : arriving);
}

/** One of some contents; only the new one, where a step is worked out once more for that. */
function pick<T extends Node>({ chooser, only }: Abstraction, context: string, question: string, options: readonly T[]): T {
  const taken = only?.context === context ? options.filter((option) => option === only.content) : options;
  return chooser.choose(question, taken.length > 0 ? taken : options);
}

/**
 * What a hidden lane or branch holds. To look into it, any of what it may hold; to show it, only what an arrive leg leads on
 * from at once: the rest stays hidden until it is said what shows.
 */
function contentOf(abstraction: Abstraction, hidden: Shown, why: "search" | "show", wanted: string | undefined): Node {
  if (why === "show") return arrivingOr(abstraction, hidden);
  const context = contextOf(hidden);
  const contents = contexts(abstraction).contents(context);
  if (contents.length === 0) return hidden;
  // A lane that is the very stack looked for is brought up as it is: what it holds need not be known yet.
  const isWanted = (content: Node) => content.kind === "stack" && content.at === wanted;
  if (contents.every(isWanted)) {
    abstraction.rests.flags.add(`another ${context}`);
    return { kind: "stack", at: wanted as string, items: [{ kind: "shown", at: restOn(context), args: {} }] };
  }
  if (wanted !== undefined && !contexts(abstraction).mayHold(context, wanted)) {
    abstraction.rests.flags.add(`holds ${context} ${wanted}`);
    return hidden;
  }
  if (wanted === undefined) {
    abstraction.rests.each.add(context);
    return pick(abstraction, context, CONTEXT_QUESTION + context, contents);
  }
  const part = contexts(abstraction).holding(context, wanted);
  abstraction.rests.each.add(part.context);
  const lacks = part.lacking.size > 0 || [...part.cuts].some(({ missed }) => missed);
  if (!lacks) abstraction.rests.flags.add(`lacking ${part.context}`);
  const holding = contexts(abstraction).contents(part.context);
  return pick(abstraction, part.context, CONTEXT_QUESTION + part.context, lacks || holding.length === 0 ? [hidden, ...holding] : holding);
}

/** The items with the top known where it may be a place, or hidden as they are. */
function topOf(abstraction: Abstraction, rest: Shown, place: string): Items {
  const context = contextOf(rest);
  abstraction.rests.each.add(context);
  const contents = contexts(abstraction).contents(context);
  const matching = contents.filter((content) => content.kind === "stack" && content.items[content.items.length - 1]?.at === place);
  const found = pick<Node>(
    abstraction,
    context,
    `${CONTEXT_QUESTION}${context} on top ${place}`,
    matching.length < contents.length ? [rest, ...matching] : matching,
  );
  return found.kind === "stack" ? found.items : [rest];
}

/** Cuts a stack down through what is known of it, and on through what is hidden. */
function cutIn(abstraction: Abstraction, items: Items, find: Find, sought: string, seen?: Set<string>): Items | undefined {
  for (let i = items.length - 1; i >= 0; i--) {
    const item = items[i] as Node;
    if (isRest(item)) return cutHidden(abstraction, contextOf(item), find, sought, seen);
    const found = find(item);
    if (found) return found === item ? items.slice(0, i + 1) : [...items.slice(0, i), found];
  }
  return undefined;
}

function cutHidden(abstraction: Abstraction, context: string, find: Find, sought: string, seen?: Set<string>): Items | undefined {
  if (sought.startsWith(HOLDS)) return bringUpHidden(abstraction, context, find, sought, seen);
  const cut = cutKnown(abstraction, context, sought, (item) => find(item) !== undefined);
  return cut === undefined ? undefined : itemsOf(abstraction, cut);
}

const HOLDS = "holds ";

/** Brings a container up that may be in an item of a hidden stack: each such item gives a result of its own. */
function bringUpHidden(abstraction: Abstraction, context: string, find: Find, sought: string, seen = new Set<string>()): Items | undefined {
  // Where a stack goes on as it began, there is nothing more in it to find.
  if (seen.has(context)) return undefined;
  seen.add(context);
  const id = sought.slice(HOLDS.length);
  if (!contexts(abstraction).mayHold(context, id)) {
    abstraction.rests.flags.add(`holds ${context} ${id}`);
    return undefined;
  }
  const { key, stop } = cutTo(abstraction.app.plan, id);
  const cut = cutKnown(abstraction, context, key, stop);
  if (!cut) return undefined;
  abstraction.rests.each.add(cut);
  const content = pick(abstraction, cut, CONTEXT_QUESTION + cut, contexts(abstraction).contents(cut));
  const items = content.kind === "stack" ? content.items : [];
  const found = find(items[items.length - 1] as Node);
  return found ? [...items.slice(0, -1), found] : cutIn(abstraction, items.slice(0, -1), find, sought, seen);
}

/** The context of what a cut can come to; undefined where it finds nothing, which may be a choice. */
function cutKnown(abstraction: Abstraction, context: string, key: string, stop: (item: Node) => boolean): string | undefined {
  const { flags } = abstraction.rests;
  const cut = contexts(abstraction).cut(context, key, stop);
  const found = cut.found();
  if (!cut.missed) flags.add(`missed ${cut.name}`);
  if (!found) flags.add(`found ${cut.name}`);
  if (found && (!cut.missed || abstraction.chooser.choose(whetherFound(cut.name), [true, false]))) return cut.context;
  abstraction.missed.set(context, [...(abstraction.missed.get(context) ?? []), { key, stop }]);
  return undefined;
}

/** Whether a place is among the items as far as they are known; what is hidden is noted, and looked through when all is known that it holds. */
function mayHave(abstraction: Abstraction, items: Items, place: string): boolean {
  if (items.some((item) => item.at === place)) return true;
  const rest = items.find(isRest);
  if (!rest || abstraction.missed.get(contextOf(rest))?.some(({ key }) => key === `is ${place}` || key === `shows ${place}`)) return false;
  const asked = abstraction.rests.asked.get(place) ?? new Set();
  abstraction.rests.asked.set(place, asked.add(contextOf(rest)));
  return true;
}

/** Whether there are arrive legs at all. */
const hasArriving = ({ from }: Plan): boolean => [...from.values()].some(({ arrive }) => arrive.length > 0);

/** Whether the screen that a node shows has arrive legs. */
export function arrives(plan: Plan, node: Node): boolean {
  return !isHidden(node) && (plan.from.get(shownIn(node).at)?.arrive.length ?? 0) > 0;
}
