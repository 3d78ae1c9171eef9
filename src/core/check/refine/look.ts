import type { Project } from "../../model/schema.ts";
import { type ConcreteWays, concreteWays } from "../counterexample/concrete.ts";
import { nearestFirst, type Serves, unconfirmedPlaces } from "../counterexample/replayed.ts";
import type { Finding } from "../finding.ts";
import { documentFindings, FINDINGS } from "../findings/all.ts";
import { far, farScreens, tapWays } from "../findings/far.ts";
import type { FindingKind } from "../findings/kind.ts";
import type { CheckOptions } from "../options.ts";
import { graphOf } from "../reach/graph.ts";
import { abstractionOf } from "../system/abstraction.ts";
import { factAsked } from "../system/choices.ts";
import type { Edge, Exploration } from "../system/exploration.ts";
import { explore } from "../system/explore.ts";
import { followed } from "../system/followed.ts";
import { inWords, isFact, type Precision } from "../system/precision.ts";
import { widthClasses } from "../system/widths.ts";
import { behaviourFindings, type FoundIn } from "./evidence.ts";

/** What one look at a project came to. */
export interface Found {
  findings: Finding[];
  explorations: Exploration[];
}

/** A look with what it leaves unsure: by code and subjects the facts that would decide it, as far as they are not followed yet. */
export interface Look extends Found {
  complete: boolean;
  unsure: Map<string, ReadonlySet<string>>;
}

/** Places of a candidate whose facts are looked at. */
const PLACES = 3;

/** How the key of a place begins that a search met, though no walk to it was found. */
export const MET = "met ";

export const keyOf = ({ code, subjects }: Pick<Finding, "code" | "subjects">) => `${code} ${subjects.join(" ")}`;

export function union(sets: Iterable<ReadonlySet<string>>): ReadonlySet<string> {
  const out = new Set<string>();
  for (const set of sets) for (const one of set) out.add(one);
  return out;
}

/** Looks at a project with a precision, for some findings and places met alone where they are given by their keys; told of in the trace. */
export function look(project: Project, precision: Precision, options: CheckOptions, only?: ReadonlySet<string>): Look {
  const began = performance.now();
  const found = lookAt(project, precision, options, only);
  options.trace?.(
    [
      `facts ${[...precision.follows].join(" ") || "none"}, contexts by ${precision.whole ? "nothing hidden" : precision.contexts}${precision.apart ? ", apart" : ""}:`,
      `${found.explorations.map(({ nodes, complete }) => `${nodes.length} states${complete ? "" : " (given up)"}`).join(", ")},`,
      `${found.findings.length} findings, ${found.unsure.size} unsure, ${Math.round(performance.now() - began)} ms`,
      ...[...found.unsure].map(([key, facts]) => `\n  unsure: ${key}${facts.size > 0 ? ` rests on ${[...facts].join(" ")}` : ""}`),
    ].join(" "),
  );
  return found;
}

function lookAt(project: Project, precision: Precision, options: CheckOptions, only: ReadonlySet<string> | undefined): Look {
  const abstraction = abstractionOf(project, precision);
  const unsure = new Map<string, ReadonlySet<string>>();
  const { explorations, far: farOff } = exploreAll(project, precision, options, unsure, isAsked(only, MET) || isAsked(only, far.code));
  const complete = explorations.every((exploration) => exploration.complete);
  // Where the search was stopped there is no closer look: facts that are not followed then count for the user.
  const graphs = explorations.map((exploration) => graphOf(exploration, complete));
  const found = FINDINGS.flatMap((kind) => {
    const { inSearch } = kind;
    if (!inSearch || !isAsked(only, kind.code)) return [];
    const foundIn = graphs.map((graph) => ({
      exploration: graph.exploration,
      candidates: inSearch(graph).filter(({ uncertain, subjects }) => (complete || !uncertain) && isWanted(only, kind.code, subjects)),
    }));
    return [{ kind, foundIn: kind.everywhere ? foundInAll(foundIn) : foundIn }];
  });
  const behaviour = found.flatMap(({ kind, foundIn }) => behaviourFindings(kind, foundIn));
  const distant = behaviourFindings(far, farOff);
  if (!abstraction.closest) {
    for (const { kind, foundIn } of found) for (const [key, facts] of uncertainOf(project, kind, foundIn)) unsure.set(key, facts);
    for (const finding of [...behaviour, ...distant])
      if (finding.certainty === "possible" && !unsure.has(keyOf(finding))) {
        const { foundIn, kind } = found.find((one) => one.kind.code === finding.code) ?? { foundIn: farOff, kind: far };
        const here = foundIn.map((one) => ({ ...one, candidates: one.candidates.filter((c) => c.subjects.join(" ") === finding.subjects.join(" ")) }));
        unsure.set(keyOf(finding), union([factsOf(here), new Set(kind.rests?.(project, finding.subjects))]));
      }
  }
  const doubted = new Set(unsure.keys());
  const findings = [
    ...behaviour.map((finding) =>
      doubted.has(keyOf(finding)) && finding.certainty !== "shown" ? asPossible(project, finding, unsure.get(keyOf(finding))) : finding,
    ),
    ...distant,
    ...(only ? [] : documentFindings(project, new Set(graphs.flatMap((graph) => [...graph.hubs])), options.pictures)),
  ];
  return { findings, explorations, complete, unsure };
}

/** Whether findings of a code, or places met, are asked for. */
function isAsked(only: ReadonlySet<string> | undefined, code: string): boolean {
  if (!only) return true;
  const asked = [...only];
  return asked.some((key) => key.startsWith(code)) || (code === "unreachable" && asked.some((key) => key.startsWith(MET)));
}

/** Whether a candidate is asked for; a closer look may find fewer screens in a trap, and a place out of reach that was met. */
function isWanted(only: ReadonlySet<string> | undefined, code: string, subjects: readonly string[]): boolean {
  return !only || code === "trap" || code === "unreachable" || only.has(keyOf({ code, subjects: [...subjects] }));
}

/** Of what is found in some searches that which is found in all of them. */
function foundInAll(foundIn: FoundIn[]): FoundIn[] {
  const lists = foundIn.map(({ candidates }) => new Set(candidates.map(({ subjects }) => subjects.join(" "))));
  return foundIn.map((one) => ({ ...one, candidates: one.candidates.filter(({ subjects }) => lists.every((list) => list.has(subjects.join(" ")))) }));
}

function asPossible(project: Project, finding: Finding, facts: ReadonlySet<string> | undefined): Finding {
  const sentence = finding.message.replace(/ \(Possible:.*\)$/, "");
  const why = facts && facts.size > 0 ? `it depends on ${[...facts].map((name) => inWords(project, name)).join(", ")}` : "no walk was found that shows it";
  return { ...finding, certainty: "possible", message: `${sentence} (Possible: ${why}.)` };
}

/** Searches each class of widths; what was met and does not replay is unsure. */
function exploreAll(
  project: Project,
  precision: Precision,
  { states, stop }: CheckOptions,
  unsure: Map<string, ReadonlySet<string>>,
  distant: boolean,
): { explorations: Exploration[]; far: FoundIn[] } {
  const found: FoundIn[] = [];
  const explorations: Exploration[] = [];
  for (const widths of widthClasses(project)) {
    const abstraction = abstractionOf(project, precision);
    const known = new Set<string>();
    const isReplayed = (exploration: Exploration) => !abstraction.closest && exploration.complete && distant;
    // Ways from launch are looked for now, because the search goes on and finds shorter ones by entrances.
    const launched = (exploration: Exploration) => {
      if (!distant) return true;
      const met = isReplayed(exploration) ? metBy(exploration, known, tapWays, unsure) : { exploration, ways: tapWays(exploration) };
      found.push({ exploration: { ...met.exploration, widths }, candidates: farScreens(met.exploration, met.ways) });
      return true;
    };
    const exploration = { ...explore(abstraction, widths[0] ?? "narrow", { ...(states === undefined ? {} : { states }), stop, launched }), widths };
    if (isReplayed(exploration)) metBy(exploration, known, allWays, unsure);
    explorations.push(exploration);
    if (!exploration.complete && (precision.apart || precision.whole)) break;
  }
  return { explorations, far: found };
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
 * search knows; given is the search that tells most.
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
  const facts = new Set(rests.flatMap((one) => [...one.facts]).filter(isFact));
  const closer = facts.size > 0 ? followed(exploration, facts) : undefined;
  const closerWays = closer && waysOf(closer);
  if (closer && closerWays) unconfirmedPlaces(closer, known, closerWays.ends, closerWays.walks, closerWays.isAsShort);
  for (const one of rests) if (!known.has(one.place)) unsure.set(MET + one.place, one.facts);
  return closer && closerWays ? { exploration: closer, ways: closerWays } : { exploration, ways };
}

/** What is found of one code and would not be if the facts that are not followed turned out as the user would choose, with those facts. */
function uncertainOf(project: Project, { code, helps, inSearch, rests }: FindingKind, foundIn: FoundIn[]): Array<[string, ReadonlySet<string>]> {
  return foundIn.flatMap(({ exploration, candidates }) => {
    const uncertain = candidates.filter((candidate) => candidate.uncertain);
    const certain = candidates.filter((candidate) => !candidate.ifShown && !candidate.uncertain);
    if (helps && certain.length > 0) {
      const sure = new Set(inSearch?.(graphOf(exploration, false)).map(({ subjects }) => subjects.join("\n")));
      // A trap names all screens in it, of which a walk shows only one.
      uncertain.push(...certain.filter(({ subjects }) => code === "trap" || !sure.has(subjects.join("\n"))));
    }
    return uncertain.map((candidate): [string, ReadonlySet<string>] => [
      keyOf({ code, subjects: candidate.subjects }),
      union([factsOf([{ exploration, candidates: [candidate] }]), new Set(rests?.(project, candidate.subjects))]),
    ]);
  });
}

/** The facts asked on the way to where candidates show, and there. */
function factsOf(found: readonly FoundIn[]): ReadonlySet<string> {
  const facts = new Set<string>();
  for (const { exploration, candidates } of found)
    for (const { node } of candidates.flatMap((candidate) => candidate.at?.slice(0, PLACES) ?? []))
      for (const edge of [...concreteWays(exploration).steps(node), ...(exploration.nodes[node]?.edges ?? [])])
        for (const fact of factsIn(edge)) facts.add(fact);
  return facts;
}

function factsIn(edge: Edge): string[] {
  return edge.choices.flatMap((choice) => factAsked(choice) ?? []);
}
