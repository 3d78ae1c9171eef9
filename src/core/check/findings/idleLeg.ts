import { legStart } from "../../model/describe.ts";
import { removeLegs } from "../../model/edits/remove.ts";
import { namesIn } from "../../model/edits/spelling.ts";
import { elementIdOf, lookup } from "../../model/lookup.ts";
import { concreteWays } from "../counterexample/concreteWays.ts";
import type { Candidate, Graph, Place } from "../reach/graph.ts";
import type { FindingKind } from "./kind.ts";
import { legsOf } from "./parts.ts";
import { selfLeg } from "./selfLeg.ts";

export const idleLeg: FindingKind = {
  code: "idle-leg",
  severity: "warning",
  says: "a leg that does nothing wherever it is used",
  help: "Whenever people use it, everything stays as it is: closing what is not open, going back where nothing lies beneath. Lead it somewhere, or take it out.",
  subjects: "the leg",
  inSearch: find,
  everywhere: true,
  asks: (project, [id = ""]) => {
    const leg = lookup(project).legs.get(id);
    const beside = leg ? legsOf(project, leg.from, elementIdOf(leg)) : [];
    return beside.flatMap(({ when }) => namesIn("fact", when ?? ""));
  },
  rests: (project, [id = ""]) => Object.keys(lookup(project).legs.get(id)?.set ?? {}),
  shows: ({ subjects }, { result }) => result.outcome === "ignored" && result.log.fired.includes(subjects[0] ?? ""),
  fixes: (project, [id = ""]) => (lookup(project).legs.has(id) ? [removeLegs(project, [id])] : []),
};

const TAKEN = ["tap", "submit", "hold", "swipe"];

/** Places at which a leg that seems idle is tried. */
const TRIES = 6;

/**
 * Legs that people take and that, wherever they fire, are ignored. One that is ever seen to do something on the document itself is none;
 * so a leg that sets a fact which is not followed is tried where it fires.
 */
function find({ project, exploration, nodes, name }: Graph): Candidate[] {
  const fires = new Map<string, { idle: Place[]; other: Place[] }>();
  nodes.forEach(({ edges }, node) => {
    for (const edge of edges) {
      if (edge.event?.do !== "leg" || !edge.fired.includes(edge.event.leg)) continue;
      const places = fires.get(edge.event.leg) ?? { idle: [], other: [] };
      fires.set(edge.event.leg, places);
      (edge.outcome === "ignored" ? places.idle : places.other).push({ node, edge });
    }
  });
  const selves = new Set(selfLeg.inDocument?.(project, new Set()).map(({ subjects }) => subjects[0]));
  return project.legs.flatMap((leg) => {
    const { idle, other } = fires.get(leg.id) ?? { idle: [], other: [] };
    if (idle.length === 0 || other.length > 0 || !TAKEN.includes(leg.on.kind) || selves.has(leg.id)) return [];
    const near = [...idle].sort((a, b) => (nodes[a.node]?.distance ?? 0) - (nodes[b.node]?.distance ?? 0)).slice(0, TRIES);
    const acts = near.some(({ node, edge }) =>
      concreteWays(exploration).walk(node, edge, ({ result }) => result.outcome !== "ignored" && result.log.fired.includes(leg.id)),
    );
    if (acts) return [];
    const uncertain = Object.keys(leg.set ?? {}).some((id) => !exploration.abstraction.precision.follows.has(id));
    return [
      {
        subjects: [leg.id],
        message: `The leg of ${legStart(project, leg)} does nothing on ${name(leg.from)}, wherever it is used.`,
        at: idle,
        uncertain,
        ifShown: true,
      },
    ];
  });
}
