import { drawerOf, lookup, modalOf } from "../model/lookup.ts";
import type { Json, Project, Way, Width } from "../model/schema.ts";
import { goBack, openDrawerDepth } from "./back.ts";
import { isPinned, leadOf } from "./bar.ts";
import { enter, relaunched } from "./enter.ts";
import { lowest } from "./items.ts";
import { closed, selectLane } from "./lanes.ts";
import { branchesInReach, openDrawers } from "./reach.ts";
import {
  branchNode,
  type Change,
  isDrawer,
  type LaneNode,
  moved,
  type Node,
  nearest,
  nearestStack,
  noControl,
  nothingToDo,
  type PlainEvent,
  type State,
  shownIn,
  topBranch,
  updateBranch,
  visiblePath,
  withLayers,
} from "./state.ts";
import { goUp, pop } from "./up.ts";

/** What an event other than a leg does when no depart leg is asked. `held`: it was held, so a pick needs no open drawer. */
export function attemptUnasked(project: Project, state: State, event: PlainEvent, held = false): Change {
  switch (event.do) {
    case "tab":
    case "pick":
      return choose(project, state, controlOf(project, state, event, held), event.to);
    case "lead":
      return pressLead(project, state);
    case "close":
      return closeBy(project, state, event.via);
    case "back":
      return goBack(project, state, topBranch(state));
    case "enter":
      return enter(project, state, event);
    case "launch":
      return moved(relaunched(project, state));
    case "fact":
      return changeFact(project, state, event.fact, event.value);
    case "width":
      return changeWidth(state, event.to);
  }
}

/** A tab set or drawer in which a member can be chosen by hand now. */
export interface Control {
  branch: number;
  depth: number;
  node: LaneNode;
}

/** The control that a tab or pick names; undefined where there is none in reach. */
export function controlOf(project: Project, state: State, event: { do: "tab" | "pick"; to: string }, held = false): Control | undefined {
  for (const branch of branchesInReach(project, state)) {
    const path = visiblePath(branchNode(state, branch));
    const depth = path.findLastIndex((node) => isControl(project, state, path, node, event, held));
    if (depth >= 0) return { branch, depth, node: path[depth] as LaneNode };
  }
  return undefined;
}

function isControl(project: Project, state: State, path: readonly Node[], node: Node, event: { do: "tab" | "pick"; to: string }, held: boolean): boolean {
  const container = lookup(project).containers.get(node.at);
  if (!container?.members.includes(event.to)) return false;
  if (event.do === "pick") return node.kind === "drawer" && (held || node.open || isPinned(drawerOf(project, node.at), state.width));
  if (node.kind !== "tabs" || openDrawers(path).length > 0) return false;
  return !lookup(project).screens.get(shownIn(node).at)?.coversTabs;
}

function choose(project: Project, state: State, control: Control | undefined, to: string): Change {
  if (!control) return noControl;
  const { branch, depth, node } = control;
  const next = node.active === to ? chosenAgain(project, node) : selectLane(project, node, to);
  return next ? moved(updateBranch(state, branch, depth, next)) : nothingToDo;
}

function chosenAgain(project: Project, node: LaneNode): LaneNode | undefined {
  if (node.kind === "drawer") return node.open ? closed(node) : undefined;
  const container = lookup(project).containers.get(node.at);
  const lane = node.lanes[node.active];
  if (container?.kind !== "tabs" || container.chosenAgain !== "root" || lane?.kind !== "stack" || lane.items.length < 2) return undefined;
  return { ...node, lanes: { ...node.lanes, [node.active]: { ...lane, items: lowest(project, lane.items) } } };
}

function pressLead(project: Project, state: State): Change {
  const branch = topBranch(state);
  const lead = leadOf(project, state, branch);
  const path = visiblePath(branchNode(state, branch));
  const drawerDepth = nearest(path, isDrawer);
  const drawer = path[drawerDepth];
  if (openDrawers(path).length > 0) {
    const closes = lead === "menu" && drawer?.kind === "drawer" && drawer.open && drawerOf(project, drawer.at)?.over === false;
    return closes ? moved(updateBranch(state, branch, drawerDepth, closed(drawer))) : nothingToDo;
  }
  switch (lead) {
    case "back": {
      const found = nearestStack(state, branch);
      return found ? moved(pop(project, state, branch, found)) : nothingToDo;
    }
    case "up":
      return goUp(project, state, branch);
    case "menu":
      return drawer?.kind === "drawer" ? moved(updateBranch(state, branch, drawerDepth, { ...drawer, open: true })) : nothingToDo;
    case "idle":
      return nothingToDo;
    case "none":
      return noControl;
  }
}

function closeBy(project: Project, state: State, via: Way): Change {
  if (via === "back") return noControl;
  const branch = topBranch(state);
  const path = visiblePath(branchNode(state, branch));
  const open = openDrawerDepth(path);
  if (open >= 0) {
    const node = path[open] as Node;
    return drawerOf(project, node.at)?.closeOn.includes(via) ? moved(updateBranch(state, branch, open, closed(node))) : noControl;
  }
  const layer = state.layers[branch - 1];
  const modal = layer && modalOf(project, layer.at);
  const closes = modal?.closeOn.includes(via) && !(via === "outside" && modal.shape === "full");
  return closes ? moved(withLayers(state, branch - 1)) : noControl;
}

function changeFact(project: Project, state: State, factId: string, value: Json): Change {
  const fact = lookup(project).facts.get(factId);
  if (fact?.source !== "outside") return noControl;
  const possible = fact.type === "boolean" ? typeof value === "boolean" : typeof value === "string" && fact.values?.includes(value);
  if (!possible) return noControl;
  return state.facts[factId] === value ? nothingToDo : moved({ ...state, facts: { ...state.facts, [factId]: value } });
}

function changeWidth(state: State, to: Width): Change {
  if (state.width === to) return nothingToDo;
  return moved({
    ...state,
    width: to,
    base: allDrawersClosed(state.base),
    layers: state.layers.map((layer) => ({ ...layer, content: allDrawersClosed(layer.content) })),
  });
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
