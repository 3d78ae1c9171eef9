import { isPinned, select } from "./lanes.ts";
import { make, rebuild, upTarget } from "./make.ts";
import { goUp, withDrawersClosed } from "./moves.ts";
import type { Bar, Event, Json, Plan, Width } from "./plan.ts";
import {
  branch,
  type Change,
  closed,
  containerOf,
  current,
  type Lanes,
  moved,
  type Node,
  nearest,
  nearestStack,
  noControl,
  nothingToDo,
  path,
  refused,
  type State,
  screenOf,
  shownIn,
  top,
  update,
  withLayers,
} from "./state.ts";
import { destination } from "./values.ts";

/** The branches that can be used: beneath a layer only where nothing above it blocks. */
export function inReach(plan: Plan, state: State): number[] {
  const out = [top(state)];
  for (let n = top(state); n > 0 && containerOf(plan, state.layers[n - 1]?.at ?? "")?.blocks === false; n--) out.push(n - 1);
  return out;
}

interface Control {
  branch: number;
  depth: number;
  node: Lanes;
}

export function controlOf(plan: Plan, state: State, event: Extract<Event, { do: "tab" | "pick" }>, held: boolean): Control | undefined {
  for (const n of inReach(plan, state)) {
    const nodes = path(branch(state, n));
    const drawerOpen = nodes.some((node) => node.kind === "drawer" && node.open);
    const depth = nodes.findLastIndex((node) => {
      if (!containerOf(plan, node.at)?.members.includes(event.to)) return false;
      if (event.do === "pick") return node.kind === "drawer" && (held || node.open || isPinned(plan, node.at, state.width));
      return node.kind === "tabs" && !drawerOpen && !screenOf(plan, shownIn(node).at)?.coversTabs;
    });
    if (depth >= 0) return { branch: n, depth, node: nodes[depth] as Lanes };
  }
  return undefined;
}

export function choose(plan: Plan, state: State, event: Extract<Event, { do: "tab" | "pick" }>, held: boolean): Change {
  const control = controlOf(plan, state, event, held);
  if (!control) return noControl;
  const { node } = control;
  const put = (next: Lanes) => moved(update(state, control.branch, control.depth, next));
  if (node.active !== event.to) return put(select(plan, node, event.to));
  if (node.kind === "drawer") return node.open ? put(closed(node)) : nothingToDo;
  const lane = node.lanes[node.active];
  if (containerOf(plan, node.at)?.chosenAgain !== "root" || lane?.kind !== "stack" || lane.items.length < 2) return nothingToDo;
  return put({ ...node, lanes: { ...node.lanes, [node.active]: { ...lane, items: lane.items.slice(0, 1) } } });
}

/** The control at the start of the bar: what it is on the screen that shows. */
export function leadOf(plan: Plan, state: State): "back" | "up" | "menu" | "idle" | "none" {
  const n = top(state);
  const bar = barOf(plan, state, n);
  if (!bar.show || bar.lead === "none") return "none";
  const canPop = (nearestStack(state, n)?.stack.items.length ?? 0) > 1;
  const up = n === 0 && upTarget(plan, current(state, n).at) !== undefined;
  if (bar.lead === "auto") return canPop ? "back" : up ? "up" : "none";
  if (bar.lead === "back") return canPop ? "back" : "none";
  if (bar.lead === "up") return n === 0 ? (up ? "up" : "idle") : canPop ? "back" : "idle";
  const drawer = path(branch(state, n))[nearest(state, n, "drawer")];
  return drawer === undefined ? "idle" : isPinned(plan, drawer.at, state.width) ? "none" : "menu";
}

function barOf(plan: Plan, state: State, n: number): Bar {
  const nodes = path(branch(state, n)).reverse();
  const places = [...nodes.map((node) => node.at), state.layers[n - 1]?.at ?? ""];
  const bars = places.map((place, i) => (i === 0 ? screenOf(plan, place)?.bar : containerOf(plan, place)?.bar));
  return bars.find((bar) => bar !== undefined) ?? { show: true, lead: "auto" };
}

export function pressLead(plan: Plan, state: State): Change {
  const n = top(state);
  const lead = leadOf(plan, state);
  const nodes = path(branch(state, n));
  const depth = nearest(state, n, "drawer");
  const drawer = nodes[depth];
  if (nodes.some((node) => node.kind === "drawer" && node.open)) {
    const closes = lead === "menu" && drawer?.kind === "drawer" && drawer.open && containerOf(plan, drawer.at)?.over === false;
    return closes ? moved(update(state, n, depth, closed(drawer))) : nothingToDo;
  }
  if (lead === "none") return noControl;
  if (lead === "up") return goUp(plan, state, n);
  if (lead === "menu") return drawer?.kind === "drawer" ? moved(update(state, n, depth, { ...drawer, open: true })) : nothingToDo;
  const found = lead === "back" ? nearestStack(state, n) : undefined;
  return found ? moved(update(state, n, found.depth, { ...found.stack, items: found.stack.items.slice(0, -1) })) : nothingToDo;
}

export function closeBy(plan: Plan, state: State, via: string): Change {
  if (via === "back") return noControl;
  const n = top(state);
  const nodes = path(branch(state, n));
  const open = nodes.findLastIndex((node) => node.kind === "drawer" && node.open);
  const ways = (id: string) => containerOf(plan, id)?.closeOn as readonly string[] | undefined;
  if (open >= 0) return ways(nodes[open]?.at ?? "")?.includes(via) ? moved(update(state, n, open, closed(nodes[open] as Node))) : noControl;
  const layer = state.layers[n - 1]?.at ?? "";
  const closes = ways(layer)?.includes(via) && !(via === "outside" && containerOf(plan, layer)?.full);
  return closes ? moved(withLayers(state, n - 1)) : noControl;
}

/** A new start in the same width: facts that persist or come from outside are kept. */
export function anew(plan: Plan, state: State): State {
  const facts = Object.entries(plan.facts).map(([id, fact]): [string, Json] => [
    id,
    (fact.persists || fact.outside ? state.facts[id] : undefined) ?? fact.initial,
  ]);
  return { base: make(plan, plan.root), layers: [], facts: Object.fromEntries(facts), width: state.width };
}

export function enter(plan: Plan, state: State, event: Extract<Event, { do: "enter" }>): Change {
  const entrance = plan.entrances[event.entrance];
  if (!entrance) return noControl;
  const start = event.cold ? anew(plan, state) : state;
  const found = destination(plan, start, event.entrance, event.args ?? {});
  if (!found) return noControl;
  if (!found.allowed) {
    if (entrance.otherwise === undefined) return event.cold ? moved(start) : refused("not-allowed");
    const waiting = entrance.resume ? { ...start, waiting: { entrance: event.entrance, args: event.args ?? {} } } : start;
    return rebuild(plan, waiting, entrance.otherwise, {});
  }
  if (found.to === undefined) return refused("no-place");
  const bare = withDrawersClosed({ ...start, layers: [] }, 0);
  const stack = event.cold || !entrance.onTop ? undefined : nearestStack(bare, 0);
  if (!stack) return rebuild(plan, start, found.to, found.args);
  return moved(update(bare, 0, stack.depth, { ...stack.stack, items: [...stack.stack.items, make(plan, found.to, found.args)] }));
}

export function setFact(plan: Plan, state: State, id: string, value: Json): Change {
  const fact = plan.facts[id];
  const possible = fact?.values ? typeof value === "string" && fact.values.includes(value) : typeof value === "boolean";
  if (!fact?.outside || !possible) return noControl;
  return state.facts[id] === value ? nothingToDo : moved({ ...state, facts: { ...state.facts, [id]: value } });
}

export function setWidth(state: State, to: Width): Change {
  if (state.width === to) return nothingToDo;
  const shut = (node: Node): Node => {
    if (node.kind === "shown") return node;
    if (node.kind === "stack") return { ...node, items: node.items.map(shut) };
    return closed({ ...node, lanes: Object.fromEntries(Object.entries(node.lanes).map(([id, lane]) => [id, shut(lane)])) });
  };
  return moved({ ...state, width: to, base: shut(state.base), layers: state.layers.map((layer) => ({ ...layer, content: shut(layer.content) })) });
}
