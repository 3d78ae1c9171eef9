import type { Node, StackNode } from "../../semantics/types.ts";
import { type Contents, type Listener, push } from "./contents.ts";
import { WITHOUT } from "./contextParts.ts";
import { Beneath, keysOf, stackOf } from "./foundBeneath.ts";
import { contextOf, isRest } from "./hiding.ts";
import type { Cut, Stop } from "./types.ts";

/** Cuts that are known by themselves: beyond that, they are known by their stack. */
const MOST_CUTS = 400;

/** A cut that is made in whatever a context may hold. */
interface Cutting {
  into: Cut;
  key: string;
  stop: Stop;
}

/**
 * What it comes to when stacks are cut that are hidden: "return to the list" from `stack.item` is the context `stack.item/is list`, which holds
 * what the cut can come to and grows as the one grows that is cut. In an app that has many, those that look for a place are made at once in all
 * that lies hidden in the stack (`stack/again/is list`): what can come of them is the same from nearly everywhere then. Whether the place may
 * be found, or missed, is known of each context all the same (foundBeneath.ts).
 */
export class Cuts {
  private readonly byContext = new Map<string, Map<string, Cutting>>();
  private readonly byName = new Map<string, Cut>();
  /** By cut those that go on in it. */
  private readonly goesOn = new Map<Cut, Set<Cut>>();
  private readonly stacks = new Map<string, Stack>();
  private beneath: Beneath | undefined;
  /** By context the cuts in it that are made in the whole stack. */
  private readonly inStack = new Map<string, Map<string, Cut>>();
  /** Those of them that may come to be found or missed. */
  private readonly open = new Map<string, Map<string, { cut: Cut; found: boolean }>>();

  constructor(
    private readonly held: Contents,
    private readonly listener: Listener,
    private readonly most = MOST_CUTS,
  ) {
    held.follow((context, content) => {
      for (const cut of this.byContext.get(context)?.values() ?? NONE) held.later(() => this.cutContent(content, cut));
      if (this.beneath) this.takeInStack(context, content);
    });
  }

  /** What cutting the stacks that a context may hold comes to. `key` tells the cuts in one context apart. */
  of(context: string, key: string, stop: Stop): Cut {
    const known = this.byContext.get(context)?.get(key)?.into ?? this.inStack.get(context)?.get(key);
    if (known) return known;
    const name = this.nameOf(context, key);
    if (stop !== "lowest" && isOfPlace(key) && name === inAll(stackOf(context), key) && !context.includes(WITHOUT))
      return this.cutStack(context, name, key, stop);
    return this.cutContext(context, name, { key, stop });
  }

  /** Cuts in what was cut before are known together, so that there is an end to their names; where there are many, those of one stack are. */
  private nameOf(context: string, key: string): string {
    const [uncut = "", before] = /^(.*?)(\/(?!no ).*)?$/.exec(context)?.slice(1) ?? [];
    if (before !== undefined) return inAll(uncut, key);
    if (this.byName.size < this.most) return `${uncut}/${key}`;
    return context.includes(WITHOUT) ? inAll(stackOf(context), `apart ${key}`) : inAll(stackOf(context), key);
  }

  private cutContext(context: string, name: string, { key, stop }: Omit<Cutting, "into">): Cut {
    const into = this.byName.get(name) ?? { context: name, name, found: () => this.held.contents(name).length > 0, missed: false };
    this.byName.set(name, into);
    const cuts = this.byContext.get(context) ?? new Map<string, Cutting>();
    const cut = { into, key, stop };
    this.byContext.set(context, cuts.set(key, cut));
    this.held.forEach(this.held.contents(context), (content) => this.cutContent(content, cut));
    return into;
  }

  private cutContent(content: Node, { into, key, stop }: Cutting) {
    if (content.kind !== "stack") return;
    const { items } = content;
    const [lowest] = items;
    const found = stop === "lowest" ? 0 : items.findLastIndex((item) => !isRest(item) && stop(item));
    if (found >= 0 && !(stop === "lowest" && lowest && isRest(lowest))) this.noteCut(into.context, content, found);
    else if (lowest && isRest(lowest)) {
      const on = this.of(contextOf(lowest), key, stop);
      if (on === into) return;
      const others = this.goesOn.get(on) ?? new Set();
      this.goesOn.set(on, others.add(into));
      if (!this.inStack.get(contextOf(lowest))?.has(key) || on.found()) this.held.flow(on.context, into.context);
      if (on.missed) this.miss(into);
    } else this.miss(into);
  }

  private noteCut(context: string, content: StackNode, found: number) {
    const cut = found === content.items.length - 1 ? content : { ...content, items: content.items.slice(0, found + 1) };
    this.held.note(context, cut);
    if (cut !== content) this.listener.apart(content, cut);
  }

  private miss(cut: Cut) {
    const queue = [cut];
    for (let next = queue.pop(); next; next = queue.pop()) {
      if (next.missed) continue;
      next.missed = true;
      this.listener.became(`missed ${next.name}`);
      queue.push(...(this.goesOn.get(next) ?? NONE));
    }
  }

  private cutStack(context: string, into: string, key: string, stop: (item: Node) => boolean): Cut {
    const beneath = this.begin();
    const cuts = this.inStack.get(context) ?? new Map<string, Cut>();
    const cut: Cut = { context: into, name: `${context}/${key}`, found: () => beneath.mayFind(context, key), missed: beneath.mayMiss(context, key) };
    this.inStack.set(context, cuts.set(key, cut));
    const open = this.open.get(context) ?? new Map<string, { cut: Cut; found: boolean }>();
    this.open.set(context, open.set(key, { cut, found: cut.found() }));
    const stack = this.stackNamed(stackOf(context));
    if (!stack.cuts.has(key)) {
      stack.cuts.set(key, (content) => {
        if (content.kind === "stack")
          this.noteCut(
            into,
            content,
            content.items.findLastIndex((item) => !isRest(item) && stop(item)),
          );
      });
      this.held.forEach(stack.by.get(key) ?? NONE, (content) => stack.cuts.get(key)?.(content));
    }
    return cut;
  }

  /** Looks at what is known so far the first time that a cut is made in a whole stack. */
  private begin(): Beneath {
    if (!this.beneath) {
      for (const [context, contents] of this.held.all()) for (const content of contents) this.takeInStack(context, content);
      this.beneath = new Beneath(this.held, (context) => this.changed(context));
    }
    return this.beneath;
  }

  private takeInStack(context: string, content: Node) {
    if (content.kind !== "stack" || context.includes(WITHOUT)) return;
    const stack = this.stackNamed(stackOf(context));
    const text = this.held.textOf(content);
    if (stack.known.has(text)) return;
    stack.known.add(text);
    for (const key of new Set(keysOf(content))) {
      push(stack.by, key, content);
      if (stack.cuts.has(key)) this.held.later(() => stack.cuts.get(key)?.(content));
    }
  }

  /** More may be found or missed in a context. */
  private changed(context: string) {
    const open = this.open.get(context);
    for (const [key, was] of open ?? NONE) {
      const { cut } = was;
      if (!was.found && cut.found()) {
        was.found = true;
        this.listener.became(`found ${cut.name}`);
        for (const on of this.goesOn.get(cut) ?? NONE) this.held.flow(cut.context, on.context);
      }
      if (!cut.missed && this.beneath?.mayMiss(context, key)) this.miss(cut);
      if (was.found && cut.missed) open?.delete(key);
    }
  }

  private stackNamed(name: string): Stack {
    const known = this.stacks.get(name) ?? { known: new Set(), by: new Map(), cuts: new Map() };
    this.stacks.set(name, known);
    return known;
  }
}

/** All that the contexts of a stack may hold, each content once, and the cuts that are made in it. */
interface Stack {
  /** The contents as text. */
  known: Set<string>;
  /** The contents by what a cut looks for that stops in them. */
  by: Map<string, Node[]>;
  /** By what they look for. */
  cuts: Map<string, (content: Node) => void>;
}

const NONE: readonly never[] = [];

/** The name of the cuts that are made in what was cut before, or in all of a stack. */
const inAll = (whole: string, key: string): string => `${whole}/again/${key}`;

/** Whether a cut looks for a place, as an item or shown by one. */
const isOfPlace = (key: string): boolean => /^(?:is|shows) /.test(key);
