import type { Node } from "../../semantics/types.ts";
import { type Contents, push } from "./contents.ts";
import { contextOf, isRest, restOn } from "./hiding.ts";
import { beneathOf } from "./precision.ts";
import type { Missed } from "./types.ts";

/** What the name of a context says in which something is known not to be. */
export const WITHOUT = "/no ";

/** Contexts that may be known apart for being without something: beyond that, they are left as they are. */
const MOST_PARTS = 40;

/** What is hidden where something was looked for and not found: `stack.item/no is list` holds what `stack.item` may hold without a list in it. */
export class Parts {
  private count = 0;
  private readonly stops = new Map<string, (item: Node) => boolean>();
  /** By context the parts of it that are without something. */
  private readonly byContext = new Map<string, Array<{ into: string } & Missed>>();
  /** By context what others may hold as soon as it may hold anything. */
  private readonly awaiting = new Map<string, Array<{ context: string; content: Node }>>();

  constructor(
    private readonly held: Contents,
    private readonly follows: ReadonlySet<string>,
  ) {
    held.follow((context, content) => {
      for (const part of this.awaiting.get(context) ?? []) held.note(part.context, part.content);
      this.awaiting.delete(context);
      for (const { into, ...missed } of this.byContext.get(context) ?? []) held.later(() => this.partContent(content, into, missed));
    });
  }

  /** The part of a context in which something is not found; the context itself where it is a part already, or parts are too many. */
  without(whole: string, missed: Missed): string {
    const [context = whole, other] = whole.split(WITHOUT);
    // One thing is known not to be in a part. What is followed goes first.
    if (other !== undefined && (this.isFollowed(other) || !this.isFollowed(missed.key))) return whole;
    const name = `${context}${WITHOUT}${missed.key}`;
    if (this.byContext.get(context)?.some(({ into }) => into === name)) return name;
    if (this.count >= MOST_PARTS && !this.isFollowed(missed.key)) return whole;
    this.count += 1;
    this.stops.set(missed.key, missed.stop);
    push(this.byContext, context, { into: name, ...missed });
    this.held.forEach(this.held.contents(context), (content) => this.partContent(content, name, missed));
    return name;
  }

  /** The part of a context for a content that goes on from one which is without something, where what lies on that is not it either. */
  stillWithout(context: string, content: Node): string {
    const [lowest, ...others] = content.kind === "stack" ? content.items : [];
    const key = lowest && isRest(lowest) ? contextOf(lowest).split(WITHOUT)[1] : undefined;
    const stop = key === undefined ? undefined : this.stops.get(key);
    if (!stop || !this.isFollowed(key ?? "") || others.some(stop)) return context;
    return `${context}${WITHOUT}${key}`;
  }

  /** Whether it is followed that what a cut looked for is not there; the key ends in its place. */
  private isFollowed(key: string): boolean {
    return this.follows.has(beneathOf(key.split(" ").at(-1) ?? ""));
  }

  private partContent(content: Node, into: string, missed: Missed) {
    if (content.kind !== "stack") return;
    const [lowest, ...others] = content.items;
    if (content.items.some((item) => !isRest(item) && missed.stop(item))) return;
    if (!lowest || !isRest(lowest)) {
      this.held.note(into, content);
      return;
    }
    const beneath = this.without(contextOf(lowest), missed);
    const part = { context: into, content: { ...content, items: [{ ...lowest, at: restOn(beneath) }, ...others] } };
    // There is no such content before there is something without it beneath.
    if (this.held.contents(beneath).length > 0) this.held.note(part.context, part.content);
    else push(this.awaiting, beneath, part);
  }
}
