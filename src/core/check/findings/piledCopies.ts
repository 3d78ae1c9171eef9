import { changeLeg } from "../../model/edits/change.ts";
import { lookup } from "../../model/lookup.ts";
import { once } from "../../model/once.ts";
import { planOf } from "../../plan/planOf.ts";
import { named } from "../fixes/home.ts";
import { type Candidate, type Graph, note } from "../reach/graph.ts";
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
function placesBeneath({ contexts }: Exploration, context: string): ReadonlySet<string> {
  const { own, all } = once(contexts, indexed);
  const made = all.get(context);
  if (made) return made;
  const places = new Set<string>();
  const seen = new Set([context]);
  for (const one of seen) {
    for (const place of own.get(one)?.places ?? []) places.add(place);
    for (const beneath of own.get(one)?.beneath ?? []) seen.add(beneath);
  }
  all.set(context, places);
  return places;
}

/** By context the places that its contents name and the contexts that these rest on; and what was asked before. */
function indexed(contexts: Exploration["contexts"]) {
  const own = new Map<string, { places: Set<string>; beneath: Set<string> }>();
  for (const [context, contents] of contexts) {
    const items = contents.flatMap((content) => (content.kind === "stack" ? content.items : []));
    own.set(context, {
      places: new Set(items.filter((item) => !isRest(item)).map(({ at }) => at)),
      beneath: new Set(items.filter(isRest).map(contextOf)),
    });
  }
  return { own, all: new Map<string, ReadonlySet<string>>() };
}
