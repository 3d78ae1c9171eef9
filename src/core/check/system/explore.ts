import type { Width } from "../../model/schema.ts";
import { factsAnew } from "../../semantics/enter.ts";
import { stateLine } from "../../semantics/line.ts";
import { branchNode, currentScreen } from "../../semantics/state.ts";
import { arrive, beginning } from "../../semantics/step.ts";
import type { Node } from "../../semantics/types.ts";
import { arrives, noRests } from "./abstraction.ts";
import { isShowing } from "./chooser.ts";
import { Contexts, type HiddenState } from "./contexts.ts";
import { type Edge, type Exploration, type Explored, NO_STARTS } from "./exploration.ts";
import { isHidden, isUnder, pendingIn, revealed, withoutParts } from "./hiding.ts";
import { withProgress, withRevealed } from "./ruleProgress.ts";
import { setDistances } from "./shortestWays.ts";
import { factsKey } from "./stateKey.ts";
import { events, noEdge, run, type Step, startEvents, stepName, watched } from "./steps.ts";
import type { Abstraction } from "./types.ts";

export interface ExploreOptions {
  /** States to look at, at most. */
  states?: number;
  /** Asked at each state; true ends the search. */
  stop?: (() => boolean) | undefined;
  /** The widths that it stands for; that one alone, where it is left out. */
  widths?: Width[];
  /** False to start by launches alone. */
  entrances?: boolean;
  /** Shown what launches alone lead to, before entrances are looked at; false ends the search there. */
  launched?: (exploration: Exploration) => boolean;
}

/** States that a search looks at before it stops. */
const MOST_STATES = 20_000;

/**
 * All states that can be reached in one width, with contexts hidden (post* of the app as a pushdown system): first what launches lead to, then
 * what entrances add. A step is worked out by the semantics itself, and once more for what it looked into and was not known then.
 */
export function explore(abstraction: Abstraction, width: Width, options: ExploreOptions = {}): Exploration {
  return new Search(abstraction, options.widths ?? [width], width, options.states ?? MOST_STATES).run(options);
}

/** Work that waits: all steps from a state; one step, in full or for one more content of a context; or one more content of a pending state. */
interface Task {
  at: number;
  step?: Step;
  content?: { context: string; content: Node };
}

class Search {
  private readonly byKey = new Map<string, number>();
  /** By context the steps of which each content gives a result of its own, or each one that arrives, and by flag those that it would change. */
  private readonly each = new Map<string, Map<string, Task>>();
  private readonly eachArriving = new Map<string, Map<string, Task>>();
  private readonly flags = new Map<string, Map<string, Task>>();
  /** By context the pending states that show it. */
  private readonly showing = new Map<string, number[]>();
  private readonly contexts: Contexts;
  /** By the facts that stay the first state that starts anew with them, and by that the steps. */
  private readonly starting = new Map<string, number>();
  private readonly starts = new Map<number, Edge[]>();
  /** What was left hidden, numbered, and its parts. */
  private readonly numbers = new Map<string, number>();
  private readonly parts = new Map<number, number[]>();
  private readonly out: Exploration;
  private queue: Task[] = [];
  private done = 0;
  private entering = false;

  constructor(
    private readonly abstraction: Abstraction,
    widths: Width[],
    width: Width,
    private readonly most: number,
  ) {
    const listener = {
      grew: (context: string, content: Node) => this.grew(context, content),
      apart: (whole: Node, part: Node) => this.apart(whole, part),
      became: (what: string) => this.became(what),
    };
    this.contexts = new Contexts(abstraction, listener, (content) => arrives(abstraction.app.plan, content));
    abstraction.contexts = this.contexts;
    this.out = { abstraction, width, widths, nodes: [], launches: [], complete: true, contexts: this.contexts.all(), parts: this.parts };
  }

  run({ stop = () => false, entrances = true, launched = () => true }: ExploreOptions): Exploration {
    this.launch();
    this.drain(stop);
    const more = entrances && this.abstraction.project.entrances.length > 0;
    // What is worked out about the search now does not hold of what it grows to.
    const now = more ? { ...this.out } : this.out;
    setDistances(now);
    if (launched(now) && more) {
      this.entering = true;
      for (const at of this.starting.values()) this.startBy(at, "enter");
      this.drain(stop);
      setDistances(this.out);
    }
    if (this.abstraction.chooser.truncated) this.out.complete = false;
    return this.out;
  }

  private drain(stop: () => boolean) {
    for (; this.isWaiting(); this.done++) {
      if (this.out.nodes.length > this.most || stop()) {
        this.out.complete = false;
        // A state with a step that is not worked out in full is one that was not looked at.
        for (const { at } of this.queue.slice(this.done)) (this.out.nodes[at] as Explored).followed = false;
        return;
      }
      this.work(this.queue[this.done] as Task);
    }
    this.queue = [];
    this.done = 0;
  }

  private isWaiting(): boolean {
    while (this.done === this.queue.length) if (!this.contexts.settleLast()) return false;
    return true;
  }

  private launch() {
    const { app } = this.abstraction;
    const start = beginning(app, this.out.width);
    for (const { result, choices } of this.abstraction.chooser.each(() => watched(this.abstraction, () => arrive(app, undefined, start), "all"))) {
      const { state, outcome } = result.value;
      const edge = { ...noEdge(), ...result.seen, choices };
      if (outcome === "refused") Object.assign(edge, { outcome, why: "redirect-loop" });
      if (this.out.nodes.length === 0 || outcome !== "refused")
        edge.to = this.enter(this.contexts.hide(withProgress(this.abstraction, undefined, outcome === "refused" ? noEdge() : edge, state)), edge);
      const node = this.out.nodes[edge.to];
      if (node && !node.launched) node.launched = choices;
      this.out.launches.push(edge);
    }
  }

  private work({ at, step, content }: Task) {
    if (!step && content) this.reveal(at, content.content);
    else if (step && content) this.take(at, step, content);
    else if (step) {
      const node = this.out.nodes[at] as Explored;
      const others = (edge: Edge) => edge.way !== step.way || edge.event !== step.event;
      node.edges = node.edges.filter(others);
      const starts = step.way === "restart" ? this.starts.get(at) : undefined;
      starts?.splice(0, starts.length, ...starts.filter(others));
      this.take(at, step);
    } else this.follow(at);
  }

  /** Works out the steps from one state. */
  private follow(at: number) {
    const node = this.out.nodes[at] as Explored;
    node.followed = true;
    if (node.pending) {
      const { context } = node.pending;
      const showing = this.showing.get(context);
      if (showing) showing.push(at);
      else this.showing.set(context, [at]);
      for (const content of [...this.contexts.contents(context)]) this.reveal(at, content);
      return;
    }
    for (const step of events(this.abstraction, node.state)) this.take(at, step);
    this.start(at);
  }

  /** Gives a state the new starts that are possible at any moment: they depend on nothing but the facts that stay. */
  private start(at: number) {
    const node = this.out.nodes[at] as Explored;
    const key = factsKey(factsAnew(this.abstraction.app, node.state));
    const known = this.starting.get(key);
    if (known !== undefined) {
      node.starts = (this.out.nodes[known] as Explored).starts;
      return;
    }
    const starts: Edge[] = [];
    this.starting.set(key, at);
    this.starts.set(at, starts);
    node.starts = starts;
    this.startBy(at, "launch");
    if (this.entering) this.startBy(at, "enter");
  }

  private startBy(at: number, how: "launch" | "enter") {
    for (const event of startEvents(this.abstraction.project, how)) this.take(at, { event, way: "restart" });
  }

  /** Works out one step; only for one content of a context, where that is given. */
  private take(at: number, step: Step, only?: { context: string; content: Node }) {
    const { abstraction } = this;
    const node = this.out.nodes[at] as Explored;
    const { each, eachArriving, flags, asked } = abstraction.rests;
    if (each.size + eachArriving.size + flags.size + asked.size > 0) abstraction.rests = noRests();
    abstraction.only = only;
    const results = run(abstraction, node.state, step.event, step.way);
    abstraction.only = undefined;
    for (const context of abstraction.rests.each) watch(this.each, context, at, step);
    for (const context of abstraction.rests.eachArriving) watch(this.eachArriving, context, at, step);
    for (const flag of abstraction.rests.flags) watch(this.flags, flag, at, step);
    for (const { edge, state, missed } of results) {
      const shown = edge.choices.find(({ question }) => isShowing(question))?.answer as Node | undefined;
      if (shown && !isHidden(shown)) edge.asMade = this.contexts.isAsMade(shown);
      edge.to = state === undefined ? at : this.enter(this.contexts.hide(withProgress(abstraction, node.state, edge, state), missed), edge, at);
      const starts = step.way === "restart" && edge.outcome === "moved" ? this.starts.get(at) : undefined;
      (starts ?? node.edges).push(edge);
    }
  }

  private reveal(at: number, content: Node) {
    const node = this.out.nodes[at] as Explored;
    const branch = node.pending?.branch ?? 0;
    const { plan } = this.abstraction.app;
    // What an arrive leg leads on from at once was seen to when it came to light; a branch that is uncovered does not arrive.
    if (!isUnder(branchNode(node.state, branch)) && arrives(plan, content)) return;
    const asMade = this.contexts.isAsMade(content);
    const number = this.numberOf(content);
    const edge: Edge = { ...noEdge(), way: "reveal", asMade, uncovers: number, shows: asMade ? undefined : number };
    edge.to = this.enter(this.contexts.hide(withRevealed(this.abstraction, revealed(node.state, branch, content))), edge, at);
    node.edges.push(edge);
  }

  /** The number of a state that a step reaches; what was hidden in it is noted. */
  private enter({ state, key, left }: HiddenState, edge: Edge, node?: number): number {
    const hides = left.filter(({ covered }) => covered).map(({ context, content }) => ({ context, content: this.numberOf(content) }));
    if (hides.length > 0) edge.hides = hides;
    const leaves = left.filter(({ content }) => !this.contexts.isAsMade(content)).map(({ content }) => this.numberOf(content));
    if (leaves.length > 0) edge.leaves = leaves;
    for (const { context, content } of left) this.contexts.note(context, content);
    const known = this.byKey.get(key);
    if (known !== undefined) return known;
    const { app } = this.abstraction;
    const { nodes } = this.out;
    const from = node === undefined ? undefined : { node, edge };
    const distance = from ? (nodes[from.node]?.distance ?? 0) + (edge.way === "reveal" ? 0 : 1) : 0;
    this.byKey.set(key, nodes.length);
    this.queue.push({ at: nodes.length });
    nodes.push({
      state,
      key,
      line: stateLine(app.plan, state),
      screen: currentScreen(state).at,
      pending: pendingIn(app, state),
      from,
      distance,
      edges: [],
      starts: NO_STARTS,
      followed: false,
    });
    return nodes.length - 1;
  }

  /** A number for what is hidden, whatever the names of the contexts in it say beside their places. */
  private numberOf(content: Node): number {
    const text = this.contexts.textOf(content);
    const known = this.numbers.get(text);
    if (known !== undefined) return known;
    const plain = withoutParts(text);
    const number = this.numbers.get(plain) ?? this.numbers.size;
    this.numbers.set(plain, number).set(text, number);
    return number;
  }

  private apart(whole: Node, part: Node) {
    const [from, to] = [this.numberOf(whole), this.numberOf(part)];
    const known = this.parts.get(from);
    if (!known) this.parts.set(from, [to]);
    else if (!known.includes(to)) known.push(to);
  }

  private grew(context: string, content: Node) {
    const each = this.each.get(context);
    const more = { content: { context, content } };
    for (const task of each?.values() ?? []) this.queue.push({ ...task, ...more });
    if (arrives(this.abstraction.app.plan, content))
      for (const [name, task] of this.eachArriving.get(context) ?? []) if (!each?.has(name)) this.queue.push({ ...task, ...more });
    for (const at of this.showing.get(context) ?? []) this.queue.push({ at, ...more });
  }

  private became(what: string) {
    this.queue.push(...(this.flags.get(what)?.values() ?? []));
    this.flags.delete(what);
  }
}

function watch(watching: Map<string, Map<string, Task>>, what: string, at: number, step: Step) {
  const known = watching.get(what) ?? new Map<string, Task>();
  watching.set(what, known.set(`${at} ${stepName(step)}`, { at, step }));
}
