/**
 * Steps that come to the same from many states. Choosing another tab, or another member of a drawer, comes to the same from whatever the
 * lane held that is left, but for what is then noted of that lane; going back comes to the same from whatever
 * screen lay on top. Such a step is worked out once, from a state in which something stands for what
 * makes no difference, and counts for all states that differ in nothing else.
 */

import type { NavEvent } from "../model/schema.ts";
import { leadOf } from "../semantics/bar.ts";
import { type Control, controlOf } from "../semantics/events.ts";
import { branchNode, isOpenDrawer, nearestStack, topBranch, updateBranch, visiblePath } from "../semantics/state.ts";
import type { App, Node, State } from "../semantics/types.ts";
import type { Edge } from "./exploration.ts";
import { ASIDE, stateKey } from "./key.ts";

/** What stands for what makes no difference. */
const ASIDE_NODE: Node = { kind: "shown", at: ASIDE, args: {} };

export function isAside(node: Node): boolean {
  return node === ASIDE_NODE;
}

/** A step that is worked out once. */
export interface Alike {
  /** The state in which something stands for what makes no difference, and its key. */
  state: () => State;
  key: string;
  /** The states for which it counts, and what the lane that is left held in them. */
  nodes: number[];
  contents: Node[];
  /** The marks under which the lane was left. */
  marks: Set<string>;
  edges: Edge[];
  /** Legs fire on arriving, which may look into what was set aside: each state is to be seen to by itself. */
  apart: boolean;
}

/** Steps by what they are, from states that are the same but for what was set aside. */
export type AlikeSteps = Map<string, Alike>;

/** What makes no difference to a step, and the content of the lane that is left. */
interface SetAside {
  state: () => State;
  key: string;
  content: Node | undefined;
  steps: AlikeSteps;
}

/** The lead of a bar that goes back does what Back does, whatever screen's bar it is. */
export function plainEvent(event: NavEvent): NavEvent {
  return event.do === "lead" ? { do: "back" } : event;
}

/** Sets aside what makes no difference to the steps from one state. */
export class Asides {
  private readonly lanes = new Map<string, SetAside>();
  private top: SetAside | undefined;

  constructor(
    private readonly app: App,
    private readonly state: State,
    private readonly known: Map<string, AlikeSteps>,
  ) {}

  /** Undefined where what a state holds may make a difference to the step. */
  for(event: NavEvent | undefined): SetAside | undefined {
    switch (event?.do) {
      case "tab":
      case "pick": {
        const control = controlOf(this.app, this.state, event.do, event.to);
        if (!control || control.node.active === event.to) return undefined;
        const known = this.lanes.get(control.node.at) ?? this.withoutLane(control);
        if (known) this.lanes.set(control.node.at, known);
        return known;
      }
      case "lead":
        return leadOf(this.app.plan, this.state, topBranch(this.state)) === "back" ? this.withoutTop() : undefined;
      case "back":
        return this.withoutTop();
      default:
        return undefined;
    }
  }

  private withoutLane({ branch, depth, node }: Control): SetAside | undefined {
    const content = node.lanes[node.active];
    if (!content || this.mayAsk(branch)) return undefined;
    const state = () => updateBranch(this.state, branch, depth, { ...node, lanes: { ...node.lanes, [node.active]: ASIDE_NODE } });
    return this.without(content, state, content);
  }

  /** Where the top of the innermost stack is a screen, going back takes it away. */
  private withoutTop(): SetAside | undefined {
    if (this.top) return this.top;
    const branch = topBranch(this.state);
    const found = nearestStack(this.state, branch);
    const top = found?.stack.items[found.stack.items.length - 1];
    if (!found || found.stack.items.length < 2 || top?.kind !== "shown" || this.mayAsk(branch)) return undefined;
    if (visiblePath(branchNode(this.state, branch)).some(isOpenDrawer)) return undefined;
    const state = () => updateBranch(this.state, branch, found.depth, { ...found.stack, items: [...found.stack.items.slice(0, -1), ASIDE_NODE] });
    this.top = this.without(top, state, undefined);
    return this.top;
  }

  private without(node: Node, state: () => State, content: Node | undefined): SetAside | undefined {
    const aside = { node, met: 0 };
    const key = stateKey(this.app.plan, this.state, aside);
    // One and the same node may stand in two places, of which only one is meant.
    if (aside.met !== 1) return undefined;
    const steps = this.known.get(key) ?? new Map<string, Alike>();
    this.known.set(key, steps);
    return { state, key, content, steps };
  }

  /** Whether depart legs may be asked on a branch. */
  private mayAsk(branch: number): boolean {
    const { from, hasDepart } = this.app.plan;
    if (!hasDepart) return false;
    const modal = this.state.layers[branch - 1];
    return [...visiblePath(branchNode(this.state, branch)), ...(modal ? [modal] : [])].some(({ at }) => (from.get(at)?.depart.length ?? 0) > 0);
  }
}
