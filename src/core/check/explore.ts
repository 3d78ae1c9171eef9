import { compiled } from "../engine/compiled.ts";
import { initialFacts, relaunched } from "../engine/enter.ts";
import { stateLine } from "../engine/line.ts";
import { make } from "../engine/make.ts";
import { branchesInReach, isSource } from "../engine/reach.ts";
import { branchNode, currentScreen, type LaneNode, type Node, type StackNode, type State, type StepResult, visiblePath } from "../engine/state.ts";
import { arrive, step } from "../engine/step.ts";
import { lookup } from "../model/lookup.ts";
import type { NavEvent, Project, Width } from "../model/schema.ts";
import { type AbstractProject, arrives, topOf } from "./abstract.ts";
import type { Edge, Exploration, Explored, Way } from "./exploration.ts";
import { stateKey } from "./key.ts";
import { hiddenShown, hideLanes, revealed, stamped } from "./lanes.ts";
import { shortestWays } from "./ways.ts";

/**
 * Breadth-first search over the abstract states that can be reached in one width. Inactive
 * lanes are hidden, so their contents are not multiplied with one another; a state whose
 * lane was just chosen is a portal to all that the lane held when it was left. What launches
 * lead to is found first, then what entrances add to it.
 */
export function explore(abstract: AbstractProject, width: Width, options: ExploreOptions = {}): Exploration {
  return new Search(abstract, width, options.states ?? MOST_STATES).run(options);
}

/** States that a search looks at before it stops. */
const MOST_STATES = 20_000;

export interface ExploreOptions {
  /** States to look at. */
  states?: number;
  /** Asked at each state; true ends the search. */
  stop?: () => boolean;
  /** False to start by launches alone. */
  entrances?: boolean;
  /** Shown what launches alone lead to, before entrances are looked at. */
  launched?: (exploration: Exploration) => void;
}

class Search {
  private readonly byKey = new Map<string, number>();
  private readonly contents = new Set<string>();
  /** By mark the states that show it or look into it. */
  private readonly watching = new Map<string, Set<number>>();
  private readonly moments = new Map<string, number>();
  private readonly starts = new Map<string, Edge[]>();
  private readonly out: Exploration;
  private queue: number[] = [];
  private done = 0;
  private entering = false;

  constructor(
    private readonly abstract: AbstractProject,
    width: Width,
    private readonly most: number,
  ) {
    abstract.lanes = new Map();
    this.out = { abstract, width, widths: [width], nodes: [], launches: [], complete: true, lanes: abstract.lanes };
  }

  run({ stop = () => false, entrances = true, launched = () => undefined }: ExploreOptions): Exploration {
    this.launch();
    this.drain(stop);
    this.shortest();
    launched(this.out);
    if (this.abstract.chooser.truncated) this.out.complete = false;
    if (!entrances || this.abstract.project.entrances.length === 0) return this.out;
    this.entering = true;
    for (let at = 0; at < this.out.nodes.length; at++) this.start(at, "enter");
    this.drain(stop);
    this.shortest();
    if (this.abstract.chooser.truncated) this.out.complete = false;
    return this.out;
  }

  private drain(stop: () => boolean) {
    for (; this.done < this.queue.length; this.done++) {
      if (this.out.nodes.length > this.most || stop()) {
        this.out.complete = false;
        return;
      }
      this.follow(this.queue[this.done] as number);
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
    const { project } = this.abstract;
    const start: State = { base: make(project, project.root), layers: [], facts: initialFacts(project), width: this.out.width };
    for (const { result, choices } of this.abstract.chooser.each(() => watched(this.abstract, () => arrive(project, undefined, start)))) {
      const settled = result.value;
      const edge = { ...noEdge(), ...result.seen, choices };
      if (settled === "loop") Object.assign(edge, { outcome: "refused", why: "redirect-loop" });
      if (this.out.nodes.length === 0 || settled !== "loop") edge.to = this.add(settled === "loop" ? start : settled, undefined);
      const node = this.out.nodes[edge.to];
      if (node && !node.launched) node.launched = choices;
      this.out.launches.push(edge);
    }
  }

  /** Works out the steps from one state, or works them out again where a lane turned out to hold more. */
  private follow(at: number) {
    const node = this.out.nodes[at] as Explored;
    node.edges = [];
    node.followed = true;
    if (node.portal) {
      for (const content of this.abstract.lanes.get(node.portal.lane) ?? [])
        if (!arrives(this.abstract.project, topOf(content))) this.reveal(at, node.portal.branch, content);
      return;
    }
    for (const { event, way } of events(this.abstract, node.state)) this.take(at, event, way);
    this.start(at, "launch");
    if (this.entering) this.start(at, "enter");
  }

  /** Adds the new starts that are possible at any moment: they depend on nothing but the facts that stay. */
  private start(at: number, how: "launch" | "enter") {
    const node = this.out.nodes[at] as Explored;
    if (node.portal) return;
    const key = how + JSON.stringify(relaunched(this.abstract.project, node.state).facts);
    const known = this.starts.get(key);
    if (known) {
      node.edges.push(...known);
      return;
    }
    const before = node.edges.length;
    for (const event of startEvents(this.abstract.project, how)) this.take(at, event, "anew");
    this.starts.set(
      key,
      node.edges.slice(before).filter((edge) => edge.outcome === "moved"),
    );
  }

  private take(at: number, event: NavEvent | undefined, way: Way) {
    const node = this.out.nodes[at] as Explored;
    this.abstract.looked.clear();
    const results = run(this.abstract, node.state, event, way);
    for (const mark of this.abstract.looked) this.watch(mark, at);
    for (const { edge, state } of results) {
      edge.to = state === undefined ? at : this.add(state, { node: at, edge });
      node.edges.push(edge);
    }
  }

  private reveal(at: number, branch: number, content: Node) {
    const node = this.out.nodes[at] as Explored;
    const edge: Edge = { ...noEdge(), way: "reveal", asMade: textOf(content) === textOf(make(this.abstract.project, content.at)) };
    edge.to = this.add(revealed(node.state, branch, content), { node: at, edge });
    node.edges.push(edge);
  }

  private add(full: State, from: Explored["from"]): number {
    const { project } = this.abstract;
    const state = hideLanes(project, full, (lane, content, of) => this.left(stamped(lane, this.moment(full, of)), content));
    const key = stateKey(project, state);
    const known = this.byKey.get(key);
    if (known !== undefined) return known;
    const { nodes } = this.out;
    const distance = from ? (nodes[from.node]?.distance ?? 0) + (from.edge.way === "reveal" ? 0 : 1) : 0;
    this.byKey.set(key, nodes.length);
    this.queue.push(nodes.length);
    const portal = hiddenShown(state);
    if (portal) this.watch(portal.lane, nodes.length);
    nodes.push({
      state,
      key,
      line: stateLine(project, state),
      screen: currentScreen(state).at,
      from,
      distance,
      edges: [],
      portal,
      followed: false,
    });
    return nodes.length - 1;
  }

  private watch(mark: string, at: number) {
    const known = this.watching.get(mark);
    if (known) known.add(at);
    else this.watching.set(mark, new Set([at]));
  }

  /** Has the steps of a state worked out once more, after those that wait already. */
  private again(at: number) {
    const node = this.out.nodes[at] as Explored;
    if (!node.followed) return;
    node.followed = false;
    this.queue.push(at);
  }

  /** Notes what a lane held under which facts when it was left, and sees to the states that show or look into that lane once more. */
  private left(lane: string, content: Node): string {
    const key = `${lane} ${textOf(content)}`;
    if (this.contents.has(key)) return lane;
    this.contents.add(key);
    const known = this.abstract.lanes.get(lane);
    if (known) known.push(content);
    else this.abstract.lanes.set(lane, [content]);
    for (const at of this.watching.get(lane) ?? []) this.again(at);
    return lane;
  }

  /** A number for the moment at which a lane is left: the facts and, where Back follows it, the order of visits. */
  private moment(state: State, of: LaneNode | StackNode): number {
    const container = lookup(this.abstract.project).containers.get(of.at);
    const visits = of.kind === "tabs" && container?.kind === "tabs" && container.onBack === "previous" ? of.visited : [];
    const beneath = of.kind === "stack" ? of.items[of.items.length - 2] : undefined;
    const key = JSON.stringify([state.facts, visits, beneath && textOf(beneath)]);
    const known = this.moments.get(key);
    if (known !== undefined) return known;
    this.moments.set(key, this.moments.size);
    return this.moments.size - 1;
  }
}

function noEdge(): Edge {
  return { event: undefined, way: "anew", choices: [], to: 0, outcome: "moved", fired: [], refusals: [], copies: [], passed: [] };
}

function watched<T>(abstract: AbstractProject, run: () => T): { value: T; seen: Pick<Edge, "fired" | "refusals" | "copies" | "passed"> } {
  abstract.fired = [];
  abstract.refusals = [];
  abstract.copies = [];
  abstract.passed = [];
  const value = run();
  const passed = abstract.passed.flatMap((state) => [currentScreen(state).at, ...state.layers.map((layer) => layer.at)]);
  return { value, seen: { fired: abstract.fired, refusals: abstract.refusals, copies: abstract.copies, passed } };
}

/** All results of one event, for every way in which the unknown may turn out; `state` where it moved. */
function run(abstract: AbstractProject, from: State, event: NavEvent | undefined, way: Way): Array<{ edge: Edge; state: State | undefined }> {
  return abstract.chooser
    .each(() => watched(abstract, () => outcomeOf(abstract, from, event)))
    .flatMap(({ result, choices }) => {
      const stepped = result.value;
      if (stepped.outcome === "ignored" && result.seen.refusals.length === 0) return [];
      const why = stepped.outcome === "refused" ? { why: stepped.why } : {};
      const edge: Edge = { event, way, choices, to: -1, outcome: stepped.outcome, ...why, ...result.seen };
      return [{ edge, state: stepped.outcome === "moved" ? stepped.state : undefined }];
    });
}

/** One event, or a change of outside facts, which lets arrive legs fire. */
function outcomeOf({ project }: AbstractProject, state: State, event: NavEvent | undefined): StepResult {
  if (event) return step(project, state, event);
  const settled = arrive(project, state, state);
  if (settled === "loop") return { state, outcome: "refused", why: "redirect-loop" };
  return settled === state ? { state, outcome: "ignored", why: "nothing-to-do" } : { state: settled, outcome: "moved" };
}

/** The events that a person or the clock could cause, with what each is to the person. */
function events({ project, original }: AbstractProject, state: State): Array<{ event: NavEvent | undefined; way: Way }> {
  const out: Array<{ event: NavEvent | undefined; way: Way }> = [];
  const { containers } = lookup(project);
  for (const branch of branchesInReach(project, state)) {
    const path = visiblePath(branchNode(state, branch));
    const modal = state.layers[branch - 1]?.at;
    for (const place of new Set([...path.map((n) => n.at).reverse(), ...(modal === undefined ? [] : [modal])])) {
      const legs = compiled(project).from.get(place)?.events;
      if (!legs || !isSource(project, state, branch, place)) continue;
      for (const { leg } of legs) out.push({ event: { do: "leg", leg: leg.id }, way: "out" });
    }
    for (const node of path) {
      if (node.kind !== "tabs" && node.kind !== "drawer") continue;
      for (const to of containers.get(node.at)?.members ?? []) out.push({ event: { do: node.kind === "tabs" ? "tab" : "pick", to }, way: "out" });
    }
  }
  out.push({ event: { do: "lead" }, way: "out" });
  for (const via of ["outside", "swipe", "button"] as const) out.push({ event: { do: "close", via }, way: "out" });
  out.push({ event: { do: "back" }, way: "back" });
  if (original.facts.length > project.facts.length && compiled(project).from.get(currentScreen(state).at)?.arrive.length)
    out.push({ event: undefined, way: "itself" });
  return out;
}

function startEvents(project: Project, how: "launch" | "enter"): NavEvent[] {
  return how === "launch" ? [{ do: "launch" }] : project.entrances.map((entrance): NavEvent => ({ do: "enter", entrance: entrance.id, cold: true }));
}

const texts = new WeakMap<Node, string>();

/** A node as text, worked out once for each node object. */
function textOf(node: Node): string {
  const known = texts.get(node);
  if (known !== undefined) return known;
  const text = JSON.stringify(node);
  texts.set(node, text);
  return text;
}
