import { closed } from "../../semantics/lanes.ts";
import { visibleChild, withChild, withLane } from "../../semantics/state.ts";
import type { Node } from "../../semantics/types.ts";
import { add, type Contents, type Listener } from "./contents.ts";
import type { Cuts } from "./cuts.ts";
import { contextOf, heldBy, hide, isHidden, isRest, laneOf, restOn } from "./hiding.ts";
import { cutTo, mayBeIn } from "./insideContainers.ts";
import type { Abstraction, Part } from "./types.ts";

/** A part of a context: what may hold a container. */
interface Holding extends Part {
  container: string;
}

/** Which containers may be somewhere in what is hidden, and of what is hidden that which may hold one, as far as it tells what comes of bringing that up. */
export class Holdings {
  /** By context the containers that may be somewhere in it, and the contexts that rest on it. */
  private readonly containers = new Map<string, Set<string>>();
  private readonly around = new Map<string, Set<string>>();
  /** By what may come to be so of a cut the contexts of the parts that rest on it. */
  private readonly resting = new Map<string, Set<string>>();
  /** By context and container the parts of it that may hold one. */
  private readonly parts = new Map<string, Map<string, Holding>>();

  constructor(
    private readonly abstraction: Abstraction,
    private readonly held: Contents,
    private readonly listener: Listener,
    private readonly cuts: Cuts,
  ) {
    held.follow((context, content) => {
      this.holdsMore(context, content);
      for (const part of this.parts.get(context)?.values() ?? []) held.later(() => this.holdContent(content, part));
    });
  }

  /** Takes note of what is so for the first time: where a cut may miss, the container may be lacking in the parts that rest on it. */
  became(what: string) {
    for (const context of this.resting.get(what) ?? []) this.listener.became(`lacking ${context}`);
  }

  /** Whether a container may be somewhere in a context. */
  mayHold(context: string, container: string): boolean {
    return this.containers.get(context)?.has(container) ?? false;
  }

  of(context: string, container: string): Part {
    const known = this.parts.get(context)?.get(container);
    if (known) return known;
    const part: Holding = { context: `${context}/for ${container}`, container, lacking: new Set(), cuts: new Set() };
    const all = this.parts.get(context) ?? new Map<string, Holding>();
    this.parts.set(context, all.set(container, part));
    this.held.forEach(this.held.contents(context), (content) => this.holdContent(content, part));
    return part;
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
        for (const part of this.parts.get(at)?.values() ?? [])
          if (fresh.has(part.container)) this.held.forEach(part.lacking, (lacking) => this.holdContent(lacking, part));
      }
    }
  }

  private holdContent(content: Node, { context, container, lacking, cuts }: Holding) {
    if (this.mayBeIn(content, container)) {
      lacking.delete(content);
      const beneath = this.onlyBeneath(content, container);
      if (beneath === undefined) this.held.note(context, this.withoutIrrelevant(content, container, content));
      else {
        const { key, stop } = cutTo(this.abstraction.app.plan, container);
        const cut = this.cuts.of(beneath, key, stop);
        this.held.flow(cut.context, context);
        if (cuts.has(cut)) return;
        cuts.add(cut);
        add(this.resting, `missed ${cut.name}`, context);
        if (cut.missed) this.listener.became(`lacking ${context}`);
      }
    } else if (!lacking.has(content)) {
      lacking.add(content);
      this.listener.became(`lacking ${context}`);
    }
  }

  /** The context in which alone a container may be that is searched for in a stack, where none of the items that are known can ever hold it: bringing it up loses them all. */
  private onlyBeneath(content: Node, container: string): string | undefined {
    const { precision, app } = this.abstraction;
    if (precision.contexts !== "place" || content.kind !== "stack" || content.at === container) return undefined;
    const [lowest, ...above] = content.items;
    const around = mayBeIn(app.plan, container);
    return lowest && isRest(lowest) && above.every(({ at, kind }) => kind === "shown" || !around.has(at)) ? contextOf(lowest) : undefined;
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
      this.held.note(container, node);
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
      this.held.note(name, content);
      return name;
    });
    this.held.note(node.active, hidden);
    this.listener.apart(whole, hidden);
    return closed({ ...node, lanes: withLane(node.lanes, node.active, { kind: "shown", at: laneOf(node.active), args: {} }) });
  }
}
