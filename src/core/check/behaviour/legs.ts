import { lookup, nameOf } from "../../model/lookup.ts";
import { once } from "../../model/once.ts";
import type { Project } from "../../model/schema.ts";
import type { Edge, Exploration } from "../system/exploration.ts";
import { isRest, contextOf } from "../system/hiding.ts";
import { type Candidate, type Graph, note, oncePlaces, type Place, shownAfter } from "../graph.ts";

const REPORTED = ["no-stack", "not-showing", "no-place", "inside-itself"];

/** Legs that in some state fire and can not do what they say. */
export function refusedMove(graph: Graph): Candidate[] {
  const found = new Map<string, Candidate>();
  for (const { edge, at } of allEdges(graph, ({ refusals }) => refusals.length > 0))
    for (const { leg, why } of edge.refusals) if (REPORTED.includes(why)) note(found, [leg], at, () => refusalText(graph.project, leg, why));
  return [...found.values()];
}

function refusalText(project: Project, legId: string, why: string): string {
  const leg = lookup(project).legs.get(legId);
  const from = `"${nameOf(project, leg?.from ?? "")}"`;
  const to = leg?.move && "to" in leg.move ? `"${nameOf(project, leg.move.to)}"` : "its target";
  switch (why) {
    case "no-stack":
      return `The leg from ${from} to ${to} fails: it goes on top, but there is no stack around it to go onto.`;
    case "not-showing":
      return `The leg from ${from} to ${to} fails: the container that it needs is not on screen at that moment.`;
    case "inside-itself":
      return `The leg from ${from} to ${to} fails: it would put a container inside itself.`;
    default:
      return `The leg from ${from} fails: it names a place that is not there or is of the wrong kind.`;
  }
}

/** Pushes that put a second copy of a place, not marked as one that may repeat, into the same stack. */
export function piledCopies(graph: Graph): Candidate[] {
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

/** Arrive legs that lead round without end; the subject is the loop's first leg in document order. */
export function redirectLoop(graph: Graph): Candidate[] {
  const { project, name } = graph;
  const found = new Map<string, Candidate>();
  for (const { edge, at } of allEdges(graph, ({ why }) => why === "redirect-loop")) {
    const round = new Set(edge.fired.slice(-16));
    const first = project.legs.find((leg) => round.has(leg.id));
    if (first) note(found, [first.id], at, () => `Arriving on ${name(first.from)} leads round without end: its arrive leg comes back to where it started.`);
  }
  return [...found.values()];
}

/** Back, the lead, a tab or a drawer's member that leads from a hub to what was to be gone through once. */
export function returnsToFinished(graph: Graph): Candidate[] {
  const { nodes, hubs, project, name } = graph;
  const found = new Map<string, Candidate>();
  const places = new Map(project.screens.map(({ id }) => [id, oncePlaces(project, id)]));
  if ([...places.values()].every((list) => list.length === 0)) return [];
  nodes.forEach((node, i) => {
    if (!hubs.has(node.screen)) return;
    const own = new Set(places.get(node.screen));
    for (const edge of node.edges) {
      if (edge.outcome !== "moved" || !["back", "lead", "tab", "pick"].includes(edge.event?.do ?? "")) continue;
      for (const to of shownAfter(nodes, edge)) {
        const once = places.get(to.screen)?.find((id) => !own.has(id));
        if (once !== undefined)
          note(
            found,
            [once],
            { node: i, edge },
            () => `${wayText(edge)} leads from ${name(node.screen)} back to ${name(once)}, which was to be gone through once.`,
          );
      }
    }
  });
  return [...found.values()];
}

function wayText(edge: Edge): string {
  switch (edge.event?.do) {
    case "lead":
      return "The control at the start of the bar";
    case "tab":
      return "A tab";
    case "pick":
      return "A drawer's member";
    default:
      return "Back";
  }
}

/** The steps of the search of one kind, each with the state that it starts from; a launch is shown by launching again. */
function allEdges({ nodes, exploration }: Graph, which: (edge: Edge) => boolean): Array<{ edge: Edge; at: Place }> {
  const launches = exploration.launches.filter(which).map((edge) => ({ edge, at: { node: 0, edge: { ...edge, event: { do: "launch" as const } } } }));
  return [...launches, ...nodes.flatMap(({ edges }, node) => edges.filter(which).map((edge) => ({ edge, at: { node, edge } })))];
}
