import { lookup } from "../model/lookup.ts";
import type { Width } from "../model/schema.ts";
import { templateOf } from "../plan/lower/templates.ts";
import { factsAnew } from "../semantics/enter.ts";
import { stateLine } from "../semantics/line.ts";
import { make } from "../semantics/make.ts";
import { branchNode, currentScreen } from "../semantics/state.ts";
import { arrive, beginning } from "../semantics/step.ts";
import type { Node, State } from "../semantics/types.ts";
import { arrives, topOf } from "./abstract.ts";
import { type Alike, type AlikeSteps, Asides, isAside, plainEvent } from "./alike.ts";
import type { Edge, Exploration, Explored } from "./exploration.ts";
import type { AbstractProject } from "./followed.ts";
import { factsKey } from "./key.ts";
import { hiddenShown, isUnder, revealed } from "./lanes.ts";
import { Marks } from "./marks.ts";
import { type Hidden, type SearchMemory, stepName, type Worked } from "./memory.ts";
import { events, noEdge, run, type Step, startEvents, watched } from "./steps.ts";
import { shortestWays } from "./ways.ts";

/**
 * Breadth-first search over the abstract states that can be reached in one width. Inactive
 * lanes are hidden, so their contents are not multiplied with one another; a state whose
 * lane was just chosen is a portal to all that the lane held when it was left. What launches
 * lead to is found first, then what entrances add to it.
 */
export function explore(abstract: AbstractProject, width: Width, options: ExploreOptions = {}): Exploration {
  return new Search(abstract, width, options.states ?? MOST_STATES, options.memory).run(options);
}

/** States that a search looks at before it stops. */
const MOST_STATES = 20_000;

export interface ExploreOptions {
  /** States to look at. */
  states?: number;
  /** Asked at each state; true ends the search. */
  stop?: () => boolean;
  /** What a search of the project before an edit worked out. */
  memory?: SearchMemory;
  /** False to start by launches alone. */
  entrances?: boolean;
  /** Shown what launches alone lead to, before entrances are looked at; false ends the search there. */
  launched?: (exploration: Exploration) => boolean;
}

/** Work that waits: all steps from a state, one step once more because a lane that it looks into holds more, or one more content of a portal. */
interface Task {
  at: number;
  step?: Step;
  /** The step counts for other states as well. */
  for?: Alike;
  content?: Node;
  waiting: boolean;
}

class Search {
  private readonly byKey = new Map<string, number>();
  /** By mark the steps that look into it. */
  private readonly watching = new Map<string, Set<Task>>();
  /** By mark the portals that show it. */
  private readonly showing = new Map<string, number[]>();
  private readonly marks: Marks;
  private readonly starts = new Map<string, Edge[]>();
  private readonly alike = new Map<string, AlikeSteps>();
  private readonly out: Exploration;
  private queue: Task[] = [];
  /** Steps to work out once more: last, when lanes hold most of what they will. */
  private again: Task[] = [];
  private done = 0;
  private entering = false;

  constructor(
    private readonly abstract: AbstractProject,
    width: Width,
    private readonly most: number,
    private readonly memory: SearchMemory | undefined,
  ) {
    memory?.begin();
    this.marks = new Marks(abstract, memory?.moments);
    abstract.lanes = new Map();
    abstract.arriving = new Map();
    this.out = { abstract, width, widths: [width], nodes: [], launches: [], complete: true, lanes: abstract.lanes };
  }

  run({ stop = () => false, entrances = true, launched = () => true }: ExploreOptions): Exploration {
    this.launch();
    this.drain(stop);
    this.shortest();
    const goOn = launched(this.out);
    if (this.abstract.chooser.truncated) this.out.complete = false;
    if (!goOn || !entrances || this.abstract.project.entrances.length === 0) return this.out;
    this.entering = true;
    for (let at = 0; at < this.out.nodes.length; at++) this.start(at, "enter");
    this.drain(stop);
    this.shortest();
    if (this.abstract.chooser.truncated) this.out.complete = false;
    return this.out;
  }

  private drain(stop: () => boolean) {
    for (; ; this.done++) {
      if (this.done === this.queue.length) {
        if (this.again.length === 0) return;
        this.queue.push(...this.again);
        this.again = [];
      }
      if (this.out.nodes.length > this.most || stop()) {
        this.out.complete = false;
        // A state with a step that is not worked out in full is one that was not looked at.
        for (const task of [...this.queue.slice(this.done), ...this.again])
          for (const at of task.for?.nodes ?? [task.at]) (this.out.nodes[at] as Explored).followed = false;
        return;
      }
      this.work(this.queue[this.done] as Task);
    }
  }

  /** Finds again by which step each state is reached first, now that all steps are known. */
  private shortest() {
    const { nodes } = this.out;
    const roots = nodes.flatMap((node, i) => (node.launched ? [i] : []));
    for (const { at, cost, by } of shortestWays(nodes, roots, () => 1)) {
      const node = nodes[at] as Explored;
      node.distance = cost;
      if (by) node.from = by;
    }
  }

  private launch() {
    const { app } = this.abstract;
    const start = beginning(app, this.out.width);
    for (const { result, choices } of this.abstract.chooser.each(() => watched(this.abstract, () => arrive(app, undefined, start), "all"))) {
      const { state, outcome } = result.value;
      const edge = { ...noEdge(), ...result.seen, choices };
      if (outcome === "refused") Object.assign(edge, { outcome, why: "redirect-loop" });
      if (this.out.nodes.length === 0 || outcome !== "refused") edge.to = this.enter(this.marks.hidden(state), undefined);
      const node = this.out.nodes[edge.to];
      if (node && !node.launched) node.launched = choices;
      this.out.launches.push(edge);
    }
  }

  private work(task: Task) {
    task.waiting = false;
    if (task.content) this.reveal(task.at, task.content);
    else if (task.step) {
      const { event, way } = task.step;
      for (const at of task.for?.nodes ?? [task.at]) {
        const each = this.out.nodes[at] as Explored;
        each.edges = each.edges.filter((edge) => edge.way !== way || edge.event !== event);
      }
      if (task.for) this.takeForAll(task, task.for);
      else this.take(task);
    } else this.follow(task.at);
  }

  /** Works out the steps from one state. */
  private follow(at: number) {
    const node = this.out.nodes[at] as Explored;
    node.followed = true;
    if (node.portal) {
      const showing = this.showing.get(node.portal.lane);
      if (showing) showing.push(at);
      else this.showing.set(node.portal.lane, [at]);
      for (const content of [...(this.abstract.lanes.get(node.portal.lane) ?? [])]) this.reveal(at, content);
      return;
    }
    // Where nothing is hidden, what a lane holds that is left makes a difference.
    const asides = this.abstract.closeness.whole ? undefined : new Asides(this.abstract.app, node.state, this.alike);
    for (const step of events(this.abstract, node.state)) if (!asides || !this.takenAlike(at, step, asides)) this.take({ at, step, waiting: false });
    this.start(at, "launch");
    if (this.entering) this.start(at, "enter");
  }

  /** Adds the new starts that are possible at any moment: they depend on nothing but the facts that stay. */
  private start(at: number, how: "launch" | "enter") {
    const node = this.out.nodes[at] as Explored;
    if (node.portal) return;
    const key = how + factsKey(factsAnew(this.abstract.app, node.state));
    const known = this.starts.get(key);
    if (known) {
      node.edges.push(...known);
      return;
    }
    const before = node.edges.length;
    for (const event of startEvents(this.abstract.project, how)) this.take({ at, step: { event, way: "anew" }, waiting: false });
    this.starts.set(
      key,
      node.edges.slice(before).filter((edge) => edge.outcome === "moved"),
    );
  }

  private take(task: Task) {
    const { at, step } = task;
    if (!step) return;
    const node = this.out.nodes[at] as Explored;
    const { looked, outcomes } = this.worked(node.key, node.state, step);
    for (const { mark } of looked) this.watch(mark, task);
    for (const { edge, after } of outcomes) {
      edge.to = after === undefined ? at : this.enter(after, { node: at, edge });
      node.edges.push(edge);
    }
  }

  /** All that a step comes to, from memory where it is known. `event` is what is done in the step's stead. */
  private worked(key: string, from: State, step: Step, event = step.event): Worked {
    // What is done anew depends on the facts alone, and is worked out once for them.
    const memory = step.way === "anew" ? undefined : this.memory;
    const leg = step.event?.do === "leg" ? lookup(this.abstract.project).legs.get(step.event.leg) : undefined;
    const known = memory?.find(key, step, leg?.from, this.marks.contents);
    if (known) return known;
    this.abstract.looked.clear();
    const results = run(this.abstract, from, event, step.way);
    const looked = [...this.abstract.looked].map((mark) => ({ mark, held: memory ? [...(this.marks.contents.get(mark) ?? [])] : [] }));
    const outcomes = results.map(({ edge, state }) => {
      edge.event = step.event;
      return { edge, after: state && this.marks.hidden(state) };
    });
    const worked = { looked, outcomes };
    if (!this.abstract.chooser.truncated) memory?.keep(key, step, worked);
    return worked;
  }

  /** Works out a step together with that of all states that differ in nothing that matters to it; false where that can not be. */
  private takenAlike(at: number, step: Step, asides: Asides): boolean {
    const aside = asides.for(step.event);
    if (!aside || !step.event) return false;
    const name = stepName(step);
    const known = aside.steps.get(name);
    const all = known ?? { key: aside.key, state: aside.state, nodes: [], contents: [], marks: new Set(), edges: [], apart: false };
    if (all.apart) return false;
    all.nodes.push(at);
    if (aside.content) all.contents.push(aside.content);
    if (known) {
      (this.out.nodes[at] as Explored).edges.push(...known.edges);
      if (aside.content) for (const mark of known.marks) this.left(mark, aside.content);
    } else {
      aside.steps.set(name, all);
      this.takeForAll({ at, step, for: all, waiting: false }, all);
    }
    return true;
  }

  private takeForAll(task: Task, all: Alike) {
    const { step } = task;
    if (!step?.event) return;
    const { looked, outcomes } = this.worked(all.key, all.state(), step, plainEvent(step.event));
    if (outcomes.some(({ edge }) => edge.fired.length > 0)) {
      all.apart = true;
      for (const at of all.nodes) this.take({ at, step, waiting: false });
      return;
    }
    for (const { mark } of looked) this.watch(mark, task);
    all.edges = outcomes.map(({ edge }) => edge);
    for (const { edge, after } of outcomes) {
      edge.to = after === undefined ? task.at : this.enter(after, { node: task.at, edge }, all);
      for (const at of all.nodes) (this.out.nodes[at] as Explored).edges.push(edge);
    }
    for (const mark of all.marks) for (const content of all.contents) this.left(mark, content);
  }

  private reveal(at: number, content: Node) {
    const node = this.out.nodes[at] as Explored;
    const branch = node.portal?.branch ?? 0;
    // A lane whose screen leads on at once was seen to when it was chosen; a branch that is uncovered does not arrive.
    if (!isUnder(branchNode(node.state, branch)) && arrives(this.abstract.app.plan, topOf(content))) return;
    const edge: Edge = {
      ...noEdge(),
      way: "reveal",
      asMade: this.marks.textOf(content) === this.marks.textOf(make(this.abstract.app.plan, templateOf(this.abstract.project, content.at))),
    };
    edge.to = this.enter(this.marks.hidden(revealed(node.state, branch, content)), { node: at, edge });
    node.edges.push(edge);
  }

  /** The number of a state that was reached; what its lanes held is noted. */
  private enter(hidden: Hidden, from: Explored["from"], all?: Alike): number {
    for (const { mark, content } of hidden.left)
      if (isAside(content)) all?.marks.add(mark);
      else this.left(mark, content);
    const known = this.byKey.get(hidden.key);
    if (known !== undefined) return known;
    const { app } = this.abstract;
    const { nodes } = this.out;
    const { state, key } = hidden;
    hidden.shown ??= { line: stateLine(app.plan, state), screen: currentScreen(state).at, portal: hiddenShown(app, state) };
    const distance = from ? (nodes[from.node]?.distance ?? 0) + (from.edge.way === "reveal" ? 0 : 1) : 0;
    this.byKey.set(key, nodes.length);
    this.queue.push({ at: nodes.length, waiting: true });
    nodes.push({ state, key, ...hidden.shown, from, distance, edges: [], followed: false });
    return nodes.length - 1;
  }

  private watch(mark: string, task: Task) {
    const known = this.watching.get(mark);
    if (known) known.add(task);
    else this.watching.set(mark, new Set([task]));
  }

  /** Notes what a lane held under which facts when it was left, and sees to the steps that look into that lane and the portals that show it. */
  private left(lane: string, content: Node) {
    if (!this.marks.note(lane, content)) return;
    for (const task of this.watching.get(lane) ?? [])
      if (!task.waiting) {
        task.waiting = true;
        this.again.push(task);
      }
    for (const at of this.showing.get(lane) ?? []) this.queue.push({ at, content, waiting: true });
  }
}
