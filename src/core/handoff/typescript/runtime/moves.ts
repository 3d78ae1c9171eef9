import { activate, goBack, isPinned, select } from "./lanes.ts";
import { make, ownArguments, rebuild, trail, tree, upTarget } from "./make.ts";
import type { Args, Move, Plan } from "./plan.ts";
import {
  branch,
  type Change,
  closed,
  containerOf,
  current,
  line,
  moved,
  type Node,
  nearest,
  nearestStack,
  nothingToDo,
  ownerOf,
  path,
  refused,
  replaceOn,
  type Stack,
  type State,
  same,
  screenOf,
  shownIn,
  update,
  withLayers,
} from "./state.ts";

/** Whether all places that a move names are there and of the kind that it needs. */
export function placesExist(plan: Plan, move: Move): boolean {
  const showable = (id: string) => plan.places[id] !== undefined && plan.places[id]?.kind !== "modal";
  const isStack = (id: string | undefined) => id === undefined || id === "beneath" || plan.places[id]?.kind === "stack";
  switch (move.kind) {
    case "push":
    case "reset":
      return showable(move.to) && isStack(move.in);
    case "replace":
      return showable(move.to);
    case "return":
      return screenOf(plan, move.to) !== undefined;
    case "open":
      return plan.places[move.to]?.kind === "modal" && (move.show === undefined || showable(move.show));
    case "close":
      return move.modal === undefined || plan.places[move.modal]?.kind === "modal";
    case "select": {
      const owner = containerOf(plan, ownerOf(plan, move.to) ?? "")?.kind;
      return plan.places[move.to] !== undefined && (owner === "tabs" || owner === "drawer");
    }
    case "menu":
      return move.drawer === undefined || plan.places[move.drawer]?.kind === "drawer";
    default:
      return true;
  }
}

/** Makes a move from a branch. `passes`: arguments were given, be they none. */
export function makeMove(plan: Plan, state: State, n: number, move: Move, args: Args, passes: boolean): Change {
  switch (move.kind) {
    case "push":
      return tidied(state, n, move, (from) => push(plan, from, n, move, args, passes));
    case "replace":
      return replace(plan, state, n, move.to, args);
    case "reset":
      return reset(plan, state, n, move, args);
    case "return":
      return returnTo(plan, state, n, move, args);
    case "open":
      return open(plan, state, n, move, args);
    case "close": {
      const at = move.modal === undefined ? n - 1 : state.layers.findIndex((layer) => layer.at === move.modal);
      return at < 0 ? nothingToDo : moved(withLayers(state, at));
    }
    case "select":
      return tidied(state, n, move, (from) => selectTo(plan, from, state, move));
    case "menu":
      return menu(plan, state, n, move);
    case "back":
      return goBack(plan, state, n);
    case "up":
      return goUp(plan, state, n);
    case "leave":
      return { is: "left" };
    case "proceed":
      return nothingToDo;
  }
}

interface Target {
  state: State;
  branch: number;
  depth: number;
  stack: Stack;
}

function targetStack(plan: Plan, state: State, n: number, within: string | undefined): Target | "no-stack" | "not-showing" {
  if (within === undefined || within === "beneath") {
    const on = within === "beneath" && n > 0 ? n - 1 : n;
    const found = nearestStack(state, on);
    return found ? { state: on < n ? withLayers(state, on) : state, branch: on, ...found } : "no-stack";
  }
  const found = activate(plan, state, within);
  return found ? { ...found, stack: path(branch(found.state, found.branch))[found.depth] as Stack } : "not-showing";
}

function fill(target: Target, items: readonly Node[]): State {
  return update(target.state, target.branch, target.depth, { ...target.stack, items });
}

/** Whether a place, or a container in it, already stands around where it would go. */
function insideItself(plan: Plan, id: string, around: readonly Node[]): boolean {
  if (containerOf(plan, id) === undefined) return false;
  const within = tree(plan, id);
  return around.some((node) => node.kind !== "shown" && within.has(node.at));
}
const around = (target: Target) => path(branch(target.state, target.branch)).slice(0, target.depth + 1);

function push(plan: Plan, state: State, n: number, move: Extract<Move, { kind: "push" }>, args: Args, passes: boolean): Change {
  const target = targetStack(plan, state, n, move.in);
  if (typeof target === "string") return refused(target);
  const { items } = target.stack;
  const made = make(plan, move.to, args);
  const last = items.at(-1) as Node;
  if (move.repeat === "stay" && last.at === move.to && shownIn(last).at === shownIn(made).at && same(shownIn(last).args, shownIn(made).args))
    return nothingToDo;
  const at = move.repeat === "rewind" ? items.findLastIndex((item) => item.at === move.to) : -1;
  if (at >= 0) {
    const kept = items[at] as Node;
    const next = fill(target, [...items.slice(0, at), passes ? withArguments(plan, kept, args) : kept]);
    return kept === last && !passes && line(plan, state) === line(plan, next) ? nothingToDo : moved(next);
  }
  return insideItself(plan, move.to, around(target)) ? refused("inside-itself") : moved(fill(target, [...items, made]));
}

function withArguments(plan: Plan, node: Node, args: Args): Node {
  const nodes = path(node);
  const screen = shownIn(node);
  return replaceOn(nodes, nodes.length - 1, { ...screen, args: ownArguments(plan, screen.at, args) });
}

function replace(plan: Plan, state: State, n: number, to: string, args: Args): Change {
  const nodes = path(branch(state, n));
  if (insideItself(plan, to, nodes.slice(0, -1))) return refused("inside-itself");
  return moved(update(state, n, nodes.length - 1, make(plan, to, args)));
}

function reset(plan: Plan, state: State, n: number, move: Extract<Move, { kind: "reset" }>, args: Args): Change {
  const target = targetStack(plan, state, n, move.in);
  if (target === "no-stack" && (move.in === undefined || n === 0)) return replace(plan, state, n, move.to, args);
  if (typeof target === "string") return refused(target);
  return insideItself(plan, move.to, around(target)) ? refused("inside-itself") : moved(fill(target, [make(plan, move.to, args)]));
}

function returnTo(plan: Plan, state: State, n: number, move: Extract<Move, { kind: "return" }>, args: Args): Change {
  if (current(state, n).at === move.to) return nothingToDo;
  const nodes = path(branch(state, n));
  for (let depth = nodes.length - 1; depth >= 0; depth--) {
    const node = nodes[depth] as Node;
    if (node.kind !== "stack") continue;
    const at = node.items.slice(0, -1).findLastIndex((item) => shownIn(item).at === move.to);
    if (at >= 0) return moved(update(state, n, depth, { ...node, items: node.items.slice(0, at + 1) }));
  }
  if (move.orElse === "nothing") return nothingToDo;
  return move.orElse === "replace" ? replace(plan, state, n, move.to, args) : push(plan, state, n, { kind: "push", to: move.to }, args, false);
}

function open(plan: Plan, state: State, n: number, move: Extract<Move, { kind: "open" }>, args: Args): Change {
  const before = withDrawersClosed(state, n);
  const already = state.layers.findIndex((layer) => layer.at === move.to);
  if (already >= 0) return already === state.layers.length - 1 ? nothingToDo : moved(withLayers(before, already + 1));
  const rest = move.instead ? before.layers.slice(0, -1) : before.layers;
  return moved({ ...before, layers: [...rest, { at: move.to, content: make(plan, move.show ?? containerOf(plan, move.to)?.start ?? "", args) }] });
}

/** The open drawers on a branch's path closed. */
export function withDrawersClosed(state: State, n: number): State {
  let out = state;
  path(branch(state, n)).forEach((node, depth) => {
    if (node.kind === "drawer" && node.open) out = update(out, n, depth, closed(path(branch(out, n))[depth] ?? node));
  });
  return out;
}

function selectTo(plan: Plan, state: State, before: State, move: Extract<Move, { kind: "select" }>): Change {
  const found = activate(plan, state, ownerOf(plan, move.to) ?? "");
  const node = found && path(branch(found.state, found.branch))[found.depth];
  if (!found || (node?.kind !== "tabs" && node?.kind !== "drawer")) return refused("not-showing");
  const next = update(found.state, found.branch, found.depth, select(plan, node, move.to, move.fresh));
  return !move.fresh && line(plan, before) === line(plan, next) ? nothingToDo : moved(next);
}

function menu(plan: Plan, state: State, n: number, move: Extract<Move, { kind: "menu" }>): Change {
  const nodes = path(branch(state, n));
  const depth = move.drawer === undefined ? nearest(state, n, "drawer") : nodes.findIndex((node) => node.kind === "drawer" && node.at === move.drawer);
  const node = nodes[depth];
  if (node?.kind !== "drawer" || isPinned(plan, node.at, state.width)) return nothingToDo;
  const opens = move.action === "open" || (move.action !== "close" && !node.open);
  return opens === node.open ? nothingToDo : moved(update(state, n, depth, { ...node, open: opens }));
}

/** Up on a branch: in a layer one back, on the page to the up target. */
export function goUp(plan: Plan, state: State, n: number): Change {
  const found = nearestStack(state, n);
  const pop = (s: { stack: Stack; depth: number }) => update(state, n, s.depth, { ...s.stack, items: s.stack.items.slice(0, -1) });
  const canPop = found !== undefined && found.stack.items.length > 1;
  if (n > 0) return canPop ? moved(pop(found)) : nothingToDo;
  const source = current(state, n);
  const target = upTarget(plan, source.at);
  if (target === undefined) return nothingToDo;
  const matches = (item: Node) => item.at === target || (screenOf(plan, target) !== undefined && shownIn(item).at === target);
  const beneath = found ? found.stack.items.slice(0, -1).findLastIndex(matches) : -1;
  if (found && beneath >= 0) return moved(update(state, n, found.depth, { ...found.stack, items: found.stack.items.slice(0, beneath + 1) }));
  if (plan.places[target] === undefined) return refused("no-place");
  const owner = ownerOf(plan, target);
  const up = owner === undefined || containerOf(plan, owner)?.kind === "modal" ? undefined : activate(plan, canPop ? pop(found) : state, owner);
  const node = up && path(branch(up.state, up.branch))[up.depth];
  if (!up || !node || node.kind === "shown") return rebuild(plan, state, target, source.args);
  if (node.kind !== "stack") return moved(update(up.state, up.branch, up.depth, select(plan, node, target)));
  const at = node.items.findLastIndex(matches);
  const items = at >= 0 ? node.items.slice(0, at + 1) : trail(plan, target, source.args);
  return moved(update(up.state, up.branch, up.depth, { ...node, items }));
}

/** Tidies the stack that is left before a push into another one, or a select, if that can be made. */
function tidied(state: State, n: number, move: Extract<Move, { kind: "push" | "select" }>, make: (from: State) => Change): Change {
  const untidied = make(state);
  const named = move.kind === "select" || (move.in !== undefined && move.in !== "beneath");
  const found = nearestStack(state, n);
  if (!move.tidy || !named || untidied.is === "refused" || !found || found.stack.items.length < 2) return untidied;
  const items = move.tidy === "source" ? found.stack.items.slice(0, -1) : found.stack.items.slice(0, 1);
  return make(update(state, n, found.depth, { ...found.stack, items }));
}
