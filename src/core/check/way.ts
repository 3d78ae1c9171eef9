import type { NavEvent, Project } from "../model/schema.ts";
import { abstractProject } from "./abstract.ts";
import { explore } from "./explore.ts";
import { witness } from "./witness.ts";

/**
 * The shortest walk from launch that ends on a screen, replayed through `step`, or undefined
 * where none is found. Ways by taps alone are looked for first, then those by entrances.
 */
export function wayTo(project: Project, screenId: string): NavEvent[] | undefined {
  const abstract = abstractProject(project);
  for (const entrances of [false, true]) {
    const found = explore(abstract, "narrow", { entrances });
    const nodes = found.nodes.flatMap((node, i) => (node.screen === screenId ? [{ i, distance: node.distance }] : [])).sort((a, b) => a.distance - b.distance);
    for (const { i } of nodes.slice(0, 12)) {
      const walk = witness(found, i);
      if (walk) return walk;
    }
  }
  return undefined;
}
