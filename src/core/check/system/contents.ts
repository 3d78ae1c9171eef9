import type { Node, Shown } from "../../semantics/types.ts";
import { contextOf, isRest } from "./hiding.ts";

/** Told of what is found out later. */
export interface Listener {
  /** A context may hold something more. */
  grew(context: string, content: Node): void;
  /** Part of what is hidden is known by itself. */
  apart(whole: Node, part: Node): void;
  /** Something is so for the first time: that another entrance may wait, or `missed`, `found`, `lacking`, `arriving`, `quiet` (not arriving), `another` (kind of place) or `holds`, and of which context. */
  became(what: string): void;
}

/**
 * What each context may hold. A new content may bring others about: in contexts that hold all that this one holds, and in those that are made
 * from it by a rule. Such work waits and is done in turn, so that rules may rest on each other in a circle.
 */
export class Contents {
  private readonly byContext = new Map<string, Node[]>();
  private readonly known = new Map<string, Set<string>>();
  /** Those that may hold a screen that arrive legs lead on from. */
  private readonly arriving = new Map<string, Node[]>();
  /** By context those that may hold all that it may hold. */
  private readonly flows = new Map<string, Set<string>>();
  /** By context the places of the topmost items of the stacks that it may hold. */
  private readonly tops = new Map<string, Set<string>>();
  private readonly rules: Array<(context: string, content: Node) => void> = [];
  private readonly waiting: Array<() => void> = [];
  private readonly waitingLast: Array<() => void> = [];

  constructor(
    private readonly listener: Listener,
    private readonly arrives: (content: Node) => boolean,
    readonly textOf: (content: Node) => string,
  ) {}

  contents(context: string): readonly Node[] {
    return this.byContext.get(context) ?? NONE;
  }

  contentsArriving(context: string): readonly Node[] {
    return this.arriving.get(context) ?? NONE;
  }

  all(): ReadonlyMap<string, Node[]> {
    return this.byContext;
  }

  mayEndWith(context: string, place: string): boolean {
    return this.tops.get(context)?.has(place) ?? false;
  }

  /** Adds what is to be done for each content of a context that is new. */
  follow(rule: (context: string, content: Node) => void) {
    this.rules.push(rule);
  }

  /** Does something for each content that a context has; what comes later is the matter of a rule. */
  forEach(contents: Iterable<Node>, work: (content: Node) => void) {
    for (const content of contents) this.later(() => work(content));
  }

  later(work: () => void) {
    this.waiting.push(work);
  }

  /** Does something when the search has nothing else left to do: what is cheaper to work out for many contents together. */
  last(work: () => void) {
    this.waitingLast.push(work);
  }

  /** Notes that a context may hold something, when its turn comes. */
  note(context: string, content: Node) {
    this.later(() => this.take(context, content));
  }

  /** All that one context may hold, now and later, the other may hold as well. */
  flow(from: string, to: string) {
    if (from === to || this.flows.get(from)?.has(to)) return;
    add(this.flows, from, to);
    for (const content of this.contents(from)) this.note(to, content);
  }

  /** Works off what is waiting: one thing after another, for each may bring up more. */
  settle() {
    for (let next = this.waiting.pop(); next; next = this.waiting.pop()) next();
  }

  /** Works off what was left for last; whether there was anything. */
  settleLast(): boolean {
    const any = this.waitingLast.length > 0;
    for (const work of this.waitingLast.splice(0)) work();
    this.settle();
    return any;
  }

  private take(context: string, content: Node) {
    const other = soleRest(content);
    if (other) {
      this.flow(contextOf(other), context);
      return;
    }
    if (!this.add(context, content)) return;
    for (const to of this.flows.get(context) ?? NO_NAMES) this.note(to, content);
    for (const rule of this.rules) rule(context, content);
    this.listener.grew(context, content);
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
    if (this.byContext.get(context)?.every((other) => other.at !== content.at)) this.listener.became(`another ${context}`);
    push(this.byContext, context, content);
    if (content.kind === "stack") add(this.tops, context, content.items[content.items.length - 1]?.at ?? "");
    if (this.arrives(content)) {
      push(this.arriving, context, content);
      this.listener.became(`arriving ${context}`);
    } else this.listener.became(`quiet ${context}`);
    return true;
  }
}

const NONE: readonly Node[] = [];
const NO_NAMES: readonly string[] = [];

/** The item of a stack of which nothing is known but a context, so that it holds all that this may hold; undefined for other nodes. */
export function soleRest(content: Node): Shown | undefined {
  const [only, ...more] = content.kind === "stack" ? content.items : NONE;
  return only && more.length === 0 && isRest(only) ? only : undefined;
}

export function add<T>(map: Map<string, Set<T>>, key: string, value: T) {
  const set = map.get(key);
  if (set) set.add(value);
  else map.set(key, new Set([value]));
}

export function push<T>(map: Map<string, T[]>, key: string, value: T) {
  const list = map.get(key);
  if (list) list.push(value);
  else map.set(key, [value]);
}
