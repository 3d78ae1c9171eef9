/**
 * Contexts: what is hidden in the states of a search, and what each may hold.
 *
 * A state is kept with everything hidden that does not show: what lies beneath the top of a stack, the lanes that are not active, the
 * pages beneath a modal that blocks them. What stands there instead is the name of a context, and for each context it is noted what
 * it may hold. A content may itself rest on a context, even on the same one: list > item > item gives `stack.item` the contents
 * [stack.list, item] and [stack.item, item]. So finitely many states stand for stacks of any depth: a context is a state of the
 * automaton that post* saturation builds, and its contents are the transitions that leave it (Bouajjani, Esparza, Maler 1997).
 *
 * Cutting a stack down to a place that may lie deep in it gives a context of its own, `stack.item/is list`, which holds what the cut
 * can come to. It grows as the one that it is cut from grows, so that no step has to be worked out again for it.
 */

import { lookup } from "../../model/lookup.ts";
import { closed } from "../../semantics/lanes.ts";
import { make, makeLane } from "../../semantics/make.ts";
import { visibleChild, withChild, withLane } from "../../semantics/state.ts";
import type { LaneNode, Node, Shown, StackNode, State } from "../../semantics/types.ts";
import { type Covered, contextOf, heldBy, hide, hideContexts, isHidden, isRest, laneOf, mapRests, restOn } from "./hiding.ts";
import { factsKey, nodeKey, stateKey, withoutRules } from "./key.ts";
import { beneathOf, WAITING } from "./precision.ts";
import { mayBreak, rulesKey } from "./ruled.ts";
import type { Abstraction, Cut, KnownContexts, Missed, Part, Stop } from "./types.ts";

/** A state with its contexts hidden, and what was hidden now. */
export interface HiddenState {
  state: State;
  key: string;
  left: Array<{ context: string; content: Node }>;
  /** Something that showed is beneath something else now: more lies hidden beneath than there was. */
  covers: boolean;
}

/** Told of what is found out later. */
export interface Listener {
  /** A context may hold something more. */
  grew(context: string, content: Node): void;
  /** Part of what is hidden is known by itself. */
  apart(whole: Node, part: Node): void;
  /** Something is so for the first time: that another entrance may wait, or `missed`, `found`, `lacking`, `arriving`, `quiet` (not arriving), `another` (kind of place) or `holds`, and of which context. */
  became(what: string): void;
}

/** Contexts that may be known apart for being without something: beyond that, they are left as they are. */
const MOST_PARTS = 40;

/** Cuts that are known by themselves: beyond that, they are known by their stack. */
const MOST_CUTS = 400;

/** What a context may hold. */
interface Noted {
  context: string;
  content: Node;
}

/** A part of a context: what may hold a container. */
interface Holding extends Part {
  container: string;
}

/** A cut that is made in whatever a context may hold. */
interface Cutting {
  into: Cut;
  key: string;
  stop: Stop;
}

export class Contexts implements KnownContexts {
  private readonly held = new Map<string, Node[]>();
  private readonly texts = new WeakMap<Node, string>();
  private readonly known = new Map<string, Set<string>>();
  private readonly moments = new Map<string, number>();
  /** By context the cuts that are made in it. */
  private readonly cuts = new Map<string, Map<string, Cutting>>();
  /** By context the parts of it that are without something. */
  private partCount = 0;
  private readonly stops = new Map<string, (item: Node) => boolean>();
  private readonly parts = new Map<string, Array<{ into: string } & Missed>>();
  /** By context what others may hold as soon as it may hold anything. */
  private readonly awaiting = new Map<string, Noted[]>();
  /** What is still to be worked out. */
  private readonly todo: Array<
    Noted | { content: Node; into: string; missed: Missed } | { content: Node; cut: Cutting } | { content: Node; holding: Holding }
  > = [];
  private readonly cutNamed = new Map<string, Cut>();
  /** By context those that may hold all that it may hold, and by the context of a cut the cuts that go on in it. */
  private readonly flows = new Map<string, Set<string>>();
  private readonly goesOn = new Map<string, Set<Cut>>();
  /** Those that may hold a screen that arrive legs lead on from. */
  private readonly arriving = new Map<string, Node[]>();
  /** By place what it holds as it is made when first visited, as text. */
  private readonly made = new Map<string, string>();
  /** By context the places of the topmost items of the stacks that it may hold. */
  private readonly tops = new Map<string, Set<string>>();

  /** By context the containers that may be somewhere in it, and the contexts that rest on it. */
  private readonly containers = new Map<string, Set<string>>();
  private readonly around = new Map<string, Set<string>>();

  /** By context and container the parts of it that may hold one. */
  private readonly holdings = new Map<string, Map<string, Holding>>();

  readonly waiting = new Set<string>();

  constructor(
    private readonly abstraction: Abstraction,
    private readonly listener: Listener,
    private readonly arrives: (content: Node) => boolean,
  ) {}

  contents(context: string): readonly Node[] {
    return this.held.get(context) ?? NONE;
  }

  contentsArriving(context: string): readonly Node[] {
    return this.arriving.get(context) ?? NONE;
  }

  all(): ReadonlyMap<string, Node[]> {
    return this.held;
  }

  /** A state with what does not show hidden; contexts in which something was looked for and not found are known to be without it. */
  hide(found: State, missed?: Abstraction["missed"]): HiddenState {
    const known = this.withoutWaiting(found);
    const full =
      missed && missed.size > 0 ? mapRests(known, (context) => (missed.get(context) ?? []).reduce((part, one) => this.without(part, one), context)) : known;
    const left: HiddenState["left"] = [];
    let covers = false;
    this.settle();
    const state = hideContexts(this.abstraction, full, (name, content, of) => {
      if (soleRest(content)) {
        left.push({ context: name, content });
        return name;
      }
      covers ||= of.kind === "stack" || of.kind === "covered";
      const progress = mayBreak(this.abstraction, content) ? rulesKey(full) : "";
      const moment = this.abstraction.precision.contexts === "moment" ? this.moment(full, of, progress) : progress === "" ? undefined : this.numbered(progress);
      const place = moment === undefined ? name : `${name}#${moment}`;
      const context = this.stillWithout(place, content);
      left.push({ context, content });
      return context;
    });
    return { state, key: stateKey(this.abstraction.app.plan, state), left, covers };
  }

  /** The state without the entrance that waits, where that is not followed; it is noted that this one may wait. */
  private withoutWaiting(state: State): State {
    if (!state.waiting || this.abstraction.precision.follows.has(WAITING)) return state;
    const { waiting, ...rest } = state;
    if (!this.waiting.has(waiting.entrance)) {
      this.waiting.add(waiting.entrance);
      this.listener.became(WAITING);
    }
    return rest;
  }

  /** Notes that a context may hold something, and all that follows for cuts and parts of it. */
  note(context: string, content: Node) {
    this.todo.push({ context, content });
    this.settle();
  }

  /** Works off what is waiting: one thing after another, for each may bring up more. */
  private settle() {
    for (let next = this.todo.pop(); next; next = this.todo.pop()) {
      if ("missed" in next) this.partContent(next.content, next.into, next.missed);
      else if ("cut" in next) this.cutContent(next.content, next.cut);
      else if ("holding" in next) this.holdContent(next.content, next.holding);
      else this.take(next.context, next.content);
    }
  }

  private take(context: string, content: Node) {
    const other = soleRest(content);
    if (other) {
      this.flow(contextOf(other), context);
      return;
    }
    if (!this.add(context, content)) return;
    this.todo.push(...(this.awaiting.get(context) ?? []));
    this.awaiting.delete(context);
    for (const to of this.flows.get(context) ?? []) this.todo.push({ context: to, content });
    for (const { into, ...missed } of this.parts.get(context) ?? []) this.todo.push({ content, into, missed });
    for (const cut of this.cuts.get(context)?.values() ?? []) this.todo.push({ content, cut });
    for (const holding of this.holdings.get(context)?.values() ?? []) this.todo.push({ content, holding });
  }

  private add(context: string, content: Node): boolean {
    const text = this.textOf(content);
    const texts = this.known.get(context);
    if (texts?.has(text)) return false;
    if (texts) texts.add(text);
    else {
      this.known.set(context, new Set([text]));
      this.listener.became(`found ${context}`);
    }
    if (this.held.get(context)?.every((other) => other.at !== content.at)) this.listener.became(`another ${context}`);
    push(this.held, context, content);
    if (content.kind === "stack") add(this.tops, context, content.items[content.items.length - 1]?.at ?? "");
    this.holdsMore(context, content);
    if (this.arrives(content)) {
      push(this.arriving, context, content);
      this.listener.became(`arriving ${context}`);
    } else this.listener.became(`quiet ${context}`);
    this.listener.grew(context, content);
    return true;
  }

  mayEndWith(context: string, place: string): boolean {
    return this.tops.get(context)?.has(place) ?? false;
  }

  /** Whether a container may be somewhere in a context. */
  mayHold(context: string, container: string): boolean {
    return this.containers.get(context)?.has(container) ?? false;
  }

  private holdsMore(context: string, content: Node) {
    const { containers, hidden } = heldBy(this.abstraction.app.plan, content);
    const gained = new Set(containers);
    for (const inner of hidden) {
      add(this.around, inner, context);
      for (const id of this.containers.get(inner) ?? []) gained.add(id);
    }
    const queue = [{ at: context, gained }];
    for (let next = queue.pop(); next; next = queue.pop()) {
      const known = this.containers.get(next.at) ?? new Set();
      this.containers.set(next.at, known);
      const fresh = new Set([...next.gained].filter((id) => !known.has(id)));
      if (fresh.size === 0) continue;
      for (const id of fresh) {
        known.add(id);
        this.listener.became(`holds ${next.at} ${id}`);
      }
      for (const at of this.around.get(next.at) ?? []) {
        queue.push({ at, gained: fresh });
        for (const holding of this.holdings.get(at)?.values() ?? [])
          if (fresh.has(holding.container)) for (const content of holding.lacking) this.todo.push({ content, holding });
      }
    }
  }

  holding(context: string, container: string): Part {
    const known = this.holdings.get(context)?.get(container);
    if (known) return known;
    const holding: Holding = { context: `${context}/for ${container}`, container, lacking: new Set() };
    const all = this.holdings.get(context) ?? new Map<string, Holding>();
    this.holdings.set(context, all.set(container, holding));
    for (const content of this.contents(context)) this.todo.push({ content, holding });
    this.settle();
    return holding;
  }

  private holdContent(content: Node, { context, container, lacking }: Holding) {
    if (this.mayBeIn(content, container)) {
      lacking.delete(content);
      this.todo.push({ context, content: this.withoutIrrelevant(content, container, content) });
    } else if (!lacking.has(content)) {
      lacking.add(content);
      this.listener.became(`lacking ${context}`);
    }
  }

  /** Whether a container may be found in a node, or in what is hidden in it. */
  private mayBeIn(node: Node, container: string): boolean {
    const { containers, hidden } = heldBy(this.abstraction.app.plan, node);
    return containers.has(container) || hidden.some((context) => this.mayHold(context, container));
  }

  /**
   * The node as far as it tells what comes of bringing the container up. A lane that shows and can not have it is hidden by that anyway, and
   * of the stack itself the items need not be known before they are asked for. What they are is noted here.
   */
  private withoutIrrelevant(node: Node, container: string, whole: Node): Node {
    if (this.abstraction.precision.contexts !== "place" || node.kind === "shown") return node;
    if (node.at === container) {
      if (node.kind !== "stack") return node;
      this.todo.push({ context: container, content: node });
      this.listener.apart(whole, node);
      return { ...node, items: [{ kind: "shown", at: restOn(container), args: {} }] };
    }
    const child = visibleChild(node);
    if (!child || isHidden(child)) return node;
    if (this.mayBeIn(child, container)) {
      const known = this.withoutIrrelevant(child, container, whole);
      return known === child ? node : withChild(node, known);
    }
    if (node.kind === "stack") return node;
    const hidden = hide(this.abstraction, child, (name, content) => {
      this.todo.push({ context: name, content });
      return name;
    });
    this.todo.push({ context: node.active, content: hidden });
    this.listener.apart(whole, hidden);
    return closed({ ...node, lanes: withLane(node.lanes, node.active, { kind: "shown", at: laneOf(node.active), args: {} }) });
  }

  /** What cutting the stacks that a context may hold comes to. `key` tells the cuts in one context apart. */
  cut(context: string, key: string, stop: Stop): Cut {
    const cut = this.cutOf(context, key, stop);
    this.settle();
    return cut;
  }

  private cutOf(context: string, key: string, stop: Stop): Cut {
    const known = this.cuts.get(context)?.get(key);
    if (known) return known.into;
    const name = this.nameOfCut(context, key);
    const into = this.cutNamed.get(name) ?? { context: name, missed: false };
    this.cutNamed.set(name, into);
    const cuts = this.cuts.get(context) ?? new Map();
    const cut = { into, key, stop };
    this.cuts.set(context, cuts.set(key, cut));
    for (const content of this.contents(context)) this.todo.push({ content, cut });
    return into;
  }

  /** Cuts in what was cut before are known together, so that there is an end to their names; where there are many, those of one stack are. */
  private nameOfCut(context: string, key: string): string {
    const [uncut = "", before] = /^(.*?)(\/(?!no ).*)?$/.exec(context)?.slice(1) ?? [];
    if (before !== undefined) return `${uncut}/again/${key}`;
    return this.cutNamed.size < MOST_CUTS ? `${uncut}/${key}` : `${uncut.split(".")[0]}/again/${key}`;
  }

  private cutContent(content: Node, { into, key, stop }: Cutting) {
    if (content.kind !== "stack") return;
    const { items } = content;
    const [lowest] = items;
    const found = stop === "lowest" ? 0 : items.findLastIndex((item) => !isRest(item) && stop(item));
    if (found >= 0 && !(stop === "lowest" && lowest && isRest(lowest))) {
      const cut = found === items.length - 1 ? content : { ...content, items: items.slice(0, found + 1) };
      this.todo.push({ context: into.context, content: cut });
      if (cut !== content) this.listener.apart(content, cut);
    } else if (lowest && isRest(lowest)) {
      const on = this.cutOf(contextOf(lowest), key, stop);
      if (on === into) return;
      this.flow(on.context, into.context);
      add(this.goesOn, on.context, into);
      if (on.missed) this.miss(into);
    } else this.miss(into);
  }

  /** The part of a context in which something is not found; the context itself where it is a part already, or parts are too many. */
  private without(whole: string, missed: Missed): string {
    const [context = whole, other] = whole.split("/no ");
    // One thing is known not to be in a part. What is followed goes first.
    if (other !== undefined && (this.isFollowed(other) || !this.isFollowed(missed.key))) return whole;
    const name = `${context}/no ${missed.key}`;
    if (this.parts.get(context)?.some(({ into }) => into === name)) return name;
    if (this.partCount >= MOST_PARTS && !this.isFollowed(missed.key)) return whole;
    this.partCount += 1;
    this.stops.set(missed.key, missed.stop);
    push(this.parts, context, { into: name, ...missed });
    for (const content of this.contents(context)) this.todo.push({ content, into: name, missed });
    return name;
  }

  /** The part of a context for a content that goes on from one which is without something, where what lies on that is not it either. */
  private stillWithout(context: string, content: Node): string {
    const [lowest, ...others] = content.kind === "stack" ? content.items : [];
    const key = lowest && isRest(lowest) ? /\/no (.+)$/.exec(contextOf(lowest))?.[1] : undefined;
    const stop = key === undefined ? undefined : this.stops.get(key);
    if (!stop || !this.isFollowed(key ?? "") || others.some(stop)) return context;
    const name = `${context}/no ${key}`;
    return name;
  }

  /** Whether it is followed that what a cut looked for is not there; the key ends in its place. */
  private isFollowed(key: string): boolean {
    return this.abstraction.precision.follows.has(beneathOf(key.split(" ").at(-1) ?? ""));
  }

  private partContent(content: Node, into: string, missed: Missed) {
    if (content.kind !== "stack") return;
    const [lowest, ...others] = content.items;
    if (content.items.some((item) => !isRest(item) && missed.stop(item))) return;
    if (!lowest || !isRest(lowest)) {
      this.todo.push({ context: into, content });
      return;
    }
    const beneath = this.without(contextOf(lowest), missed);
    const part = { context: into, content: { ...content, items: [{ ...lowest, at: restOn(beneath) }, ...others] } };
    // There is no such content before there is something without it beneath.
    if (this.contents(beneath).length > 0) this.todo.push(part);
    else push(this.awaiting, beneath, part);
  }

  /** All that one context may hold, now and later, the other may hold as well. */
  private flow(from: string, to: string) {
    if (from === to || this.flows.get(from)?.has(to)) return;
    add(this.flows, from, to);
    for (const content of this.contents(from)) this.todo.push({ context: to, content });
  }

  private miss(cut: Cut) {
    const queue = [cut];
    for (let next = queue.pop(); next; next = queue.pop()) {
      if (next.missed) continue;
      next.missed = true;
      this.listener.became(`missed ${next.context}`);
      queue.push(...(this.goesOn.get(next.context) ?? []));
    }
  }

  /** Whether a content is what a place holds as it is made when first visited. */
  isAsMade(content: Node): boolean {
    const text = this.textOf(content);
    const known = this.made.get(content.at) ?? this.textAsMade(content.at);
    this.made.set(content.at, known);
    return text === known || (text.includes("#") && text.replace(/#\d+/g, "") === known);
  }

  private textAsMade(place: string): string {
    const { plan } = this.abstraction.app;
    return this.textOf(hide(this.abstraction, plan.lanes.has(place) ? makeLane(plan, place) : make(plan, place)));
  }

  /** A node as text: the same text for what is the same from here on. */
  textOf(node: Node): string {
    const known = this.texts.get(node);
    if (known !== undefined) return known;
    const text = nodeKey(this.abstraction.app.plan, node);
    this.texts.set(node, text);
    return text;
  }

  /** A number for the moment at which something is hidden: the facts, where Back follows it the order of visits, and what lies next beneath. */
  private moment(state: State, of: LaneNode | StackNode | Covered, progress: string): number {
    const container = lookup(this.abstraction.project).containers.get(of.at);
    const visits = of.kind === "tabs" && container?.kind === "tabs" && container.onBack === "previous" ? of.visited : [];
    const beneath = of.kind === "covered" ? of.beneath : of.kind === "stack" ? of.items[of.items.length - 2] : undefined;
    const key = `${withoutRules(factsKey(state.facts))} ${progress} ${visits} ${beneath ? this.textOf(beneath) : ""}`;
    return this.numbered(key);
  }

  private numbered(key: string): number {
    const known = this.moments.get(key);
    if (known !== undefined) return known;
    this.moments.set(key, this.moments.size);
    return this.moments.size - 1;
  }
}

const NONE: readonly Node[] = [];

/** The item of a stack of which nothing is known but a context, so that it holds all that this may hold; undefined for other nodes. */
function soleRest(content: Node): Shown | undefined {
  const [only, ...more] = content.kind === "stack" ? content.items : [];
  return only && more.length === 0 && isRest(only) ? only : undefined;
}

function add<T>(map: Map<string, Set<T>>, key: string, value: T) {
  const set = map.get(key);
  if (set) set.add(value);
  else map.set(key, new Set([value]));
}

function push<T>(map: Map<string, T[]>, key: string, value: T) {
  const list = map.get(key);
  if (list) list.push(value);
  else map.set(key, [value]);
}
