import type { Json, Way, Width } from "../plan/data.ts";
import { goBack } from "./back.ts";
import { isPinnedAt, leadOf } from "./bar.ts";
import { enter, relaunched } from "./enter.ts";
import { closed, selectLane } from "./lanes.ts";
import { goUp, withoutTop } from "./operations.ts";
import { branchesInReach } from "./reach.ts";
import {
  branchNode,
  isDrawer,
  isOpenDrawer,
  moved,
  nearest,
  noControl,
  nothingToDo,
  openDrawerDepth,
  shownIn,
  topBranch,
  updateBranch,
  visiblePath,
  withLane,
  withLayers,
} from "./state.ts";
import type { App, Change, LaneNode, Node, PlainEvent, State } from "./types.ts";

/** What an event other than a leg does when no depart leg is asked. `held`: it was held, so a pick needs no open drawer. */
export function unasked(app: App, state: State, event: PlainEvent, held = false): Change {
  switch (event.do) {
    case "tab":
    case "pick":
      return choose(app, state, controlOf(app, state, event.do, event.to, held), event.to);
    case "lead":
      return pressLead(app, state);
    case "close":
      return closeBy(app, state, event.via);
    case "back":
      return goBack(app, state, topBranch(state));
    case "enter":
      return enter(app, state, event);
    case "launch":
      return moved(relaunched(app, state));
    case "fact":
      return changeFact(app, state, event.fact, event.value);
    case "width":
      return changeWidth(state, event.to);
  }
}

/** A tab set or drawer in which a member can be chosen by hand now. */
export interface Control {
  readonly branch: number;
  readonly depth: number;
  readonly node: LaneNode;
}

/** The control that a tab or pick names; undefined where there is none in reach. */
export function controlOf(app: App, state: State, kind: "tab" | "pick", to: string, held = false): Control | undefined {
  for (const branch of branchesInReach(app, state)) {
    const path = visiblePath(branchNode(state, branch));
    const depth = nearest(path, (node): node is LaneNode => isControl(app, state, path, node, kind, to, held));
    if (depth >= 0) return { branch, depth, node: path[depth] as LaneNode };
  }
  return undefined;
}

function isControl(app: App, state: State, path: readonly Node[], node: Node, kind: "tab" | "pick", to: string, held: boolean): boolean {
  if (node.kind !== "tabs" && node.kind !== "drawer") return false;
  if (!app.plan.containers.get(node.at)?.members.includes(to)) return false;
  if (kind === "pick") return node.kind === "drawer" && (held || node.open || isPinnedAt(app.plan, node.at, state.width));
  return node.kind === "tabs" && !path.some(isOpenDrawer) && !app.plan.screens.get(shownIn(node).at)?.coversTabs;
}

function choose(app: App, state: State, control: Control | undefined, to: string): Change {
  if (!control) return noControl;
  const { branch, depth, node } = control;
  const next = node.active === to ? chosenAgain(app, node) : selectLane(app, node, to);
  return next ? moved(updateBranch(state, branch, depth, next)) : nothingToDo;
}

function chosenAgain(app: App, node: LaneNode): LaneNode | undefined {
  if (node.kind === "drawer") return node.open ? closed(node) : undefined;
  const lane = node.lanes[node.active];
  if (app.plan.containers.get(node.at)?.chosenAgain !== "root" || lane?.kind !== "stack" || lane.items.length < 2) return undefined;
  return { ...node, lanes: withLane(node.lanes, node.active, { ...lane, items: app.stacks.bottom(lane.items) }) };
}

function pressLead(app: App, state: State): Change {
  const branch = topBranch(state);
  const lead = leadOf(app.plan, state, branch);
  const path = visiblePath(branchNode(state, branch));
  const depth = nearest(path, isDrawer);
  const drawer = path[depth];
  if (path.some(isOpenDrawer)) {
    const closes = lead === "menu" && drawer && isOpenDrawer(drawer) && app.plan.containers.get(drawer.at)?.over === false;
    return closes ? moved(updateBranch(state, branch, depth, closed(drawer))) : nothingToDo;
  }
  switch (lead) {
    case "back": {
      const next = withoutTop(app, state, branch);
      return next === state ? nothingToDo : moved(next);
    }
    case "up":
      return goUp(app, state, branch);
    case "menu":
      return drawer?.kind === "drawer" ? moved(updateBranch(state, branch, depth, { ...drawer, open: true })) : nothingToDo;
    case "idle":
      return nothingToDo;
    case "none":
      return noControl;
  }
}

function closeBy(app: App, state: State, via: Way): Change {
  if (via === "back") return noControl;
  const branch = topBranch(state);
  const closes = (id: string) => app.plan.containers.get(id)?.closeOn?.includes(via) === true;
  const path = visiblePath(branchNode(state, branch));
  const depth = openDrawerDepth(path);
  const drawer = path[depth];
  if (drawer) return closes(drawer.at) ? moved(updateBranch(state, branch, depth, closed(drawer))) : noControl;
  const layer = state.layers[branch - 1];
  return layer && closes(layer.at) ? moved(withLayers(state, branch - 1)) : noControl;
}

function changeFact(app: App, state: State, id: string, value: Json): Change {
  const fact = app.plan.facts.get(id);
  if (!fact?.outside) return noControl;
  const possible = fact.values ? typeof value === "string" && fact.values.includes(value) : typeof value === "boolean";
  if (!possible) return noControl;
  return state.facts[id] === value ? nothingToDo : moved({ ...state, facts: { ...state.facts, [id]: value } });
}

function changeWidth(state: State, to: Width): Change {
  if (state.width === to) return nothingToDo;
  const layers = state.layers.map((layer) => ({ ...layer, content: allDrawersClosed(layer.content) }));
  return moved({ ...state, width: to, base: allDrawersClosed(state.base), layers });
}

/** The node with every drawer in it closed, on the visible path or not; the same node where none is open. */
function allDrawersClosed(node: Node): Node {
  switch (node.kind) {
    case "shown":
      return node;
    case "stack": {
      const items = node.items.map(allDrawersClosed);
      return items.every((item, i) => item === node.items[i]) ? node : { ...node, items };
    }
    case "tabs":
    case "drawer": {
      const lanes = Object.fromEntries(Object.entries(node.lanes).map(([id, lane]) => [id, allDrawersClosed(lane)]));
      const same = Object.entries(lanes).every(([id, lane]) => lane === node.lanes[id]);
      return closed(same ? node : { ...node, lanes });
    }
  }
}
