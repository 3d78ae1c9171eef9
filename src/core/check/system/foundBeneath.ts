import { shownIn } from "../../semantics/state.ts";
import type { Node } from "../../semantics/types.ts";
import { type Contents, push } from "./contents.ts";
import { contextOf, isRest } from "./hiding.ts";

/** Sets of what cuts look for (`is PLACE`, `shows PLACE`), as the bits of a number. */
type Bits = bigint;

/** What may be found in a stack: all that lies in one of its contents, and all that one of them has nothing of down to the bottom. */
interface Within {
  found: Bits;
  missed: Bits;
}

const NOTHING: Within = { found: 0n, missed: 0n };

/**
 * What may be found, and what may be missed, by looking down the stacks that contexts may hold. It is the least solution of two equations over the
 * contents of a context: what they hold themselves or what lies beneath holds, and what neither they nor something beneath holds.
 */
export class Beneath {
  /** By stack what can be looked for in it. */
  private readonly bits = new Map<string, Map<string, Bits>>();
  private readonly within = new Map<string, Within>();
  /** By context those with a content that rests on it, and what that content itself holds. */
  private readonly above = new Map<string, Array<{ context: string; own: Bits }>>();
  private readonly gained = new Set<string>();

  /** `changed` is told of each context in which more may be found or missed than before. */
  constructor(
    private readonly held: Contents,
    private readonly changed: (context: string) => void,
  ) {
    for (const [context, contents] of held.all()) for (const content of contents) this.take(context, content);
    held.follow((context, content) => this.take(context, content));
  }

  mayFind(context: string, key: string): boolean {
    return ((this.within.get(context) ?? NOTHING).found & this.bit(context, key)) !== 0n;
  }

  mayMiss(context: string, key: string): boolean {
    return ((this.within.get(context) ?? NOTHING).missed & this.bit(context, key)) !== 0n;
  }

  private bit(context: string, key: string): Bits {
    const stack = stackOf(context);
    const bits = this.bits.get(stack) ?? new Map<string, Bits>();
    const known = bits.get(key) ?? 1n << BigInt(bits.size);
    this.bits.set(stack, bits.set(key, known));
    return known;
  }

  private take(context: string, content: Node) {
    if (content.kind !== "stack") return;
    const [lowest] = content.items;
    const own = keysOf(content).reduce((all, key) => all | this.bit(context, key), 0n);
    const rest = lowest && isRest(lowest) ? contextOf(lowest) : undefined;
    if (rest !== undefined) push(this.above, rest, { context, own });
    const { found, missed } = rest === undefined ? { found: 0n, missed: EVERYTHING } : (this.within.get(rest) ?? NOTHING);
    if (this.gained.size === 0) this.held.last(() => this.settle());
    this.gain(context, own | found, missed & ~own);
  }

  private settle() {
    for (const at of this.gained) {
      this.gained.delete(at);
      const { found, missed } = this.within.get(at) ?? NOTHING;
      this.changed(at);
      for (const on of this.above.get(at) ?? []) this.gain(on.context, found, missed & ~on.own);
    }
  }

  private gain(context: string, found: Bits, missed: Bits) {
    const was = this.within.get(context) ?? NOTHING;
    const is = { found: was.found | found, missed: was.missed | missed };
    if (is.found === was.found && is.missed === was.missed) return;
    this.within.set(context, is);
    this.gained.add(context);
  }
}

/** The stack, or the lane or branch, of which a context is. */
export const stackOf = (context: string): string => /^[^.#/]*/.exec(context)?.[0] ?? context;

/** All that can be looked for. */
const EVERYTHING = -1n;

/** What cuts that stop at one of the items look for. */
export function keysOf(content: Node): string[] {
  const items = content.kind === "stack" ? content.items.filter((item) => !isRest(item)) : [];
  return items.flatMap((item) => [`is ${item.at}`, `shows ${shownIn(item).at}`]);
}
