/** The marks under which a search hides lanes, and what each of them is known to hold. */

import { lookup } from "../model/lookup.ts";
import type { LaneNode, Node, StackNode, State } from "../semantics/types.ts";
import { arrives } from "./abstract.ts";
import type { AbstractProject } from "./followed.ts";
import { factsKey, nodeKey, stateKey } from "./key.ts";
import { type Covered, hideLanes, stamped } from "./lanes.ts";
import type { Hidden } from "./memory.ts";

export class Marks {
  /** By mark what is known to have been left, as text. */
  readonly contents = new Map<string, Set<string>>();
  private readonly texts = new WeakMap<Node, string>();

  constructor(
    private readonly abstract: AbstractProject,
    private readonly moments = new Map<string, number>(),
  ) {}

  /** A state with its lanes hidden. */
  hidden(full: State): Hidden {
    const { app } = this.abstract;
    const left: Hidden["left"] = [];
    const state = hideLanes(this.abstract, full, (lane, content, of) => {
      const mark = stamped(lane, this.moment(full, of));
      left.push({ mark, content });
      return mark;
    });
    return { state, key: stateKey(app.plan, state), left };
  }

  /** Notes what a lane held as it was left; false where that is known. */
  note(mark: string, content: Node): boolean {
    const text = this.textOf(content);
    const texts = this.contents.get(mark);
    if (texts?.has(text)) return false;
    if (texts) texts.add(text);
    else this.contents.set(mark, new Set([text]));
    const { lanes, arriving, app } = this.abstract;
    const known = lanes.get(mark);
    if (known) known.push(content);
    else lanes.set(mark, [content]);
    if (arrives(app.plan, content)) arriving.set(mark, [...(arriving.get(mark) ?? []), content]);
    return true;
  }

  /** A node as text, which is the same for what is the same later. */
  textOf(node: Node): string {
    const known = this.texts.get(node);
    if (known !== undefined) return known;
    const text = nodeKey(this.abstract.app.plan, node);
    this.texts.set(node, text);
    return text;
  }

  /** A number for the moment at which a lane is left: the facts and, where Back follows it, the order of visits. */
  private moment(state: State, of: LaneNode | StackNode | Covered): number {
    const container = lookup(this.abstract.project).containers.get(of.at);
    const visits = of.kind === "tabs" && container?.kind === "tabs" && container.onBack === "previous" ? of.visited : [];
    const beneath = of.kind === "covered" ? of.beneath : of.kind === "stack" ? of.items[of.items.length - 2] : undefined;
    const key = `${factsKey(state.facts)} ${visits} ${beneath ? this.textOf(beneath) : ""}`;
    const known = this.moments.get(key);
    if (known !== undefined) return known;
    this.moments.set(key, this.moments.size);
    return this.moments.size - 1;
  }
}
