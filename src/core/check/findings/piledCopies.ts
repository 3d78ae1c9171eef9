import { changeLeg } from "../../model/edits/change.ts";
import { lookup } from "../../model/lookup.ts";
import { once } from "../../model/once.ts";
import { planOf } from "../../plan/planOf.ts";
import { named } from "../fixes/home.ts";
import { type Candidate, type Graph, note } from "../reach/graph.ts";
import { add } from "../system/contents.ts";
import type { Exploration } from "../system/exploration.ts";
import { contextOf, isRest } from "../system/hiding.ts";
import { beneathOf } from "../system/precision.ts";
import { liesOnlyAbove } from "../system/stackOrder.ts";
import type { FindingKind } from "./kind.ts";
import { allEdges } from "./parts.ts";

export const piledCopies: FindingKind = {
  code: "piled-copies",
  severity: "warning",
  says: "a push puts a second copy of a place into the same stack",
  help: "People go forward to what they have come from, and Back then leads them through all of it again. Go back to the first copy (rewind), or mark the screen as one that may repeat.",
  subjects: "the leg and the place",
  inSearch: find,
  shows: ({ subjects }, { result }) => result.log.copied.some(({ leg, place }) => leg === subjects[0] && place === subjects[1]),
  // A place that is pushed from one screen alone, which is gone back to where it is in the stack, lies there only with that.
  rests: (project, [id = ""]) => [beneathOf(lookup(project).legs.get(id)?.from ?? "")],
  beneath: ([, place]) => place,
  fixes: (project, [id = ""]) => {
    const leg = lookup(project).legs.get(id);
    if (leg?.move?.kind !== "push") return [];
    return [named("Go back to the first copy instead of adding another", changeLeg(project, leg, { move: { ...leg.move, repeat: "rewind" } }))];
  },
};

/** Pushes that put a second copy of a place, not marked as one that may repeat, into the same stack. */
function find(graph: Graph): Candidate[] {
  const { project, name } = graph;
  const found = new Map<string, Candidate>();
  for (const { edge, at } of allEdges(graph, ({ copies }) => copies.length > 0))
    for (const { leg, place, beneath } of edge.copies) {
      if (lookup(project).screens.get(place)?.mayRepeat) continue;
      if (liesOnlyAbove(planOf(project), place, lookup(project).legs.get(leg)?.from ?? "")) continue;
      if (beneath.length > 0 && !beneath.some((context) => placesBeneath(graph.exploration, context).has(place))) continue;
      const from = name(lookup(project).legs.get(leg)?.from ?? "");
      note(found, [leg, place], at, () => `The leg from ${from} puts a second copy of ${name(place)} on the stack instead of going back to the first.`);
    }
  return [...found.values()];
}

/** The places that may be in a stack somewhere beneath what shows, by the context that lies there. */
function placesBeneath({ contexts }: Exploration, context: string): { has(place: string): boolean } {
  const { numbers, bits } = once(contexts, placesByContext);
  const within = bits.get(context);
  return {
    has: (place) => {
      const number = numbers.get(place);
      return number !== undefined && within !== undefined && ((within[number >> 5] as number) & (1 << (number & 31))) !== 0;
    },
  };
}

/** By context the places that lie in it or beneath it, as bits by their numbers: the least solution, as each context has all that those have which its contents rest on. */
function placesByContext(contexts: Exploration["contexts"]) {
  const numbers = new Map<string, number>();
  const own = new Map<string, Set<number>>();
  const above = new Map<string, Set<string>>();
  for (const [context, contents] of contexts) {
    const places = new Set<number>();
    for (const content of contents)
      for (const item of content.kind === "stack" ? content.items : []) {
        if (isRest(item)) add(above, contextOf(item), context);
        else {
          const number = numbers.get(item.at) ?? numbers.size;
          numbers.set(item.at, number);
          places.add(number);
        }
      }
    own.set(context, places);
  }
  const bits = new Map<string, Int32Array>();
  for (const [context, places] of own) {
    const within = new Int32Array((numbers.size >> 5) + 1);
    for (const number of places) within[number >> 5] = (within[number >> 5] as number) | (1 << (number & 31));
    bits.set(context, within);
  }
  const gained = new Set(own.keys());
  for (const context of gained) {
    gained.delete(context);
    const from = bits.get(context) as Int32Array;
    for (const on of above.get(context) ?? []) if (takeAll(bits.get(on) as Int32Array, from)) gained.add(on);
  }
  return { numbers, bits };
}

/** Adds bits to others; whether there were new ones. */
function takeAll(to: Int32Array, from: Int32Array): boolean {
  let isMore = false;
  for (let i = 0; i < to.length; i++) {
    const all = (to[i] as number) | (from[i] as number);
    if (all === to[i]) continue;
    to[i] = all;
    isMore = true;
  }
  return isMore;
}
