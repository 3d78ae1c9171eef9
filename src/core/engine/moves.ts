import { drawerOf, lookup, modalOf, stackOf } from "../model/lookup.ts";
import type { Move, Project } from "../model/schema.ts";
import { activate, insideItself, withBranchKnown } from "./activate.ts";
import { goBack } from "./back.ts";
import { isPinned } from "./bar.ts";
import { compiled } from "./compiled.ts";
import { resumeHeld } from "./held.ts";
import { cutAt, lowest, withTopKnown } from "./items.ts";
import { selectLane, withDrawersClosed } from "./lanes.ts";
import { sameLine } from "./line.ts";
import { make, ownArguments } from "./make.ts";
import {
  type Args,
  branchNode,
  type Change,
  currentScreen,
  isDrawer,
  left,
  moved,
  type Node,
  nearest,
  nearestStack,
  nothingToDo,
  refused,
  replaceOnPath,
  type Shown,
  type StackNode,
  type State,
  shownIn,
  updateBranch,
  visiblePath,
  withLayers,
} from "./state.ts";
import { goUp, pop, withItems } from "./up.ts";

/** Makes a move from a branch with arguments already worked out. The state given is not changed. */
export function makeMove(project: Project, state: State, branch: number, move: Move, args: Args): Change {
  if (!placesExist(project, move)) return refused("no-place");
  switch (move.kind) {
    case "push":
      return tidied(project, state, branch, move, (from) => push(project, from, state, branch, move, args));
    case "replace":
      return replace(project, state, branch, move.to, args);
    case "reset":
      return reset(project, state, branch, move, args);
    case "return":
      return returnTo(project, state, branch, move, args);
    case "open":
      return open(project, state, branch, move, args);
    case "close":
      return close(state, branch, move.modal);
    case "select":
      return tidied(project, state, branch, move, (from) => select(project, from, state, move));
    case "menu":
      return menu(project, state, branch, move);
    case "back":
      return goBack(project, state, branch);
    case "up":
      return goUp(project, state, branch);
    case "proceed":
      return resumeHeld(project, state);
    case "leave":
      return left;
  }
}

/** Whether all places that a move names exist and are of the kind that it needs. */
export function placesExist(project: Project, move: Move): boolean {
  const { places, screens, owners } = lookup(project);
  const showable = (id: string) => places.has(id) && !modalOf(project, id);
  const within = (id: string | undefined) => id === undefined || id === "beneath" || stackOf(project, id) !== undefined;
  switch (move.kind) {
    case "push":
    case "reset":
      return showable(move.to) && within(move.in);
    case "replace":
      return showable(move.to);
    case "return":
      return screens.has(move.to);
    case "open":
      return modalOf(project, move.to) !== undefined && (move.show === undefined || showable(move.show));
    case "close":
      return move.modal === undefined || modalOf(project, move.modal) !== undefined;
    case "select": {
      const owner = owners.get(move.to);
      return places.has(move.to) && (owner?.kind === "tabs" || owner?.kind === "drawer");
    }
    case "menu":
      return move.drawer === undefined || drawerOf(project, move.drawer) !== undefined;
    case "back":
    case "up":
    case "proceed":
    case "leave":
      return true;
  }
}

/** A stack to fill, in the state in which it has been brought up. */
interface Target {
  state: State;
  branch: number;
  depth: number;
  stack: StackNode;
}

function targetStack(project: Project, state: State, branch: number, within: string | undefined): Target | "no-stack" | "not-showing" {
  const on = within === "beneath" && branch > 0 ? branch - 1 : branch;
  if (within === undefined || within === "beneath") {
    const from = on < branch ? withLayers(withBranchKnown(project, state, on), on) : state;
    const found = nearestStack(from, on);
    return found ? { state: from, branch: on, ...found } : "no-stack";
  }
  const found = activate(project, state, within);
  if (!found) return "not-showing";
  const stack = visiblePath(branchNode(found.state, found.branch))[found.depth] as StackNode;
  return { ...found, stack };
}

function fill(target: Target, items: readonly Node[]): State {
  return updateBranch(target.state, target.branch, target.depth, { ...target.stack, items });
}

/** The nodes around a slot in a stack: all from the top of the branch to the stack itself. */
function around(target: Target): Node[] {
  return visiblePath(branchNode(target.state, target.branch)).slice(0, target.depth + 1);
}

type Push = Extract<Move, { kind: "push" }>;

function push(project: Project, state: State, before: State, branch: number, move: Push, args: Args): Change {
  const target = targetStack(project, state, branch, move.in);
  if (typeof target === "string") return refused(target);
  const items = move.repeat === "stay" ? withTopKnown(project, target.stack.items) : target.stack.items;
  const made = make(project, move.to, args);
  const top = items[items.length - 1] as Node;
  if (move.repeat === "stay" && top.at === move.to && sameShown(project, shownIn(top), shownIn(made)))
    return sameLine(before, target.state) ? nothingToDo : moved(target.state);
  const known = move.repeat === "rewind" ? cutAt(project, items, (item) => (item.at === move.to ? item : undefined)) : undefined;
  if (known) {
    const kept = known[known.length - 1] as Node;
    const next = fill(target, move.pass ? [...known.slice(0, -1), withArguments(project, kept, args)] : known);
    const added = kept !== top || move.pass !== undefined;
    return !added && sameLine(before, next) ? nothingToDo : moved(next);
  }
  if (insideItself(project, move.to, around(target))) return refused("inside-itself");
  const next = moved(fill(target, [...items, made]));
  const copies = compiled(project).watch && cutAt(project, items, (item) => (item.at === move.to ? item : undefined));
  return copies ? { ...next, copied: move.to } : next;
}

function sameShown(project: Project, a: Shown, b: Shown): boolean {
  return a.at === b.at && compiled(project).sameArguments(a.at, a.args, b.args);
}

/** The node with new arguments for the screen that it shows. */
function withArguments(project: Project, node: Node, args: Args): Node {
  const path = visiblePath(node);
  const screen = shownIn(node);
  const declared = lookup(project).screens.get(screen.at);
  return replaceOnPath(path, path.length - 1, { ...screen, args: declared ? ownArguments(declared, args) : {} });
}

function replace(project: Project, state: State, branch: number, to: string, args: Args): Change {
  const path = visiblePath(branchNode(state, branch));
  if (insideItself(project, to, path.slice(0, -1))) return refused("inside-itself");
  return moved(updateBranch(state, branch, path.length - 1, make(project, to, args)));
}

function reset(project: Project, state: State, branch: number, move: Extract<Move, { kind: "reset" }>, args: Args): Change {
  const target = targetStack(project, state, branch, move.in);
  const without = move.in === undefined || (move.in === "beneath" && branch === 0);
  if (target === "no-stack" && without) return replace(project, state, branch, move.to, args);
  if (typeof target === "string") return refused(target);
  if (insideItself(project, move.to, around(target))) return refused("inside-itself");
  return moved(fill(target, [make(project, move.to, args)]));
}

function returnTo(project: Project, state: State, branch: number, move: Extract<Move, { kind: "return" }>, args: Args): Change {
  if (currentScreen(state, branch).at === move.to) return nothingToDo;
  const path = visiblePath(branchNode(state, branch));
  for (let depth = path.length - 1; depth >= 0; depth--) {
    const node = path[depth] as Node;
    if (node.kind !== "stack") continue;
    const cut = cutAt(project, node.items.slice(0, -1), (item) => (shownIn(item).at === move.to ? item : undefined));
    if (cut) return moved(updateBranch(state, branch, depth, { ...node, items: cut }));
  }
  switch (move.orElse ?? "push") {
    case "push":
      return push(project, state, state, branch, { kind: "push", to: move.to }, args);
    case "replace":
      return replace(project, state, branch, move.to, args);
    case "nothing":
      return nothingToDo;
  }
}

function open(project: Project, state: State, branch: number, move: Extract<Move, { kind: "open" }>, args: Args): Change {
  const before = withDrawersClosed(state, branch);
  const already = state.layers.findIndex((layer) => layer.at === move.to);
  if (already >= 0) return already === state.layers.length - 1 ? nothingToDo : moved(withLayers(before, already + 1));
  const rest = move.instead ? before.layers.slice(0, -1) : before.layers;
  const content = make(project, move.show ?? modalOf(project, move.to)?.start ?? "", args);
  return moved({ ...before, layers: [...rest, { at: move.to, content }] });
}

function close(state: State, branch: number, modal: string | undefined): Change {
  const at = modal === undefined ? branch - 1 : state.layers.findIndex((layer) => layer.at === modal);
  return at < 0 ? nothingToDo : moved(withLayers(state, at));
}

function select(project: Project, state: State, before: State, move: Extract<Move, { kind: "select" }>): Change {
  const owner = lookup(project).owners.get(move.to);
  const found = owner && activate(project, state, owner.id);
  if (!found) return refused("not-showing");
  const node = visiblePath(branchNode(found.state, found.branch))[found.depth] as Node;
  if (node.kind !== "tabs" && node.kind !== "drawer") return refused("not-showing");
  const next = updateBranch(found.state, found.branch, found.depth, selectLane(project, node, move.to, move.fresh));
  return !move.fresh && sameLine(before, next) ? nothingToDo : moved(next);
}

function menu(project: Project, state: State, branch: number, move: Extract<Move, { kind: "menu" }>): Change {
  const path = visiblePath(branchNode(state, branch));
  const depth = move.drawer === undefined ? nearest(path, isDrawer) : path.findIndex((node) => node.kind === "drawer" && node.at === move.drawer);
  const node = path[depth];
  if (node?.kind !== "drawer" || isPinned(drawerOf(project, node.at), state.width)) return nothingToDo;
  const open = move.action === "open" ? true : move.action === "close" ? false : !node.open;
  return open === node.open ? nothingToDo : moved(updateBranch(state, branch, depth, { ...node, open }));
}

/**
 * Tidies the nearest stack around the source before a push into a named stack or a select,
 * if the move can be made: `source` drops its top item, `stack` all but the first.
 */
function tidied(project: Project, state: State, branch: number, move: Extract<Move, { kind: "push" | "select" }>, make: (from: State) => Change): Change {
  const named = move.kind === "select" || (move.in !== undefined && move.in !== "beneath");
  if (!move.tidy || !named) return make(state);
  const untidied = make(state);
  if (untidied.is === "refused") return untidied;
  const found = nearestStack(state, branch);
  if (!found || found.stack.items.length < 2) return untidied;
  return make(move.tidy === "source" ? pop(project, state, branch, found) : withItems(state, branch, found, lowest(project, found.stack.items)));
}
