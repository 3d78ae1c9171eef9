import { type Located, legExpressions } from "../../model/expressions.ts";
import { elementIdOf, lookup, mustBePassed, nameOf } from "../../model/lookup.ts";
import type { Element, Leg, Param, Project, Screen } from "../../model/schema.ts";
import { type Candidate, type Graph, note, type Place } from "../reach/graph.ts";
import type { Edge } from "../system/exploration.ts";
import type { Found } from "./kind.ts";

/** A place's name in quotes. */
export const quote = (project: Project, id: string) => `"${nameOf(project, id)}"`;

/** Elements that people expect something of when they tap them. */
export const ANSWERING = ["button", "icon", "link", "list", "pager"];

/** Parameters that have to be passed. */
export const needed = (screen: Screen): Param[] => screen.params.filter(mustBePassed);

/** What is found on the elements of each place. */
export function withElements(project: Project, find: (placeId: string, elements: Element[]) => Found[]): Found[] {
  return [...project.containers, ...project.screens].flatMap((place) => find(place.id, place.elements ?? []));
}

/** Which neighbours a leg uses outside of its condition. */
export function usesNeighbour(project: Project, leg: Leg): ReadonlySet<string> {
  const expressions = legExpressions(project, leg);
  if (expressions.length === 0) return NONE;
  const reads = expressions.flatMap((e) => (e.role !== "when" && e.compiled.ok ? e.compiled.reads : []));
  return new Set(reads.map((r) => r.name).filter((name) => name === "next" || name === "prev"));
}

const NONE: ReadonlySet<string> = new Set();

/** The fields of one bag, such as `param`, that expressions read. */
export function readNames(expressions: Located[], bag: string): string[] {
  return expressions.flatMap((e) => (e.compiled.ok ? e.compiled.reads.flatMap((r) => (r.name === bag && r.field !== undefined ? [r.field] : [])) : []));
}

/** States from which new starts are given that many states share: the nearest come first, and a walk to one of them is enough. */
const STARTED_FROM = 24;

/** The steps of the search of one kind, each with the state that it starts from; a launch is shown by launching again. */
export function allEdges({ nodes, exploration }: Graph, which: (edge: Edge) => boolean): Array<{ edge: Edge; at: Place }> {
  const out = exploration.launches
    .filter(which)
    .map((edge): { edge: Edge; at: Place } => ({ edge, at: { node: 0, edge: { ...edge, event: { do: "launch" } } } }));
  const add = (edges: readonly Edge[], node: number) => {
    for (const edge of edges) if (which(edge)) out.push({ edge, at: { node, edge } });
  };
  const times = new Map<readonly Edge[], number>();
  nodes.forEach(({ edges, starts }, node) => {
    add(edges, node);
    const before = times.get(starts) ?? 0;
    times.set(starts, before + 1);
    if (before < STARTED_FROM) add(starts, node);
  });
  return out;
}

/** The legs that one element of a place takes; those of no element, where none is given. */
export function legsOf(project: Project, place: string, elementId: string | undefined): readonly Leg[] {
  return (lookup(project).legsFrom.get(place) ?? []).filter((leg) => elementIdOf(leg) === elementId);
}

/** A candidate for each screen of some states. */
export function byScreen({ nodes }: Graph, where: number[], message: (screen: string) => string): Candidate[] {
  const found = new Map<string, Candidate>();
  for (const node of where) {
    const screen = nodes[node]?.screen ?? "";
    note(found, [screen], { node }, () => message(screen));
  }
  return [...found.values()];
}

/** Whether nothing has been built on a screen yet: it has no element and no leg of its own. */
export function isBare(project: Project, screenId: string): boolean {
  const screen = lookup(project).screens.get(screenId);
  return screen !== undefined && screen.elements.length === 0 && (lookup(project).legsFrom.get(screenId) ?? []).length === 0;
}
