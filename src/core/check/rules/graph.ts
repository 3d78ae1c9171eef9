/** The steps of a search as rules see them: what is met where, in a form that many rules can be held against quickly. */

import { placesShown } from "../../insight/rules/moment.ts";
import { lookup } from "../../model/lookup.ts";
import { once } from "../../model/once.ts";
import type { What } from "../../model/schema.ts";
import { type Edge, type Exploration, startLists } from "../system/exploration.ts";

/** What a step of the graph is: an event, one content of a context that shows, a new start, or the way to all new starts that are alike. */
export const EVENT = 0;
export const REVEAL = 1;
export const ANEW = 2;
const TO_STARTS = 3;

/** What is met on the way of a step, beside what shows after it. */
export interface Label {
  legs: readonly string[];
  places: readonly string[];
  entrance: string | undefined;
}

/**
 * The states of a search, numbered as they are there, and behind them one vertex for all new starts from states that have the same ones. Steps
 * of a vertex v are those from `first[v]` up to `first[v + 1]`.
 */
export interface RuleGraph {
  exploration: Exploration;
  /** States and vertices for new starts. */
  size: number;
  /** States alone. */
  states: number;
  first: Int32Array;
  to: Int32Array;
  kind: Uint8Array;
  /** By step its label; 0 where nothing is met on the way. */
  label: Int32Array;
  labels: Label[];
  edges: Array<Edge | undefined>;
  /** By vertex 1 where it is a state of which it is not yet said what shows. */
  pending: Uint8Array;
  /** By state 1 where an outside fact may change and all else stays. */
  stays: Uint8Array;
  launches: Array<{ to: number; label: number; edge: Edge }>;
  /** By state the places that show; none where it is not yet said. */
  shown: ReadonlyArray<readonly string[]>;
}

/** The graph of a search that is done; made once. */
export function ruleGraphOf(exploration: Exploration): RuleGraph {
  return once(exploration, makeGraph);
}

const NOTHING: Label = { legs: [], places: [], entrance: undefined };

function makeGraph(exploration: Exploration): RuleGraph {
  const { nodes, launches, abstraction } = exploration;
  const labels: Label[] = [NOTHING];
  const byText = new Map<string, number>();
  const labelOf = ({ fired, around, event, why }: Edge): number => {
    const entrance = event?.do === "enter" ? event.entrance : undefined;
    if (why === "redirect-loop" || (fired.length === 0 && around.length === 0 && entrance === undefined)) return 0;
    const text = `${fired.join()} ${around.join()} ${entrance ?? ""}`;
    const known = byText.get(text) ?? labels.length;
    if (known === labels.length) labels.push({ legs: fired, places: around, entrance });
    byText.set(text, known);
    return known;
  };
  const changes = abstraction.original.facts.some(({ source, type, values }) => source === "outside" && (type === "boolean" || (values?.length ?? 0) > 1));
  // States that keep the same facts share their new starts.
  const groups = [...startLists(nodes).keys()];
  const vertices = new Map(groups.map((starts, i) => [starts, nodes.length + i]));
  const first: number[] = [];
  const to: number[] = [];
  const kind: number[] = [];
  const label: number[] = [];
  const edges: Array<Edge | undefined> = [];
  const add = (target: number, how: number, what: number, edge: Edge | undefined) => {
    to.push(target);
    kind.push(how);
    label.push(what);
    edges.push(edge);
  };
  for (const node of nodes) {
    first.push(to.length);
    const at = first.length - 1;
    for (const edge of node.edges) {
      // Legs fire that only set facts which are not followed, or fire as an outside fact changes: nothing else comes of it, and that is a moment too.
      const stays = edge.outcome === "ignored" && (edge.way === "automatic" ? changes && edge.fired.length > 0 : setBy(exploration, edge).length > 0);
      if (stays) add(at, EVENT, labelOf(edge), edge);
      if (edge.outcome === "moved") add(edge.to, edge.way === "reveal" ? REVEAL : EVENT, labelOf(edge), edge);
    }
    const vertex = vertices.get(node.starts);
    if (vertex !== undefined) add(vertex, TO_STARTS, 0, undefined);
  }
  for (const group of groups) {
    first.push(to.length);
    for (const edge of group) add(edge.to, ANEW, labelOf(edge), edge);
  }
  first.push(to.length);
  const size = nodes.length + groups.length;
  const pending = new Uint8Array(size);
  const stays = new Uint8Array(size);
  nodes.forEach((node, i) => {
    if (node.pending) pending[i] = 1;
    else if (changes) {
      const byItself = node.edges.filter(({ way }) => way === "automatic");
      if (byItself.length === 0 || byItself.some(({ outcome, fired }) => outcome !== "moved" && fired.length === 0)) stays[i] = 1;
    }
  });
  return {
    exploration,
    size,
    states: nodes.length,
    first: Int32Array.from(first),
    to: Int32Array.from(to),
    kind: Uint8Array.from(kind),
    label: Int32Array.from(label),
    labels,
    edges,
    pending,
    stays,
    launches: launches.flatMap((edge) => (nodes[edge.to] ? [{ to: edge.to, label: labelOf(edge), edge }] : [])),
    shown: nodes.map((node) => (node.pending ? [] : placesShown(node.state))),
  };
}

/** The facts that the legs of a step set and that are not followed. */
export function setBy({ abstraction }: Exploration, { fired }: Edge): string[] {
  const { legs } = lookup(abstraction.original);
  return fired.flatMap((id) => Object.keys(legs.get(id)?.set ?? {}).filter((fact) => !abstraction.precision.follows.has(fact)));
}

/** What of some Whats is met, as bits in their order: by state through what shows, and by label. */
export interface Bits {
  states: Uint8Array;
  labels: Uint8Array;
}

export function bitsOf({ states, shown, labels }: RuleGraph, whats: ReadonlyArray<What | undefined>): Bits {
  const places = new Map<string, number>();
  const legs = new Map<string, number>();
  const entrances = new Map<string, number>();
  whats.forEach((what, i) => {
    for (const id of what?.places ?? []) places.set(id, (places.get(id) ?? 0) | (1 << i));
    for (const id of what?.legs ?? []) legs.set(id, (legs.get(id) ?? 0) | (1 << i));
    for (const id of what?.entrances ?? []) entrances.set(id, (entrances.get(id) ?? 0) | (1 << i));
  });
  const any = (ids: readonly string[], by: ReadonlyMap<string, number>) => ids.reduce((bits, id) => bits | (by.get(id) ?? 0), 0);
  const out: Bits = { states: new Uint8Array(states), labels: new Uint8Array(labels.length) };
  if (places.size > 0) for (let i = 0; i < states; i++) out.states[i] = any(shown[i] as readonly string[], places);
  labels.forEach((label, i) => {
    out.labels[i] = any(label.places, places) | any(label.legs, legs) | (label.entrance === undefined ? 0 : (entrances.get(label.entrance) ?? 0));
  });
  return out;
}

/** What a step costs in events: to show what came to light, and to choose among new starts, none. */
export const eventsOf = (kind: number): 0 | 1 => (kind === EVENT || kind === ANEW ? 1 : 0);
