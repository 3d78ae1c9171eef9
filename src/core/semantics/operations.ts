import type { Args, Operation, Program } from "../plan/data.ts";
import { activate, type Focus, withBranchKnown } from "./activate.ts";
import { goBack } from "./back.ts";
import { selectLane, withDrawersClosed } from "./lanes.ts";
import { sameLine } from "./line.ts";
import { make, ownArguments } from "./make.ts";
import {
  branchNode,
  currentScreen,
  isDrawer,
  moved,
  nearest,
  nearestStack,
  nothingToDo,
  refused,
  replaceOnPath,
  shownIn,
  updateBranch,
  visiblePath,
  withLayers,
} from "./state.ts";
import type { App, Change, Node, State } from "./types.ts";

/** How far a program is: the state so far, and the container that the next operations work on. */
interface Progress {
  readonly state: State;
  readonly on: Focus | undefined;
}
/** What an operation comes to: a change that ends the program, or how it goes on. */
type Done = { readonly end: Change; readonly quiet?: boolean | undefined };
type Next = Progress | Done;

/** Runs the operations of a move from a branch, with arguments already worked out. The state given is not changed. */
export function run(app: App, start: State, branch: number, program: Program, args: Args): Change {
  return runFrom(app, start, start, branch, program, args);
}

/** The same from a state that has been tidied already; `before` is the one that the move began in. */
function runFrom(app: App, before: State, start: State, branch: number, program: Program, args: Args): Change {
  let at: Progress = { state: start, on: undefined };
  let quiet = false;
  for (const [i, operation] of program.entries()) {
    if (operation.op === "tidy") return tidied(app, at.state, branch, operation.away, program.slice(i + 1), args);
    const next = perform(app, at, branch, operation, args);
    if ("end" in next) return next.quiet && next.end.is === "moved" && sameLine(app.plan, before, next.end.state) ? nothingToDo : next.end;
    if ("quiet" in operation && operation.quiet) quiet = true;
    at = next;
  }
  return at.state === before || (quiet && sameLine(app.plan, before, at.state)) ? nothingToDo : moved(at.state);
}

/** Tidies the nearest stack before the operations that follow, if they can be done. */
function tidied(app: App, state: State, branch: number, away: "one" | "rest", program: Program, args: Args): Change {
  const untidied = runFrom(app, state, state, branch, program, args);
  const found = nearestStack(state, branch);
  if (untidied.is === "refused" || !found || found.stack.items.length < 2) return untidied;
  const items = away === "one" ? app.stacks.pop(found.stack.items) : app.stacks.bottom(found.stack.items);
  return runFrom(app, state, updateBranch(state, branch, found.depth, { ...found.stack, items }), branch, program, args);
}

function perform(app: App, at: Progress, branch: number, operation: Operation, args: Args): Next {
  const { state } = at;
  switch (operation.op) {
    case "refuse":
      return { end: refused(operation.why) };
    case "stack":
      return nearestStackOf(app, state, branch, operation, args);
    case "bring": {
      const on = activate(app, state, operation.up);
      if (on) return { state: on.state, on };
      return { end: operation.otherwise ? run(app, state, branch, operation.otherwise, args) : refused("not-showing") };
    }
    case "unless":
      return currentScreen(state, branch).at === operation.shows ? { end: nothingToDo } : at;
    case "stay":
      return stay(app, at, operation, args);
    case "pop":
      return popTo(app, at, branch, operation, args);
    case "drop":
      return { ...at, state: withoutTop(app, state, branch) };
    case "push":
    case "fill":
      return putInStack(app, at, operation, args);
    case "replace": {
      const path = visiblePath(branchNode(state, branch));
      if (isAround(operation.holds, path.slice(0, -1))) return { end: refused("inside-itself") };
      return { ...at, state: updateBranch(state, branch, path.length - 1, make(app.plan, operation.make, args)) };
    }
    case "select": {
      const node = focused(at);
      if (node?.kind !== "tabs" && node?.kind !== "drawer") return { end: refused("not-showing") };
      return put(at, selectLane(app, node, operation.lane, operation.fresh));
    }
    case "rebuild":
      return { end: moved(rebuilt(app, state, operation.route, args)) };
    case "tidy":
    case "proceed":
    case "leave":
      return at;
    default:
      return onScreen(app, at, branch, operation, args);
  }
}

/** A change that may hand something back. */
function wentBack(change: Change): Change {
  return change.is === "moved" ? { ...change, back: true } : change;
}

type OnScreen = Extract<Operation, { op: "open" | "close" | "menu" | "back" | "up" }>;

/** Operations on what shows now: layers, drawers, Back and Up. */
function onScreen(app: App, at: Progress, branch: number, operation: OnScreen, args: Args): Next {
  const { state } = at;
  switch (operation.op) {
    case "open":
      return { end: open(app, state, branch, operation, args) };
    case "close": {
      const layer = operation.modal === undefined ? branch - 1 : state.layers.findIndex((one) => one.at === operation.modal);
      return { end: layer < 0 ? nothingToDo : wentBack(moved(withLayers(state, layer))) };
    }
    case "menu":
      return { end: menu(app, state, branch, operation) };
    case "back":
      return { end: wentBack(goBack(app, state, branch)) };
    case "up":
      return { end: goUp(app, state, branch) };
  }
}

/** Up, as the lead or as a move, on a branch. In a layer it is going back in the nearest stack. */
export function goUp(app: App, state: State, branch: number): Change {
  const source = currentScreen(state, branch);
  const program: Program | undefined = branch > 0 ? UP_IN_A_LAYER : app.plan.screens.get(source.at)?.up;
  return program ? run(app, state, branch, program, source.args) : nothingToDo;
}
const UP_IN_A_LAYER: Program = [{ op: "drop" }];

/** The state with the nearest stack of a branch less its top, if it has more than one item. */
export function withoutTop(app: App, state: State, branch: number): State {
  const found = nearestStack(state, branch);
  if (!found || found.stack.items.length < 2) return state;
  return updateBranch(state, branch, found.depth, { ...found.stack, items: app.stacks.pop(found.stack.items) });
}

/** The state after coming in along a route: the base, or a modal over the launched app. */
export function rebuilt(app: App, state: State, route: Extract<Operation, { op: "rebuild" }>["route"], args: Args): State {
  if ("base" in route) return { ...state, base: make(app.plan, route.base, args), layers: [] };
  return { ...state, base: make(app.plan, app.plan.launch), layers: [{ at: route.over, content: make(app.plan, route.shows, args) }] };
}

function nearestStackOf(app: App, state: State, branch: number, operation: Extract<Operation, { op: "stack" }>, args: Args): Next {
  const on = operation.of === "beneath" && branch > 0 ? branch - 1 : branch;
  const from = on < branch ? withLayers(withBranchKnown(app, state, on), on) : state;
  const found = nearestStack(from, on);
  if (found) return { state: from, on: { state: from, branch: on, depth: found.depth } };
  return { end: operation.otherwise && on === branch ? run(app, state, branch, operation.otherwise, args) : refused("no-stack") };
}

/** The container that a program works on. */
function focused({ state, on }: Progress): Node | undefined {
  return on && visiblePath(branchNode(state, on.branch))[on.depth];
}

function put(at: Progress, node: Node): Next {
  return at.on ? { ...at, state: updateBranch(at.state, at.on.branch, at.on.depth, node) } : at;
}

function stay(app: App, at: Progress, operation: Extract<Operation, { op: "stay" }>, args: Args): Next {
  const stack = focused(at);
  if (stack?.kind !== "stack") return at;
  const items = app.stacks.top(stack.items, operation.on);
  const top = items[items.length - 1] as Node;
  const wanted = make(app.plan, operation.make, args);
  const equal = top.kind !== "shown" || wanted.kind !== "shown" || app.evaluator.sameArguments(top.at, top.args, wanted.args);
  if (top.at === operation.on && equal) return { end: moved(at.state), quiet: true };
  return items === stack.items ? at : put(at, { ...stack, items });
}

function popTo(app: App, at: Progress, branch: number, operation: Extract<Operation, { op: "pop" }>, args: Args): Next {
  const matches = (item: Node) => (operation.to === (operation.by === "is" ? item.at : shownIn(item).at) ? item : undefined);
  const sought = `${operation.by} ${operation.to}`;
  if (operation.beneath !== undefined) return popBeneath(app, at, branch, operation.beneath === "outwards", matches, sought);
  const stack = focused(at);
  const cut = stack?.kind === "stack" ? app.stacks.cut(stack.items, matches, sought) : undefined;
  if (stack?.kind !== "stack" || !cut) return at;
  const items = operation.pass ? [...cut.slice(0, -1), withArguments(app, cut[cut.length - 1] as Node, args)] : cut;
  return { end: moved((put(at, { ...stack, items }) as Progress).state), quiet: operation.quiet };
}

/** Cuts the nearest stack of a branch, or else the next one outwards, down to an item beneath its top. */
function popBeneath(app: App, at: Progress, branch: number, outwards: boolean, matches: (item: Node) => Node | undefined, sought: string): Next {
  const path = visiblePath(branchNode(at.state, branch));
  for (let depth = path.length - 1; depth >= 0; depth--) {
    const node = path[depth] as Node;
    if (node.kind !== "stack") continue;
    const cut = app.stacks.cut(node.items.slice(0, -1), matches, sought);
    if (cut) return { end: wentBack(moved(updateBranch(at.state, branch, depth, { ...node, items: cut }))) };
    if (!outwards) return at;
  }
  return at;
}

/** The node with new arguments for the screen that it shows. */
function withArguments(app: App, node: Node, args: Args): Node {
  const path = visiblePath(node);
  const screen = shownIn(node);
  return replaceOnPath(path, path.length - 1, { ...screen, args: ownArguments(app.plan, screen.at, args) });
}

function putInStack(app: App, at: Progress, operation: Extract<Operation, { op: "push" | "fill" }>, args: Args): Next {
  const stack = focused(at);
  if (!at.on || stack?.kind !== "stack") return { end: refused("no-stack") };
  const around = visiblePath(branchNode(at.state, at.on.branch)).slice(0, at.on.depth + 1);
  if (isAround(operation.holds, around)) return { end: refused("inside-itself") };
  if (operation.op === "fill") return put(at, { ...stack, items: operation.make.map((one) => make(app.plan, one, args)) });
  const made = make(app.plan, operation.make, args);
  const { state } = put(at, { ...stack, items: [...stack.items, made] }) as Progress;
  const copied = app.stacks.has(stack.items, made.at) ? { copied: made.at } : {};
  return { end: { is: "moved", state, ...copied } };
}

/** Whether one of some containers is already around a slot. */
function isAround(holds: readonly string[] | undefined, around: readonly Node[]): boolean {
  return holds !== undefined && around.some((node) => node.kind !== "shown" && holds.includes(node.at));
}

function open(app: App, state: State, branch: number, operation: Extract<Operation, { op: "open" }>, args: Args): Change {
  const before = withDrawersClosed(state, branch);
  const already = state.layers.findIndex((layer) => layer.at === operation.modal);
  if (already >= 0) return already === state.layers.length - 1 ? nothingToDo : moved(withLayers(before, already + 1));
  const rest = operation.instead ? before.layers.slice(0, -1) : before.layers;
  return moved({ ...before, layers: [...rest, { at: operation.modal, content: make(app.plan, operation.make, args) }] });
}

function menu(app: App, state: State, branch: number, operation: Extract<Operation, { op: "menu" }>): Change {
  const path = visiblePath(branchNode(state, branch));
  const named = operation.drawer;
  const depth = named === undefined ? nearest(path, isDrawer) : path.findIndex((node) => node.kind === "drawer" && node.at === named);
  const node = path[depth];
  if (node?.kind !== "drawer" || app.plan.containers.get(node.at)?.pinnedAt?.includes(state.width)) return nothingToDo;
  const wanted = operation.open ?? !node.open;
  return wanted === node.open ? nothingToDo : moved(updateBranch(state, branch, depth, { ...node, open: wanted }));
}
