/** What may ever come to be inside a container is told from the moves alone, without a search. */

import { once } from "../../model/once.ts";
import type { Operation, Program, Template } from "../../plan/data.ts";
import type { Plan } from "../../plan/plan.ts";
import type { Node } from "../../semantics/types.ts";

/**
 * The items of stacks that a container may ever be inside of, or be itself: those in whose tree it is, and those where some move could put it.
 * No others need to be looked into when it is searched for. Ways in from outside start the app over here, and put nothing on top.
 */
export function mayBeIn(plan: Plan, container: string): ReadonlySet<string> {
  const known = once(plan, noAnswers);
  const { items } = once(plan, putsByPlace);
  const made = known.get(container) ?? new Set([...plan.containers.keys()].filter((id) => items.has(id) && placesIn(plan, id).has(container)));
  known.set(container, made);
  return made;
}

/** Where a stack is cut that a container is searched for in: its topmost item that the container may be, or be inside of. */
export function cutTo(plan: Plan, container: string): { key: string; stop: (item: Node) => boolean } {
  const around = mayBeIn(plan, container);
  const [only, ...others] = around;
  const key = only !== undefined && others.length === 0 ? `is ${only}` : `container ${[...around].join(",")}`;
  return { key, stop: (item) => item.kind !== "shown" && around.has(item.at) };
}

const noAnswers = (_: Plan) => new Map<string, ReadonlySet<string>>();

/** All places that may ever be in a container: those of its tree, and what moves from there, or into a stack there, bring in. */
function placesIn(plan: Plan, container: string): ReadonlySet<string> {
  const known = once(plan, noPlaces);
  const made = known.get(container) ?? new Inside(plan, container).places;
  known.set(container, made);
  return made;
}

const noPlaces = (_: Plan) => new Map<string, ReadonlySet<string>>();

/** What one move puts somewhere: on the stack named, on that of whatever lies beneath its layer, or around its source; with or without a stack there. */
interface Put {
  places: readonly string[];
  /** Those of the places that come to be items of stacks. */
  items: readonly string[];
  into?: string;
  beneath: boolean;
  needsStack: boolean;
}

class Inside {
  readonly places = new Set<string>();
  private hasStack = false;

  constructor(
    private readonly plan: Plan,
    container: string,
  ) {
    this.add(container);
    const { everywhere, from, into } = once(plan, putsByPlace);
    for (let size = -1; size < this.places.size; ) {
      size = this.places.size;
      // What can be used in any container may be used in this one.
      for (const put of everywhere) this.take(put);
      for (const place of [...this.places]) {
        for (const put of from.get(place) ?? []) this.take(put);
        for (const put of into.get(place) ?? []) for (const one of put.places) this.add(one);
      }
    }
  }

  private take({ places, into, needsStack }: Put) {
    if (into === undefined && (this.hasStack || !needsStack)) for (const place of places) this.add(place);
  }

  private add(place: string) {
    if (this.places.has(place)) return;
    this.places.add(place);
    const container = this.plan.containers.get(place);
    if (container?.kind === "stack") this.hasStack = true;
    for (const member of [...(container?.members ?? []), ...(container ? [container.start] : [])]) this.add(member);
  }
}

/** What moves put somewhere, by the place that they start from and the stack that they name, and all that may lie in some stack. */
function putsByPlace(plan: Plan) {
  const items = new Set([...plan.containers.values()].flatMap(({ kind, members, start }) => (kind === "stack" ? [...members, start] : [])));
  const everywhere: Put[] = [];
  const from = new Map<string, Put[]>();
  const into = new Map<string, Put[]>();
  const note = (place: string, program: Program | undefined) => {
    for (const put of program ? putsOf(program) : []) {
      for (const one of put.items) items.add(one);
      if (put.into !== undefined) into.set(put.into, [...(into.get(put.into) ?? []), put]);
      else if (put.beneath || plan.containers.has(place)) everywhere.push(put);
      else from.set(place, [...(from.get(place) ?? []), put]);
    }
  };
  for (const { from: place, move } of plan.legs.values()) note(place, move);
  for (const [place, { up }] of plan.screens) note(place, up);
  return { everywhere, from, into, items };
}

function putsOf(program: readonly Operation[]): Put[] {
  const out: Put[] = [];
  let into: string | undefined;
  let beneath = false;
  for (const operation of program) {
    if (operation.op === "bring") into = operation.up;
    if (operation.op === "stack" && operation.of === "beneath") beneath = true;
    if ((operation.op === "bring" || operation.op === "stack") && operation.otherwise) out.push(...putsOf(operation.otherwise));
    if (operation.op === "push" || operation.op === "fill" || operation.op === "replace") {
      const made = operation.op === "fill" ? operation.make : [operation.make];
      out.push({
        places: made.flatMap(placesOf),
        items: made.flatMap(itemsOf),
        ...(into === undefined ? {} : { into }),
        beneath,
        needsStack: operation.op !== "replace",
      });
    }
  }
  return out;
}

/** The place itself, and the items of the stacks that are made with it. */
function itemsOf(template: Template): string[] {
  if (typeof template === "string") return [template];
  if ("stack" in template) return [template.stack, ...template.items.flatMap(itemsOf)];
  return [template.lanes, ...itemsOf(template.shows).slice(1)];
}

function placesOf(template: Template): string[] {
  if (typeof template === "string") return [template];
  if ("stack" in template) return [template.stack, ...template.items.flatMap(placesOf)];
  return [template.lanes, template.active, ...placesOf(template.shows)];
}
