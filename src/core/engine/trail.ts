import { lookup, modalOf } from "../model/lookup.ts";
import type { Container, Project } from "../model/schema.ts";
import { upTarget } from "./bar.ts";
import { make } from "./make.ts";
import { type Args, type Change, moved, type Node, refused, type State } from "./state.ts";

/**
 * Trail(screen, args): the screen, before it its up target, and so on as long as they
 * have the same owner; arguments by name. An up target met again ends it.
 */
export function trail(project: Project, placeId: string, args: Args): Node[] {
  const { owners, places } = lookup(project);
  const owner = owners.get(placeId);
  const ids = [placeId];
  for (let up = upTarget(project, placeId); up !== undefined; up = upTarget(project, up)) {
    if (ids.includes(up) || !places.has(up) || owners.get(up) !== owner) break;
    ids.unshift(up);
  }
  return ids.map((id) => make(project, id, args));
}

/**
 * A rebuild to a place: the base becomes the containers from the root to it, each stack with
 * the one child on the way, the owning stack with the trail; layers go. A place in a modal's
 * tree opens that modal over Make(root).
 */
export function rebuild(project: Project, state: State, placeId: string, args: Args): Change {
  const place = lookup(project).places.get(placeId);
  if (!place) return refused("no-place");
  const chain = ownerChain(project, placeId);
  const outermost = chain[0];
  if (modalOf(project, placeId)) return moved(overRoot(project, state, placeId, make(project, modalOf(project, placeId)?.start ?? "", args)));
  if (outermost?.kind === "modal") return moved(overRoot(project, state, outermost.id, build(project, chain.slice(1), placeId, args)));
  return moved({ ...state, base: build(project, chain, placeId, args), layers: [] });
}

function overRoot(project: Project, state: State, modal: string, content: Node): State {
  return { ...state, base: make(project, project.root), layers: [{ at: modal, content }] };
}

/** The containers that own a place, outermost first; ends at a modal. */
function ownerChain(project: Project, placeId: string): Container[] {
  const { owners } = lookup(project);
  const chain: Container[] = [];
  for (let owner = owners.get(placeId); owner && !chain.includes(owner); owner = owners.get(owner.id)) {
    chain.unshift(owner);
    if (owner.kind === "modal" || owner.id === project.root) break;
  }
  return chain;
}

function build(project: Project, chain: readonly Container[], placeId: string, args: Args): Node {
  const [container, ...rest] = chain;
  if (!container) return make(project, placeId, args);
  const child = rest[0]?.id ?? placeId;
  switch (container.kind) {
    case "stack":
      return { kind: "stack", at: container.id, items: rest.length > 0 ? [build(project, rest, placeId, args)] : trail(project, placeId, args) };
    case "tabs":
      return { kind: "tabs", at: container.id, active: child, lanes: { [child]: build(project, rest, placeId, args) }, visited: [child] };
    case "drawer":
      return { kind: "drawer", at: container.id, active: child, lanes: { [child]: build(project, rest, placeId, args) }, visited: [child], open: false };
    case "modal":
      return build(project, rest, placeId, args);
  }
}
