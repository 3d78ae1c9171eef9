import { shownIn } from "../../semantics/state.ts";
import type { Node } from "../../semantics/types.ts";
import { contextOf, isRest } from "./hiding.ts";
import { add, type Listener, type Noted, push } from "./noted.ts";
import { WITHOUT } from "./parts.ts";
import type { Cut, Stop } from "./types.ts";

/** Cuts that are known by themselves: beyond that, they are known by their stack. */
const MOST_CUTS = 400;

/** A cut that is made in whatever a context may hold, or in all that the contexts of a stack may hold. */
interface Cutting {
  into: Cut;
  key: string;
  stop: Stop;
  everywhere: boolean;
}

/**
 * What it comes to when stacks are cut that are hidden: "return to the list" from `stack.item` is the context `stack.item/is list`, which holds
 * what the cut can come to and grows as the one grows that is cut. In an app that has many, cuts are made in all at once that lies hidden in
 * the stack (`stack/again/is list`): the same screens lie beneath each other from nearly everywhere then, and each cut looks at a content once
 * instead of once for each context that leads to it.
 */
export class Cuts {
  private readonly byContext = new Map<string, Map<string, Cutting>>();
  private readonly byName = new Map<string, Cut>();
  /** By the context of a cut the cuts that go on in it. */
  private readonly goesOn = new Map<string, Set<Cut>>();
  private readonly stacks = new Map<string, Stack>();

  constructor(
    private readonly noted: Noted,
    private readonly listener: Listener,
  ) {
    noted.follow((context, content) => {
      for (const cut of this.byContext.get(context)?.values() ?? NONE) noted.later(() => this.cutContent(content, cut));
      this.takeInStack(context, content);
    });
  }

  /** What cutting the stacks that a context may hold comes to. `key` tells the cuts in one context apart. */
  of(context: string, key: string, stop: Stop): Cut {
    const known = this.byContext.get(context)?.get(key);
    if (known) return known.into;
    const stack = stackOf(context);
    const name = this.nameOf(context, key);
    const into = this.byName.get(name) ?? { context: name, missed: false };
    this.byName.set(name, into);
    if (name === inAll(stack, key) && !context.includes(WITHOUT)) this.cutStack(stack, { into, key, stop, everywhere: true });
    else this.cutContext(context, { into, key, stop, everywhere: false });
    return into;
  }

  /** Cuts in what was cut before are known together, so that there is an end to their names; where there are many, those of one stack are. */
  private nameOf(context: string, key: string): string {
    const [uncut = "", before] = /^(.*?)(\/(?!no ).*)?$/.exec(context)?.slice(1) ?? [];
    if (before !== undefined) return inAll(uncut, key);
    return this.byName.size < MOST_CUTS ? `${uncut}/${key}` : inAll(stackOf(context), key);
  }

  private cutContext(context: string, cut: Cutting) {
    const cuts = this.byContext.get(context) ?? new Map<string, Cutting>();
    this.byContext.set(context, cuts.set(cut.key, cut));
    this.noted.forEach(this.noted.contents(context), (content) => this.cutContent(content, cut));
  }

  private cutStack(name: string, cut: Cutting) {
    const stack = this.stackNamed(name);
    if (stack.cuts.has(cut.key)) return;
    stack.cuts.set(cut.key, cut);
    const place = placeIn(cut.key);
    push(stack.cutsBy, place ?? "", cut);
    const contents = place === undefined ? stack.contents.values() : [...(stack.by.get(place) ?? NONE), ...stack.bottoms];
    this.noted.forEach(contents, (content) => this.cutContent(content, cut));
  }

  private takeInStack(context: string, content: Node) {
    if (content.kind !== "stack" || context.includes(WITHOUT)) return;
    const stack = this.stackNamed(stackOf(context));
    const text = this.noted.textOf(content);
    if (stack.contents.has(text)) return;
    stack.contents.set(text, content);
    const places = new Set(content.items.flatMap((item) => (isRest(item) ? [] : [item.at, shownIn(item).at])));
    for (const place of places) push(stack.by, place, content);
    const [lowest] = content.items;
    const isBottom = !lowest || !isRest(lowest);
    if (isBottom) stack.bottoms.push(content);
    const cuts = isBottom ? stack.cuts.values() : ["", ...places].flatMap((place) => stack.cutsBy.get(place) ?? []);
    for (const cut of cuts) this.noted.later(() => this.cutContent(content, cut));
  }

  private stackNamed(name: string): Stack {
    const known = this.stacks.get(name) ?? { contents: new Map(), by: new Map(), bottoms: [], cuts: new Map(), cutsBy: new Map() };
    this.stacks.set(name, known);
    return known;
  }

  private cutContent(content: Node, { into, key, stop, everywhere }: Cutting) {
    if (content.kind !== "stack") return;
    const { items } = content;
    const [lowest] = items;
    const found = stop === "lowest" ? 0 : items.findLastIndex((item) => !isRest(item) && stop(item));
    if (found >= 0 && !(stop === "lowest" && lowest && isRest(lowest))) {
      const cut = found === items.length - 1 ? content : { ...content, items: items.slice(0, found + 1) };
      this.noted.note(into.context, cut);
      if (cut !== content) this.listener.apart(content, cut);
    } else if (lowest && isRest(lowest)) {
      // What lies beneath it is cut by itself.
      if (everywhere) return;
      const on = this.of(contextOf(lowest), key, stop);
      if (on === into) return;
      this.noted.flow(on.context, into.context);
      add(this.goesOn, on.context, into);
      if (on.missed) this.miss(into);
    } else this.miss(into);
  }

  private miss(cut: Cut) {
    const queue = [cut];
    for (let next = queue.pop(); next; next = queue.pop()) {
      if (next.missed) continue;
      next.missed = true;
      this.listener.became(`missed ${next.context}`);
      queue.push(...(this.goesOn.get(next.context) ?? NONE));
    }
  }
}

/** All that the contexts of a stack may hold, each content once, by its text, and the cuts that are made in it. */
interface Stack {
  contents: Map<string, Node>;
  /** By a place those with an item that is it or shows it, and those with nothing hidden beneath them. */
  by: Map<string, Node[]>;
  bottoms: Node[];
  /** By key; and by the place that a cut looks for, "" for those that look for something else. */
  cuts: Map<string, Cutting>;
  cutsBy: Map<string, Cutting[]>;
}

const NONE: readonly never[] = [];

/** The stack, or the lane or branch, of which a context is. */
const stackOf = (context: string): string => /^[^.#/]*/.exec(context)?.[0] ?? context;

/** The name of the cuts that are made in what was cut before, or in all of a stack. */
const inAll = (whole: string, key: string): string => `${whole}/again/${key}`;

/** The place that a cut looks for, as an item or shown by one; undefined where it looks for something else. */
const placeIn = (key: string): string | undefined => /^(?:is|shows) (.+)$/.exec(key)?.[1];
