import { drawerOf, lookup, modalOf, stackOf, upTarget } from "../../model/lookup.ts";
import type { Move, Project } from "../../model/schema.ts";
import type { Operation, Program } from "../data.ts";
import { holdsOf, routeTo, templateOf, trailOf } from "./templates.ts";

/** A move as stack operations. One that names a place that is not there, or of the wrong kind, is refused. */
export function programOf(project: Project, move: Move): Program {
  return placesExist(project, move) ? operationsOf(project, move) : [{ op: "refuse", why: "no-place" }];
}

function operationsOf(project: Project, move: Move): Operation[] {
  switch (move.kind) {
    case "push":
      return [...tidying(move), target(move.in), ...repeated(project, move), push(project, move.to)];
    case "replace":
      return [replace(project, move.to)];
    case "reset": {
      const stack = target(move.in);
      const fill: Operation = { op: "fill", make: [templateOf(project, move.to)], ...holds(project, move.to) };
      return [stack.op === "stack" ? { ...stack, otherwise: [replace(project, move.to)] } : stack, fill];
    }
    case "return":
      return [{ op: "unless", shows: move.to }, { op: "pop", to: move.to, by: "shows", beneath: "outwards" }, ...orElse(project, move)];
    case "open": {
      const shows = move.show ?? modalOf(project, move.to)?.start ?? "";
      return [{ op: "open", modal: move.to, make: templateOf(project, shows), ...(move.instead ? { instead: true } : {}) }];
    }
    case "close":
      return [{ op: "close", ...(move.modal === undefined ? {} : { modal: move.modal }) }];
    case "select": {
      const owner = lookup(project).owners.get(move.to)?.id ?? "";
      return [...tidying(move), { op: "bring", up: owner }, { op: "select", lane: move.to, ...(move.fresh ? { fresh: true } : { quiet: true }) }];
    }
    case "menu": {
      const open = move.action === "open" ? { open: true } : move.action === "close" ? { open: false } : {};
      return [{ op: "menu", ...(move.drawer === undefined ? {} : { drawer: move.drawer }), ...open }];
    }
    case "leave":
      return [{ op: "leave", ...(move.url === undefined ? {} : { url: move.url }) }];
    case "back":
    case "up":
    case "proceed":
      return [{ op: move.kind }];
  }
}

function target(within: string | undefined): Extract<Operation, { op: "stack" | "bring" }> {
  if (within === undefined) return { op: "stack", of: "nearest" };
  return within === "beneath" ? { op: "stack", of: "beneath" } : { op: "bring", up: within };
}

function tidying(move: Extract<Move, { kind: "push" | "select" }>): Operation[] {
  const named = move.kind === "select" || (move.in !== undefined && move.in !== "beneath");
  return named && move.tidy ? [{ op: "tidy", away: move.tidy === "source" ? "one" : "rest" }] : [];
}

function repeated(project: Project, move: Extract<Move, { kind: "push" }>): Operation[] {
  if (move.repeat === "stay") return [{ op: "stay", on: move.to, make: templateOf(project, move.to) }];
  if (move.repeat !== "rewind") return [];
  return [{ op: "pop", to: move.to, by: "is", ...(move.pass ? { pass: true } : { quiet: true }) }];
}

function orElse(project: Project, move: Extract<Move, { kind: "return" }>): Operation[] {
  switch (move.orElse ?? "push") {
    case "push":
      return [target(undefined), push(project, move.to)];
    case "replace":
      return [replace(project, move.to)];
    case "nothing":
      return [];
  }
}

function push(project: Project, to: string): Operation {
  return { op: "push", make: templateOf(project, to), ...holds(project, to) };
}

function replace(project: Project, to: string): Operation {
  return { op: "replace", make: templateOf(project, to), ...holds(project, to) };
}

function holds(project: Project, placeId: string): { holds?: readonly string[] } {
  return lookup(project).containers.has(placeId) ? { holds: holdsOf(project, placeId) } : {};
}

/**
 * Up from a screen on the base: back to its up target beneath it; else the screen goes, and the target's owner is brought up and
 * shows the target; an owner that is nowhere is built. Undefined where the screen has no up target.
 */
export function upProgram(project: Project, screenId: string): Program | undefined {
  const to = upTarget(project, screenId);
  if (to === undefined) return undefined;
  const { places, screens, owners } = lookup(project);
  const by = screens.has(to) ? "shows" : "is";
  const beneath: Operation = { op: "pop", to, by, beneath: "nearest" };
  const route = routeTo(project, to);
  if (!places.has(to) || !route) return [beneath, { op: "refuse", why: "no-place" }];
  const owner = owners.get(to);
  const rebuild: Operation = { op: "rebuild", route };
  if (!owner || owner.kind === "modal") return [beneath, rebuild];
  const shown: Operation[] =
    owner.kind === "stack"
      ? [
          { op: "pop", to, by },
          { op: "fill", make: trailOf(project, to) },
        ]
      : [{ op: "select", lane: to }];
  return [beneath, { op: "drop" }, { op: "bring", up: owner.id, otherwise: [rebuild] }, ...shown];
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
