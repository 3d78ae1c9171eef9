import type { Args, Json, Plan } from "./plan.ts";
import { type Change, containerOf, moved, type Node, ownerOf, refused, type State, screenOf } from "./state.ts";

/** A place as it is first shown; the arguments go to the screen that shows. */
export function make(plan: Plan, id: string, args: Args = {}, around: readonly string[] = []): Node {
  const place = plan.places[id];
  if (place === undefined || place.kind === "modal" || around.includes(id)) return { kind: "shown", at: id, args: {} };
  if (place.kind === "screen") return { kind: "shown", at: id, args: ownArguments(plan, id, args) };
  const start = make(plan, place.start, args, [...around, id]);
  if (place.kind === "stack") return { kind: "stack", at: id, items: [start] };
  return { kind: place.kind, at: id, active: place.start, lanes: { [place.start]: start }, visited: [place.start], open: false };
}

/** The arguments that a screen declares, defaults filled in. */
export function ownArguments(plan: Plan, id: string, args: Args): Args {
  const own: Record<string, Json> = {};
  for (const param of screenOf(plan, id)?.params ?? []) {
    const value = Object.hasOwn(args, param.name) ? args[param.name] : param.default;
    if (value !== undefined) own[param.name] = value;
  }
  return own;
}

/** The screen that a place shows first. */
export function firstScreen(plan: Plan, id: string, seen: readonly string[] = []): string | undefined {
  const place = plan.places[id];
  if (place === undefined || seen.includes(id)) return undefined;
  return place.kind === "screen" ? id : firstScreen(plan, place.start, [...seen, id]);
}

/** A place and everything in it. */
export function tree(plan: Plan, id: string, seen: Set<string> = new Set()): Set<string> {
  if (seen.has(id)) return seen;
  seen.add(id);
  for (const member of containerOf(plan, id)?.members ?? []) tree(plan, member, seen);
  return seen;
}

/** Where Up leads to from a screen. */
export function upTarget(plan: Plan, id: string): string | undefined {
  const up = screenOf(plan, id)?.up ?? "none";
  if (up === "none") return undefined;
  if (up !== "auto") return up;
  const owner = containerOf(plan, ownerOf(plan, id) ?? "");
  return owner?.kind === "stack" && owner.start !== id ? owner.start : undefined;
}

/** A screen with what Up leads to beneath it, as far as one container owns them all. */
export function trail(plan: Plan, id: string, args: Args): Node[] {
  const ids = [id];
  for (let up = upTarget(plan, id); up !== undefined; up = upTarget(plan, up)) {
    if (ids.includes(up) || plan.places[up] === undefined || ownerOf(plan, up) !== ownerOf(plan, id)) break;
    ids.unshift(up);
  }
  return ids.map((at) => make(plan, at, args));
}

/** The page made anew around a place: the containers from the root to it, the trail beneath it; layers go. */
export function rebuild(plan: Plan, state: State, id: string, args: Args): Change {
  const place = plan.places[id];
  if (place === undefined) return refused("no-place");
  const owners: string[] = [];
  for (let owner = ownerOf(plan, id); owner !== undefined && !owners.includes(owner); owner = ownerOf(plan, owner)) {
    owners.unshift(owner);
    if (containerOf(plan, owner)?.kind === "modal" || owner === plan.root) break;
  }
  const over = (modal: string, content: Node): Change => moved({ ...state, base: make(plan, plan.root), layers: [{ at: modal, content }] });
  if (place.kind === "modal") return over(id, make(plan, place.start, args));
  const outermost = owners[0];
  if (outermost !== undefined && containerOf(plan, outermost)?.kind === "modal") return over(outermost, build(plan, owners.slice(1), id, args));
  return moved({ ...state, base: build(plan, owners, id, args), layers: [] });
}

function build(plan: Plan, owners: readonly string[], id: string, args: Args): Node {
  const [at, ...rest] = owners;
  if (at === undefined) return make(plan, id, args);
  const kind = containerOf(plan, at)?.kind;
  const inner = rest[0] ?? id;
  if (kind === "stack") return { kind, at, items: rest.length > 0 ? [build(plan, rest, id, args)] : trail(plan, id, args) };
  if (kind === "tabs" || kind === "drawer") return { kind, at, active: inner, lanes: { [inner]: build(plan, rest, id, args) }, visited: [inner], open: false };
  return build(plan, rest, id, args);
}
