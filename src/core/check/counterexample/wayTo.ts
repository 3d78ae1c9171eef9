import { once } from "../../model/once.ts";
import type { NavEvent, Project } from "../../model/schema.ts";
import { abstractionOf } from "../system/abstraction.ts";
import type { Exploration } from "../system/exploration.ts";
import { explore } from "../system/explore.ts";
import { followable } from "../system/precision.ts";
import { concreteWays } from "./concreteWays.ts";

/** States of a screen that a walk is looked for to, nearest first. */
const TRIES = 12;

const searches = (_: Project) => new Map<string, Exploration>();

/** In this order: by taps alone, coarsely and closely, then by entrances too. */
const KINDS = [
  { entrances: false, apart: false },
  { entrances: false, apart: true },
  { entrances: true, apart: false },
  { entrances: true, apart: true },
];

/**
 * The shortest walk from launch that ends on a screen, replayed through `step`, or undefined
 * where none is found. Ways by taps alone are looked for first, then those by entrances. Each
 * search is made once for a project object.
 */
export function wayTo(project: Project, screenId: string): NavEvent[] | undefined {
  const known = once(project, searches);
  const follows = followable(project);
  for (const { entrances, apart } of KINDS) {
    const key = `${entrances} ${apart}`;
    const found = known.get(key) ?? explore(abstractionOf(project, { follows, contexts: "moment", apart, whole: false }), "narrow", { entrances });
    known.set(key, found);
    const nodes = found.nodes.flatMap((node, i) => (node.screen === screenId ? [{ i, distance: node.distance }] : [])).sort((a, b) => a.distance - b.distance);
    for (const { i } of nodes.slice(0, TRIES)) {
      const walk = concreteWays(found).walk(i);
      if (walk) return walk;
    }
  }
  return undefined;
}
