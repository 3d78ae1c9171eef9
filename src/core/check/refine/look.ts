import type { Project } from "../../model/schema.ts";
import { concreteWays } from "../counterexample/concreteWays.ts";
import { coveredSteps } from "../counterexample/coveredWalk.ts";

import type { Finding } from "../finding.ts";
import { documentFindings, FINDINGS } from "../findings/all.ts";
import { far } from "../findings/far.ts";
import type { FindingKind } from "../findings/kind.ts";
import type { CheckOptions } from "../options.ts";
import { graphOf } from "../reach/graph.ts";
import { type Exploration, type Explored, stepsFrom } from "../system/exploration.ts";
import { appFacts, inWords, type Precision } from "../system/precision.ts";
import { behaviourFindings, type FoundIn } from "./evidence.ts";
import { factsIn, followedIn, keyOf, MET, missedIn, type Searched, searchAll, searchedBy, union } from "./search.ts";

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

/** Looks at a project with a precision; told of in the trace. What it finds stands even where it is given up. Quick: see `behaviourFindings`. */
export function look(project: Project, precision: Precision, options: CheckOptions, quick: boolean): Look {
  return traced(options, () => judged(project, searchAll(project, precision, options, true, undefined), options, undefined, quick));
}

/** Looks once more at what a quick look has left unsure, in the same search, for other walks than its shortest. */
export function lookAgain(project: Project, { explorations }: Look, options: CheckOptions, only: ReadonlySet<string>): Look {
  return traced(options, () => judged(project, { explorations, far: [], unsure: new Map() }, options, only));
}

/** The same with more precision, for some findings and places met alone where they are given by their keys: one that is given up says nothing. */
export function closerLook(project: Project, precision: Precision, options: CheckOptions, only?: ReadonlySet<string>, quick = false): Look {
  return traced(options, () => {
    const searched = searchAll(project, precision, options, asksDistances(only), only);
    if (searched.explorations.every(({ complete }) => complete)) return judged(project, searched, options, only, quick);
    return { findings: [], explorations: searched.explorations, complete: false, unsure: new Map() };
  });
}

/** Looks once more at what a look searched, with more facts followed along the steps that it knows; undefined where that has too many states. */
export function lookFollowing(project: Project, last: Look, facts: ReadonlySet<string>, options: CheckOptions, only?: ReadonlySet<string>): Look | undefined {
  const explorations = last.complete ? last.explorations.map((exploration) => followedIn(exploration, facts)) : [];
  const closer = explorations.flatMap((exploration) => exploration ?? []);
  if (closer.length === 0 || closer.length < explorations.length) return undefined;
  return traced(options, () => judged(project, searchedBy(closer, options, asksDistances(only), only), options, only));
}

const asksDistances = (only: ReadonlySet<string> | undefined) => isAsked(only, MET) || isAsked(only, far.code);

function traced(options: CheckOptions, lookAt: () => Look): Look {
  const began = performance.now();
  const found = lookAt();
  const { precision } = (found.explorations[0] as Exploration).abstraction;
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

/** A look by a search that was made, with what it found out of screens that are far, and of what it met. */
function judged(
  project: Project,
  { explorations, far: farOff, unsure }: Searched,
  options: CheckOptions,
  only: ReadonlySet<string> | undefined,
  quick = false,
): Look {
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
  const behaviour = found.flatMap(({ kind, foundIn }) => behaviourFindings(kind, foundIn, quick));
  const distant = behaviourFindings(far, farOff);
  if (!explorations.some(({ abstraction }) => abstraction.closest)) {
    for (const { kind, foundIn } of found) for (const [key, facts] of uncertainOf(project, kind, foundIn)) unsure.set(key, facts);
    for (const finding of [...behaviour, ...distant])
      if (finding.certainty === "possible" && !unsure.has(keyOf(finding))) {
        const { foundIn, kind } = found.find((one) => one.kind.code === finding.code) ?? { foundIn: farOff, kind: far };
        const here = foundIn.map((one) => ({ ...one, candidates: one.candidates.filter((c) => c.subjects.join(" ") === finding.subjects.join(" ")) }));
        unsure.set(keyOf(finding), union([factsOf(project, kind, here), new Set(kind.rests?.(project, finding.subjects))]));
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

/** Whether a candidate is asked for, by itself or by its code; a closer look may find fewer screens in a trap, and a place out of reach that was met. */
function isWanted(only: ReadonlySet<string> | undefined, code: string, subjects: readonly string[]): boolean {
  return !only || code === "trap" || code === "unreachable" || only.has(code) || only.has(keyOf({ code, subjects: [...subjects] }));
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

/** What is found of one code and would not be if the facts that are not followed turned out as the user would choose, with those facts. */
function uncertainOf(project: Project, kind: FindingKind, foundIn: FoundIn[]): Array<[string, ReadonlySet<string>]> {
  const { code, helps, inSearch, rests } = kind;
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
      union([factsOf(project, kind, [{ exploration, candidates: [candidate] }]), new Set(rests?.(project, candidate.subjects))]),
    ]);
  });
}

/** The facts asked on the way to where candidates show, and there. */
function factsOf(project: Project, { asks, beneath }: FindingKind, found: readonly FoundIn[]): ReadonlySet<string> {
  const facts = new Set<string>();
  for (const { exploration, candidates } of found)
    for (const candidate of candidates) {
      const { subjects, at = [] } = candidate;
      const under = beneath?.(subjects);
      for (const edge of under === undefined ? [] : coveredSteps(exploration, under, candidate, 1))
        for (const name of [...factsIn(edge), ...missedIn(edge)]) facts.add(name);
      const { follows } = exploration.abstraction.precision;
      const known = appFacts(project);
      for (const name of asks?.(project, subjects) ?? []) if (known.has(name) && !follows.has(name)) facts.add(name);
      for (const { node, edge } of at.slice(0, PLACES)) {
        const there = asks ? [] : edge ? [edge] : stepsFrom(exploration.nodes[node] as Explored);
        for (const edge of [...concreteWays(exploration).steps(node), ...there]) for (const fact of factsIn(edge)) facts.add(fact);
      }
    }
  return facts;
}
