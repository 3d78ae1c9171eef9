import { lookup } from "../../model/lookup.ts";
import type { Project } from "../../model/schema.ts";
import { type ConcreteWays, concreteWays } from "../counterexample/concreteWays.ts";
import { nearestFirst, type Serves, unconfirmedPlaces } from "../counterexample/unconfirmedPlaces.ts";
import type { Finding } from "../finding.ts";
import { far as farFinding, farScreens, tapWays } from "../findings/far.ts";
import type { CheckOptions } from "../options.ts";
import { pruned } from "../reach/pruned.ts";
import { abstractionOf } from "../system/abstraction.ts";
import { factAsked, placeMissed } from "../system/chooser.ts";
import type { Edge, Exploration } from "../system/exploration.ts";
import { explore } from "../system/explore.ts";
import { followed } from "../system/followFacts.ts";
import { beneathOf, isFact, type Precision } from "../system/precision.ts";
import { widthClasses } from "../system/widths.ts";
import type { FoundIn } from "./evidence.ts";
import { isWithin, packed } from "./packs.ts";

/** What was searched, a search for each class of widths: with the screens that are far, and what was met and does not replay. */
export interface Searched {
  explorations: Exploration[];
  far: FoundIn[];
  /** By key the facts that it rests on. */
  unsure: Map<string, ReadonlySet<string>>;
}

/** The key of a finding. */
export const keyOf = ({ code, subjects }: Pick<Finding, "code" | "subjects">) => `${code} ${subjects.join(" ")}`;

/** How the key of a place begins that a search met, though no walk to it was found. */
export const MET = "met ";

/** Searches each class of widths; what was met and does not replay is unsure. Of places met and far screens those alone are looked at whose keys are given. */
export function searchAll(
  project: Project,
  precision: Precision,
  { states, stop, far }: CheckOptions,
  distant: boolean,
  only: ReadonlySet<string> | undefined,
): Searched {
  const out: Searched = { explorations: [], far: [], unsure: new Map() };
  const byTaps = (exploration: Exploration) => tapWays(exploration, far);
  for (const widths of widthClasses(project)) {
    const abstraction = abstractionOf(project, precision);
    const known = notAsked(project, only);
    const isReplayed = (exploration: Exploration) => !precision.whole && exploration.complete && distant;
    // Ways from launch are looked for now, because the search goes on and finds shorter ones by entrances.
    const launched = (found: Exploration) => {
      if (!distant) return true;
      const exploration = pruned(found);
      const met = isReplayed(exploration) ? metBy(exploration, known, byTaps, out.unsure) : { exploration, ways: byTaps(exploration) };
      out.far.push({ exploration: met.exploration, candidates: farScreens(met.exploration, met.ways, isFarAsked(only)) });
      return true;
    };
    const found = explore(abstraction, widths[0] ?? "narrow", { ...(states === undefined ? {} : { states }), stop, launched, widths });
    const exploration = found.complete ? pruned(found) : found;
    if (isReplayed(exploration)) metBy(exploration, known, allWays, out.unsure);
    out.explorations.push(exploration);
    if (!exploration.complete && (precision.apart || precision.whole)) break;
  }
  return out;
}

/** The same of searches that are done already, without working out any step. */
export function searchedBy(explorations: Exploration[], { far }: CheckOptions, distant: boolean, only: ReadonlySet<string> | undefined): Searched {
  const out: Searched = { explorations, far: [], unsure: new Map() };
  for (const exploration of distant ? explorations : []) {
    const known = notAsked(exploration.abstraction.original, only);
    const met = metBy(exploration, known, (one) => tapWays(one, far), out.unsure);
    out.far.push({ exploration: met.exploration, candidates: farScreens(met.exploration, met.ways, isFarAsked(only)) });
    metBy(exploration, known, allWays, out.unsure);
  }
  return out;
}

/** The places that are not asked for, where some are. */
function notAsked(project: Project, only: ReadonlySet<string> | undefined): Set<string> {
  return new Set(only ? [...lookup(project).places.keys()].filter((place) => !only.has(MET + place)) : []);
}

/** Whether it is asked how far a screen is: by itself, or with whether it is met. */
function isFarAsked(only: ReadonlySet<string> | undefined): (screen: string) => boolean {
  return (screen) => !only || only.has(MET + screen) || only.has(keyOf({ code: farFinding.code, subjects: [screen] }));
}

/** Ways that places are met by: the walks along them, where they end, and which other walks would do. */
interface Ways {
  walks: ConcreteWays;
  ends: Iterable<number>;
  isAsShort?: Serves;
}

const allWays = (exploration: Exploration): Ways => ({ walks: concreteWays(exploration), ends: nearestFirst(exploration) });

/**
 * Notes as unsure what was met and does not replay. Where that rests on facts which are not followed, they are, along the steps that the
 * search knows: all at once, or some at a time. Given is the search that tells most.
 */
function metBy<T extends Ways>(
  exploration: Exploration,
  known: Set<string>,
  waysOf: (exploration: Exploration) => T,
  unsure: Map<string, ReadonlySet<string>>,
): { exploration: Exploration; ways: T } {
  const ways = waysOf(exploration);
  const lost = unconfirmedPlaces(exploration, known, ways.ends, ways.walks, ways.isAsShort);
  const rests = lost.map(({ place, edges }) => ({ place, facts: new Set(edges.flatMap(factsIn)) }));
  const sets = rests.map((one) => new Set([...one.facts].filter(isFact)));
  const facts = union(sets);
  // What does not rest on the facts that are followed there would not be found any better.
  const metIn = (closer: Exploration, followed: ReadonlySet<string>) => {
    const closerWays = waysOf(closer);
    const wanted = rests.filter((_, i) => isWithin(sets[i] as ReadonlySet<string>, followed)).map(({ place }) => place);
    const others = new Set([...known, ...lost.map(({ place }) => place)]);
    for (const place of wanted) if (!known.has(place)) others.delete(place);
    unconfirmedPlaces(closer, others, closerWays.ends, closerWays.walks, closerWays.isAsShort);
    for (const place of wanted) if (others.has(place)) known.add(place);
    return closerWays;
  };
  const closer = facts.size > 0 ? followedIn(exploration, facts) : undefined;
  const closerWays = closer && metIn(closer, facts);
  if (facts.size > 0 && !closer)
    for (const pack of packed([exploration], sets)) {
      const some = followedIn(exploration, pack);
      if (some) metIn(some, pack);
    }
  for (const one of rests) if (!known.has(one.place)) unsure.set(MET + one.place, one.facts);
  return closer && closerWays ? { exploration: closer, ways: closerWays } : { exploration, ways };
}

/** A search with more facts followed, as far as it goes. */
export function followedIn(exploration: Exploration, facts: ReadonlySet<string>): Exploration | undefined {
  const closer = followed(exploration, facts);
  return closer && pruned(closer);
}

export function union(sets: Iterable<ReadonlySet<string>>): ReadonlySet<string> {
  const out = new Set<string>();
  for (const set of sets) for (const one of set) out.add(one);
  return out;
}

/** The facts that a step asks for and that are not followed. */
export function factsIn(edge: Edge): string[] {
  return edge.choices.flatMap((choice) => factAsked(choice) ?? []);
}

/** The places that a step looks for beneath what shows and does not find, though they might be there, as what can be followed. */
export function missedIn(edge: Edge): string[] {
  return edge.choices.flatMap((choice) => {
    const place = placeMissed(choice);
    return place === undefined ? [] : beneathOf(place);
  });
}
