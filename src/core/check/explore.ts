import { compiled } from "../engine/compiled.ts";
import { initialFacts, relaunched } from "../engine/enter.ts";
import { stateLine } from "../engine/line.ts";
import { make } from "../engine/make.ts";
import { branchesInReach, isSource } from "../engine/reach.ts";
import { branchNode, currentScreen, type Node, type State, type StepResult, visiblePath } from "../engine/state.ts";
import { arrive, step } from "../engine/step.ts";
import { lookup } from "../model/lookup.ts";
import type { NavEvent, Project, Width } from "../model/schema.ts";
import type { AbstractProject, Choice, CopyMade, RefusedLeg } from "./abstract.ts";

/**
 * What a step is to a person: a way out that the screen shows, the system's Back, something
 * that happens by itself (an outside fact changes), or a new start or entrance.
 */
export type Way = "out" | "back" | "itself" | "anew";

/** One step of the search. `event` is undefined where outside facts change. */
export interface Edge {
  event: NavEvent | undefined;
  way: Way;
  choices: Choice[];
  /** Number of the state reached; -1 where it is deeper than the search goes. */
  to: number;
  outcome: StepResult["outcome"];
  why?: string;
  /** Legs that fired and legs that were refused on the way. */
  fired: string[];
  refusals: RefusedLeg[];
  copies: CopyMade[];
  /** Screens that arrive legs led on from, and the modals open at that moment. */
  passed: string[];
}

export interface Explored {
  state: State;
  key: string;
  line: string;
  screen: string;
  /** By which edge of which state it was reached first; undefined for the launch. */
  from?: { node: number; edge: Edge };
  /** How the unknown turned out at the launch, for states that a launch shows. */
  launched?: Choice[];
  /** Events from launch. */
  distance: number;
  edges: Edge[];
}

export interface Exploration {
  abstract: AbstractProject;
  width: Width;
  nodes: Explored[];
  /** The launches, for every way in which the unknown may turn out. */
  launches: Edge[];
  /** Stacks that would have grown beyond the limit were cut. */
  cut: boolean;
  /** False where the limit of states was reached first. */
  complete: boolean;
}

export interface Limits {
  /** Items that a stack may hold. */
  depth: number;
  /** States that are looked at. */
  states: number;
}

/** Breadth-first search over the abstract states that can be reached in one width. */
export function explore(abstract: AbstractProject, width: Width, limits: Limits, stop: () => boolean = () => false): Exploration {
  const { project } = abstract;
  const byKey = new Map<string, number>();
  const nodes: Explored[] = [];
  const out: Exploration = { abstract, width, nodes, launches: [], cut: false, complete: true };
  const add = (state: State, from: Explored["from"]): number => {
    const key = stateKey(project, state);
    const known = byKey.get(key);
    if (known !== undefined) return known;
    if (tooDeep(state, limits.depth)) {
      out.cut = true;
      return -1;
    }
    byKey.set(key, nodes.length);
    nodes.push({
      state,
      key,
      line: stateLine(project, state),
      screen: currentScreen(state).at,
      from,
      distance: from ? (nodes[from.node]?.distance ?? 0) + 1 : 0,
      edges: [],
    });
    return nodes.length - 1;
  };
  const start: State = { base: make(project, project.root), layers: [], facts: initialFacts(project), width };
  for (const { result, choices } of abstract.chooser.each(() => watched(abstract, () => arrive(project, undefined, start)))) {
    const settled = result.value;
    const edge = { ...noEdge(), ...result.seen, choices };
    if (settled === "loop") Object.assign(edge, { outcome: "refused", why: "redirect-loop" });
    if (nodes.length === 0 || settled !== "loop") edge.to = add(settled === "loop" ? start : settled, undefined);
    const node = nodes[edge.to];
    if (node && !node.launched) node.launched = choices;
    out.launches.push(edge);
  }
  const anew = new Map<string, Edge[]>();
  for (let at = 0; at < nodes.length; at++) {
    if (nodes.length > limits.states || stop()) {
      out.complete = false;
      break;
    }
    const node = nodes[at] as Explored;
    const connect = (edges: Edge[], results: Array<State | undefined>) => {
      edges.forEach((edge, i) => {
        const state = results[i];
        edge.to = state === undefined ? at : add(state, { node: at, edge });
        node.edges.push(edge);
      });
    };
    for (const { event, way } of events(abstract, node.state)) {
      const { edges, results } = run(abstract, node.state, event, way);
      connect(edges, results);
    }
    const facts = JSON.stringify(relaunched(project, node.state).facts);
    const known = anew.get(facts);
    if (known) node.edges.push(...known);
    else {
      const before = node.edges.length;
      for (const event of starts(project)) {
        const { edges, results } = run(abstract, node.state, event, "anew");
        connect(edges, results);
      }
      anew.set(
        facts,
        node.edges.slice(before).filter((edge) => edge.outcome === "moved"),
      );
    }
  }
  return out;
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

/** All results of one event, for every way in which the unknown may turn out. */
function run(abstract: AbstractProject, state: State, event: NavEvent | undefined, way: Way): { edges: Edge[]; results: Array<State | undefined> } {
  const edges: Edge[] = [];
  const results: Array<State | undefined> = [];
  for (const { result, choices } of abstract.chooser.each(() => watched(abstract, () => result1(abstract, state, event)))) {
    const stepped = result.value;
    if (stepped.outcome === "ignored" && result.seen.refusals.length === 0) continue;
    const why = stepped.outcome === "refused" ? { why: stepped.why } : {};
    edges.push({ event, way, choices, to: -1, outcome: stepped.outcome, ...why, ...result.seen });
    results.push(stepped.outcome === "moved" ? stepped.state : undefined);
  }
  return { edges, results };
}

/** One event, or a change of outside facts, which lets arrive legs fire. */
function result1({ project }: AbstractProject, state: State, event: NavEvent | undefined): StepResult {
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

function starts(project: Project): NavEvent[] {
  return [{ do: "launch" }, ...project.entrances.map((entrance): NavEvent => ({ do: "enter", entrance: entrance.id, cold: true }))];
}

function tooDeep(state: State, depth: number): boolean {
  const deep = (node: Node): boolean => {
    switch (node.kind) {
      case "shown":
        return false;
      case "stack":
        return node.items.length > depth || node.items.some(deep);
      case "tabs":
      case "drawer":
        return Object.values(node.lanes).some(deep);
    }
  };
  return deep(state.base) || state.layers.some((layer) => deep(layer.content));
}

/** What tells two states apart: the line, and beside it only what can make a difference later. */
export function stateKey(project: Project, state: State): string {
  const extra: unknown[] = [];
  const visit = (node: Node) => {
    switch (node.kind) {
      case "shown":
        if (node.spent) extra.push([...node.spent].sort());
        return;
      case "stack":
        node.items.forEach(visit);
        return;
      case "tabs":
      case "drawer": {
        const container = lookup(project).containers.get(node.at);
        if (container?.kind === "tabs" && container.onBack === "previous") extra.push(node.visited);
        for (const id of Object.keys(node.lanes).sort()) visit(node.lanes[id] as Node);
      }
    }
  };
  visit(state.base);
  for (const layer of state.layers) visit(layer.content);
  return JSON.stringify([stateLine(project, state), state.facts, state.waiting?.entrance, state.held, extra]);
}
