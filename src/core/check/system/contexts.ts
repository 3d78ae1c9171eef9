/**
 * Contexts: what is hidden in the states of a search, and what each may hold.
 *
 * A state is kept with everything hidden that does not show: what lies beneath the top of a stack, the lanes that are not active, the
 * pages beneath a modal that blocks them. What stands there instead is the name of a context, and for each context it is noted what
 * it may hold. A content may itself rest on a context, even on the same one: list > item > item gives `stack.item` the contents
 * [stack.list, item] and [stack.item, item]. So finitely many states stand for stacks of any depth: a context is a state of the
 * automaton that post* saturation builds, and its contents are the transitions that leave it (Bouajjani, Esparza, Maler 1997).
 *
 * What contexts may hold is kept in contents.ts; cuts.ts, contextParts.ts and containersInside.ts make contexts from others by a rule, so that no step has to be
 * worked out again when those grow.
 */

import { lookup } from "../../model/lookup.ts";
import { make, makeLane } from "../../semantics/make.ts";
import type { LaneNode, Node, StackNode, State } from "../../semantics/types.ts";
import { Holdings } from "./containersInside.ts";
import { Contents, type Listener, soleRest } from "./contents.ts";
import { Parts } from "./contextParts.ts";
import { Cuts } from "./cuts.ts";
import { type Covered, hide, hideContexts, mapRests } from "./hiding.ts";
import { WAITING } from "./precision.ts";
import { mayBreak, rulesKey } from "./ruleProgress.ts";
import { factsKey, nodeKey, stateKey, withoutRules } from "./stateKey.ts";
import type { Abstraction, Cut, KnownContexts, Part, Stop } from "./types.ts";

/** What was hidden now, and in which context; `covered`: it showed, and lies beneath something else now, so that more lies hidden beneath than there was. */
interface Left {
  context: string;
  content: Node;
  covered: boolean;
}

/** A state with its contexts hidden, and what was hidden now. */
export interface HiddenState {
  state: State;
  key: string;
  left: Left[];
}

export class Contexts implements KnownContexts {
  readonly waiting = new Set<string>();
  private readonly held: Contents;
  private readonly parts: Parts;
  private readonly cuts: Cuts;
  private readonly holdings: Holdings;
  private readonly texts = new WeakMap<Node, string>();
  private readonly moments = new Map<string, number>();
  /** By place what it holds as it is made when first visited, as text. */
  private readonly made = new Map<string, string>();

  constructor(
    private readonly abstraction: Abstraction,
    private readonly listener: Listener,
    arrives: (content: Node) => boolean,
  ) {
    this.held = new Contents(listener, arrives, (content) => this.textOf(content));
    this.parts = new Parts(this.held, abstraction.precision.follows);
    const became = (what: string) => {
      listener.became(what);
      this.holdings.became(what);
    };
    this.cuts = new Cuts(this.held, { ...listener, became });
    this.holdings = new Holdings(abstraction, this.held, listener, this.cuts);
  }

  contents(context: string): readonly Node[] {
    return this.held.contents(context);
  }

  contentsArriving(context: string): readonly Node[] {
    return this.held.contentsArriving(context);
  }

  all(): ReadonlyMap<string, Node[]> {
    return this.held.all();
  }

  mayEndWith(context: string, place: string): boolean {
    return this.held.mayEndWith(context, place);
  }

  mayHold(context: string, container: string): boolean {
    return this.holdings.mayHold(context, container);
  }

  cut(context: string, key: string, stop: Stop): Cut {
    const cut = this.cuts.of(context, key, stop);
    this.held.settle();
    return cut;
  }

  holding(context: string, container: string): Part {
    const part = this.holdings.of(context, container);
    this.held.settle();
    return part;
  }

  /** A state with what does not show hidden; contexts in which something was looked for and not found are known to be without it. */
  hide(found: State, missed?: Abstraction["missed"]): HiddenState {
    const known = this.withoutWaiting(found);
    const full =
      missed && missed.size > 0
        ? mapRests(known, (context) => (missed.get(context) ?? []).reduce((part, one) => this.parts.without(part, one), context))
        : known;
    const left: HiddenState["left"] = [];
    this.held.settle();
    const state = hideContexts(this.abstraction, full, (name, content, of) => {
      if (soleRest(content)) {
        left.push({ context: name, content, covered: false });
        return name;
      }
      const progress = mayBreak(this.abstraction, content) ? rulesKey(full) : "";
      const moment = this.abstraction.precision.contexts === "moment" ? this.moment(full, of, progress) : progress === "" ? undefined : this.numbered(progress);
      const place = moment === undefined ? name : `${name}#${moment}`;
      const context = this.parts.stillWithout(place, content);
      left.push({ context, content, covered: of.kind === "stack" || of.kind === "covered" });
      return context;
    });
    return { state, key: stateKey(this.abstraction.app.plan, state), left };
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

  /** Notes that a context may hold something, and all that follows from it. */
  note(context: string, content: Node) {
    this.held.note(context, content);
    this.held.settle();
  }

  /** Works out what was left until the search has nothing else to do; whether there was anything. */
  settleLast(): boolean {
    return this.held.settleLast();
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
