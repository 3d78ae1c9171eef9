import type { Project } from "../../model/schema.ts";
import { type ConcreteWays, concreteWays } from "../counterexample/concrete.ts";
import { lostPlaces } from "../counterexample/replayed.ts";
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
import { appFacts, closest, coarse, inWords, type Precision } from "../system/precision.ts";
import { widthClasses } from "../system/widths.ts";
import { behaviourFindings, type FoundIn } from "./evidence.ts";

/** What one look at a project came to. */
export interface Found {
  findings: Finding[];
  explorations: Exploration[];
}

/** A look with what it leaves unsure: by code and subjects the facts that would decide it, as far as they are not followed yet. */
interface Look extends Found {
  complete: boolean;
  unsure: Map<string, ReadonlySet<string>>;
}

/** Places of a candidate whose facts are looked at. */
const PLACES = 3;

/** Times that facts are added before everything is told apart. */
const ROUNDS = 4;

/** States of a class of widths up to which a project is followed with nothing hidden. */
const WHOLE_STATES = 800;

/** The coarsest look that there is reason for: with the facts that decide how an event goes on, or none of them where that is too much. */
function first(project: Project, options: CheckOptions): [ReadonlySet<string>, Look] {
  const facts = decisive(project);
  if (facts.size > 0) {
    const found = look(project, coarse(facts), options);
    if (found.complete) return [facts, found];
  }
  const none = new Set<string>();
  return [none, look(project, coarse(none), { ...options, states: options.states ?? MOST_STATES })];
}

/** States that the coarsest look of all may have. */
const MOST_STATES = 100_000;

/** States up to which everything is told apart: so many, and so many times those of the look before. */
const CLOSER_STATES = 1_000;
const CLOSER_TIMES = 4;

/** What is left unsure by a look that could not be made closer is looked at one by one, up to so many. */
const ONE_BY_ONE = 12;

/**
 * The findings of a project, in no order. It is followed coarsely first. Coarse states stand for more than there is, and nobody is helped by
 * what nobody chooses, so what is not found is not there. What is found must hold without what was left out, and everything met must
 * replay; what does not is unsure, and the next look follows the facts that it rests on (counterexample-guided abstraction refinement,
 * Clarke, Grumberg, Jha, Lu and Veith 2000). A closer look that has too many states is given up, and what the last one found stands: where
 * it was unsure, as possible.
 */
export function refined(project: Project, options: CheckOptions): Found {
  let [facts, best] = first(project, options);
  for (let round = 0; round < ROUNDS && best.complete && best.unsure.size > 0; round++) {
    const more = union([facts, ...best.unsure.values()]);
    if (more.size === facts.size) break;
    const next = look(project, coarse(more), within(best, options));
    if (!next.complete) return oneByOne(project, best, facts, options);
    facts = more;
    best = next;
  }
  if (best.unsure.size === 0 || !best.complete) return best;
  const closer = look(project, closest(project), within(best, options));
  if (!closer.complete) return oneByOne(project, best, facts, options);
  // No fewer states are met with nothing hidden, so there is no use in trying where there are too many already.
  const few = closer.explorations.every(({ nodes }) => nodes.filter(({ pending }) => !pending).length <= WHOLE_STATES);
  if (!few || !closer.findings.some(mayNameTooMuch)) return closer;
  const whole = look(project, { ...closest(project), whole: true }, { ...options, states: Math.min(WHOLE_STATES, options.states ?? WHOLE_STATES) });
  return whole.complete ? whole : closer;
}

/** As many states for a closer look as the last one gives reason for. */
function within(last: Look, options: CheckOptions): CheckOptions {
  const states = CLOSER_STATES + CLOSER_TIMES * statesOf(last);
  return { ...options, states: Math.min(options.states ?? states, states) };
}

const statesOf = ({ explorations }: Found) => Math.max(...explorations.map(({ nodes }) => nodes.length));

/** What is hidden stands for more than it may hold at once: no walk shows some finding, or a trap may name a screen too many. */
function mayNameTooMuch({ code, certainty }: Finding): boolean {
  return certainty === "possible" || code === "trap";
}

/** Looks at what is unsure one by one, each with the facts that it rests on alone: what is not found then is not there, and what is shown is. */
function oneByOne(project: Project, last: Look, followed: ReadonlySet<string>, options: CheckOptions): Found {
  let { findings } = last;
  const tried = new Map<string, Look>();
  let left = within(last, options).states ?? 0;
  for (const [key, facts] of [...last.unsure].slice(0, ONE_BY_ONE)) {
    const with_ = union([followed, facts]);
    if (with_.size === followed.size) continue;
    const name = [...with_].sort().join();
    if (!tried.has(name) && left <= 0) continue;
    const closer = tried.get(name) ?? look(project, coarse(with_), { ...options, states: Math.min(options.states ?? left, left) });
    if (!tried.has(name)) left -= statesOf(closer);
    tried.set(name, closer);
    if (!closer.complete) continue;
    const now = closer.findings.find((finding) => keyOf(finding) === key);
    findings = findings.flatMap((finding) => (keyOf(finding) !== key ? [finding] : now ? [now] : []));
  }
  return { ...last, findings };
}

const keyOf = ({ code, subjects }: Pick<Finding, "code" | "subjects">) => `${code} ${subjects.join(" ")}`;

function union(sets: Iterable<ReadonlySet<string>>): ReadonlySet<string> {
  const out = new Set<string>();
  for (const set of sets) for (const one of set) out.add(one);
  return out;
}

/** Facts that legs set or ask which fire within another event: they decide how that event goes on. */
function decisive(project: Project): ReadonlySet<string> {
  const all = appFacts(project);
  const within = project.legs.filter((leg) => leg.on.kind === "arrive" || leg.on.kind === "depart");
  const asked = within.flatMap(({ when }) => [...(when ?? "").matchAll(/\bfact\.(\w+)/g)].map(([, id]) => id as string));
  return new Set([...within.flatMap((leg) => Object.keys(leg.set ?? {})), ...asked].filter((id) => all.has(id)));
}

/** Looks at a project with a precision; told of in the trace. */
function look(project: Project, precision: Precision, options: CheckOptions): Look {
  const began = performance.now();
  const found = lookAt(project, precision, options);
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

function lookAt(project: Project, precision: Precision, options: CheckOptions): Look {
  const abstraction = abstractionOf(project, precision);
  const unsure = new Map<string, ReadonlySet<string>>();
  const { explorations, far: farOff } = exploreAll(project, precision, options, unsure);
  const complete = explorations.every((exploration) => exploration.complete);
  // Where the search was stopped there is no closer look: facts that are not followed then count for the user.
  const graphs = explorations.map((exploration) => graphOf(exploration, complete));
  const found = FINDINGS.flatMap((kind) => {
    const { inSearch } = kind;
    if (!inSearch) return [];
    const foundIn = graphs.map((graph) => ({
      exploration: graph.exploration,
      candidates: inSearch(graph).filter(({ doubtful }) => complete || !doubtful),
    }));
    return [{ kind, foundIn: kind.everywhere ? foundInAll(foundIn) : foundIn }];
  });
  const behaviour = found.flatMap(({ kind, foundIn }) => behaviourFindings(kind, foundIn));
  const distant = behaviourFindings(far, farOff);
  if (!abstraction.closest) {
    for (const { kind, foundIn } of found) for (const [key, facts] of doubtsAbout(kind, foundIn)) unsure.set(key, facts);
    for (const finding of [...behaviour, ...distant])
      if (finding.certainty === "possible" && !unsure.has(keyOf(finding))) {
        const { foundIn } = found.find(({ kind }) => kind.code === finding.code) ?? { foundIn: farOff };
        unsure.set(
          keyOf(finding),
          factsOf(foundIn.map((one) => ({ ...one, candidates: one.candidates.filter((c) => c.subjects.join(" ") === finding.subjects.join(" ")) }))),
        );
      }
  }
  const doubted = new Set(unsure.keys());
  const findings = [
    ...behaviour.map((finding) =>
      doubted.has(keyOf(finding)) && finding.certainty !== "shown" ? asPossible(project, finding, unsure.get(keyOf(finding))) : finding,
    ),
    ...distant,
    ...documentFindings(project, new Set(graphs.flatMap((graph) => [...graph.hubs]))),
  ];
  return { findings, explorations, complete, unsure };
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
): { explorations: Exploration[]; far: FoundIn[] } {
  const found: FoundIn[] = [];
  const explorations: Exploration[] = [];
  for (const widths of widthClasses(project)) {
    const abstraction = abstractionOf(project, precision);
    const met = new Set<string>();
    const replay = (exploration: Exploration, ends: Iterable<number>, walks: ConcreteWays) => {
      if (abstraction.closest || !exploration.complete) return;
      for (const { place, edges } of lostPlaces(exploration, met, ends, walks)) unsure.set(`met ${place}`, new Set(edges.flatMap(factsIn)));
    };
    // Ways from launch are looked for now, because the search goes on and finds shorter ones by entrances.
    const launched = (exploration: Exploration) => {
      const ways = tapWays(exploration);
      replay(exploration, ways.reached.keys(), ways.walks);
      found.push({ exploration: { ...exploration, widths }, candidates: farScreens(exploration, ways) });
      return true;
    };
    const exploration = { ...explore(abstraction, widths[0] ?? "narrow", { ...(states === undefined ? {} : { states }), stop, launched }), widths };
    replay(exploration, nearestFirst(exploration), concreteWays(exploration));
    explorations.push(exploration);
    if (!exploration.complete && (precision.apart || precision.whole)) break;
  }
  return { explorations, far: found };
}

/** The states of a search, the nearest first. */
function nearestFirst({ nodes }: Exploration): number[] {
  return [...nodes.keys()].sort((a, b) => (nodes[a]?.distance ?? 0) - (nodes[b]?.distance ?? 0));
}

/** What is found of one code and would not be if the facts that are not followed turned out as the user would choose, with those facts. */
function doubtsAbout({ code, helps, inSearch }: FindingKind, foundIn: FoundIn[]): Array<[string, ReadonlySet<string>]> {
  return foundIn.flatMap(({ exploration, candidates }) => {
    const doubtful = candidates.filter((candidate) => candidate.doubtful);
    const certain = candidates.filter((candidate) => !candidate.ifShown && !candidate.doubtful);
    if (helps && certain.length > 0) {
      const sure = new Set(inSearch?.(graphOf(exploration, false)).map(({ subjects }) => subjects.join("\n")));
      // A trap names all screens in it, of which a walk shows only one.
      doubtful.push(...certain.filter(({ subjects }) => code === "trap" || !sure.has(subjects.join("\n"))));
    }
    return doubtful.map((candidate): [string, ReadonlySet<string>] => [
      keyOf({ code, subjects: candidate.subjects }),
      factsOf([{ exploration, candidates: [candidate] }]),
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
