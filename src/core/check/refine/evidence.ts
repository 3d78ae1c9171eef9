import { appOf } from "../../insight/app.ts";
import { lookup } from "../../model/lookup.ts";
import type { NavEvent, Project, Width } from "../../model/schema.ts";
import { launch, step } from "../../semantics/step.ts";
import type { State } from "../../semantics/types.ts";
import { concreteWays } from "../counterexample/concreteWays.ts";
import { coveredWalk, coveredWalkSearched } from "../counterexample/coveredWalk.ts";
import { directedWalk } from "../counterexample/directedSearch.ts";
import { matchedWalk } from "../counterexample/matchedWalk.ts";
import { plainWalk } from "../counterexample/plainSearch.ts";
import { endsWhere, lastStep, type Reached } from "../counterexample/replay.ts";
import { closed, helpsAfterAll } from "../counterexample/wayOut.ts";
import { shutWalk } from "../counterexample/whereNoTabHelps.ts";
import type { Finding } from "../finding.ts";
import type { FindingKind } from "../findings/kind.ts";
import type { Candidate, Place } from "../reach/graph.ts";
import { factAsked } from "../system/chooser.ts";
import type { Exploration } from "../system/exploration.ts";
import { isFact } from "../system/precision.ts";

/** What one search found of one code. */
export interface FoundIn {
  exploration: Exploration;
  candidates: Candidate[];
}

/**
 * The findings of one code with their walks; one found in several widths is one finding. Those that a quick look finds are shown by the ways of the
 * search alone, and no other walk is looked for.
 */
export function behaviourFindings(kind: FindingKind, foundIn: FoundIn[], quick = false): Finding[] {
  const found = new Map<string, { finding: Finding; widths: Width[] }>();
  for (const { exploration, candidates } of foundIn) {
    for (const candidate of candidates) {
      if (!isKnown(exploration.abstraction.original, candidate.subjects[0] ?? "")) continue;
      const key = candidate.subjects.join("\n");
      const known = found.get(key);
      if (known) {
        known.widths.push(...exploration.widths);
        // What was followed coarsely is to be shown in each width for itself.
        if (!exploration.abstraction.closest && known.finding.certainty === "shown") {
          const here = behaviourFinding(exploration, kind, candidate, quick);
          if (here && here.certainty !== "shown") known.finding = here;
        }
        continue;
      }
      const finding = behaviourFinding(exploration, kind, candidate, quick);
      if (finding) found.set(key, { finding, widths: [...exploration.widths] });
    }
  }
  const all = foundIn.flatMap(({ exploration }) => exploration.widths).length;
  return [...found.values()].map(({ finding, widths }) => (widths.length === all ? finding : onlyIn(finding, widths)));
}

/** Whether a subject is in the document: an empty screen made for a place that is not there is no subject. */
function isKnown(project: Project, id: string): boolean {
  return lookup(project).places.has(id) || lookup(project).legs.has(id);
}

function behaviourFinding(
  exploration: Exploration,
  { code, severity, shows, helps, beneath, holds, surely }: FindingKind,
  candidate: Candidate,
  quick: boolean,
): Finding | undefined {
  const project = exploration.abstraction.original;
  const common = { code, severity, subjects: candidate.subjects, message: candidate.message, fixes: [] };
  if (!candidate.at)
    return exploration.complete
      ? { ...common, certainty: "certain" }
      : { ...common, message: `${candidate.message} (Possible: not every state was looked at.)`, certainty: "possible" };
  const shownAt = (reached: readonly Reached[], { edge }: Place) => {
    const found =
      holds && !edge
        ? endsWhere(project, reached, (state) => holds(project, state, candidate.subjects))
        : edge
          ? lastStep(exploration, reached, edge, (step) => shows?.(candidate, step) ?? true)
          : reached[0]?.walk;
    if (!found || (candidate.uncertain && surely && !surely(project, endOf(project, found)))) return undefined;
    if (candidate.closable && !endOf(project, found).layers.every(({ at }) => helpsAfterAll(exploration, closed, [at], endOf(project, found))))
      return undefined;
    return helps && helpsAfterAll(exploration, helps, candidate.subjects, endOf(project, found)) ? undefined : found;
  };
  const under = beneath?.(candidate.subjects);
  const searched = (places: readonly Place[]) => {
    if (candidate.ifShown) return candidate.closable ? matchedWalk(exploration, candidate, under, shownAt) : undefined;
    const shown = (at: Reached, place: Place) => shownAt([at], place);
    if (quick || restsOnFacts(exploration, places)) return undefined;
    const matched = matchedWalk(exploration, candidate, under, shownAt);
    if (matched) return matched;
    return under === undefined ? directedWalk(exploration, places, shown, holds !== undefined) : coveredWalkSearched(exploration, under, candidate, shownAt);
  };
  const walk =
    candidate.walk ??
    firstOf(nearest(exploration, candidate.at), (place) => shownAt(concreteWays(exploration).at(place.node), place)) ??
    (under === undefined ? undefined : coveredWalk(exploration, under, candidate, shownAt)) ??
    searched(candidate.at) ??
    (helps && !candidate.ifShown ? shutWalk(exploration, helps, candidate.subjects, candidate.at) : undefined) ??
    (candidate.ifShown || !exploration.abstraction.closest ? undefined : plainWalk(exploration, candidate.at, (at, place) => shownAt([at], place)));
  if (walk) return { ...common, certainty: "shown", walk };
  if (candidate.ifShown) return undefined;
  return { ...common, message: `${candidate.message} (Possible: the analysis finds it, but no walk was found that shows it.)`, certainty: "possible" };
}

/** Whether the shortest way relies on facts that are not followed: a look that follows them tells more than a search for another way. */
function restsOnFacts(exploration: Exploration, places: readonly Place[]): boolean {
  const [place] = nearest(exploration, places);
  const edges = place ? [...concreteWays(exploration).steps(place.node), ...(place.edge ? [place.edge] : [])] : [];
  return edges.some(({ choices }) => choices.some((choice) => isFact(factAsked(choice))));
}

/** The state in which a walk ends. */
export function endOf(project: Project, walk: readonly NavEvent[]): State {
  return walk.reduce((state, event) => step(appOf(project), state, event).state, launch(appOf(project)));
}

/** Places at which a walk is looked for before a finding is given as possible only. */
const TRIES = 24;

/** The places nearest to launch. */
function nearest({ nodes }: Exploration, places: readonly Place[]): Place[] {
  const distance = ({ node, edge }: Place) => (nodes[node]?.distance ?? 0) + (edge ? 1 : 0);
  return [...places].sort((a, b) => distance(a) - distance(b)).slice(0, TRIES);
}

function firstOf<T>(list: Iterable<T>, find: (entry: T) => NavEvent[] | undefined): NavEvent[] | undefined {
  for (const entry of list) {
    const found = find(entry);
    if (found) return found;
  }
  return undefined;
}

function onlyIn(finding: Finding, widths: Width[]): Finding {
  return { ...finding, widths, message: `${finding.message.replace(/\.$/, "")}; only when ${widths.join(" or ")}.` };
}
