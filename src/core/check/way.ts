import type { NavEvent, Project } from "../model/schema.ts";
import { abstractProject } from "./abstract.ts";
import type { Exploration } from "./exploration.ts";
import { explore } from "./explore.ts";
import { witness } from "./witness.ts";

/** States of a screen that a walk is looked for to, nearest first. */
const TRIES = 12;

const searches = new WeakMap<Project, { launched?: Exploration; entered?: Exploration }>();

/**
 * The shortest walk from launch that ends on a screen, replayed through `step`, or undefined
 * where none is found. Ways by taps alone are looked for first, then those by entrances. The
 * search is made once for each project object.
 */
export function wayTo(project: Project, screenId: string): NavEvent[] | undefined {
  const known = searches.get(project) ?? {};
  searches.set(project, known);
  for (const kind of ["launched", "entered"] as const) {
    const found = known[kind] ?? explore(abstractProject(project), "narrow", { entrances: kind === "entered" });
    known[kind] = found;
    const nodes = found.nodes.flatMap((node, i) => (node.screen === screenId ? [{ i, distance: node.distance }] : [])).sort((a, b) => a.distance - b.distance);
    for (const { i } of nodes.slice(0, TRIES)) {
      const walk = witness(found, i);
      if (walk) return walk;
    }
  }
  return undefined;
}
