import { changeLeg } from "../../model/edits/change.ts";
import { lookup } from "../../model/lookup.ts";
import { once } from "../../model/once.ts";
import { named } from "../fixes/home.ts";
import { type Candidate, type Graph, note } from "../reach/graph.ts";
import type { Exploration } from "../system/exploration.ts";
import { contextOf, isRest } from "../system/hiding.ts";
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
      if (beneath.length > 0 && !beneath.some((mark) => placesBeneath(graph.exploration, mark).has(place))) continue;
      const from = name(lookup(project).legs.get(leg)?.from ?? "");
      note(found, [leg, place], at, () => `The leg from ${from} puts a second copy of ${name(place)} on the stack instead of going back to the first.`);
    }
  return [...found.values()];
}

/** The places that may be in a stack somewhere beneath what shows, by the mark of what lies there. */
function placesBeneath(exploration: Exploration, mark: string): ReadonlySet<string> {
  const known = once(exploration.contexts, noPlaces);
  const made = known.get(mark);
  if (made) return made;
  const places = new Set<string>();
  const seen = new Set<string>();
  const visit = (one: string) => {
    if (seen.has(one)) return;
    seen.add(one);
    for (const content of exploration.contexts.get(one) ?? [])
      for (const item of content.kind === "stack" ? content.items : []) {
        if (isRest(item)) visit(contextOf(item));
        else places.add(item.at);
      }
  };
  visit(mark);
  known.set(mark, places);
  return places;
}

const noPlaces = (_: Exploration["contexts"]) => new Map<string, ReadonlySet<string>>();
