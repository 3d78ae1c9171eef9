import type { Project, Width } from "../model/schema.ts";
import { abstractionOf } from "./system/abstraction.ts";
import { type Beams, beamsOf } from "./beams.ts";
import { BEHAVIOUR, type BehaviourCode } from "./behaviour/all.ts";
import { far, tapWays } from "./behaviour/reached.ts";
import { factAsked } from "./system/choices.ts";
import { documentFindings } from "./document/all.ts";
import { HELPS } from "./escape.ts";
import { behaviourFindings, type FoundIn } from "./evidence.ts";
import type { Edge, Exploration } from "./system/exploration.ts";
import { explore } from "./system/explore.ts";
import type { Finding } from "./finding.ts";
import type { Abstraction } from "./system/abstraction.ts";
import { coarse, closest, type Precision } from "./system/precision.ts";
import { graphOf } from "./graph.ts";
import type { CheckOptions } from "./options.ts";
import { firstLost } from "./replayed.ts";
import { widthClasses } from "./system/widths.ts";

export interface Found {
  findings: Finding[];
  explorations: Exploration[];
}

/** Facts that a doubt rests on. */
type Doubt = ReadonlySet<string>;

/** Places of a candidate whose facts are looked at. */
const PLACES = 3;

/** Times that a project is followed a little more closely before it is followed as closely as can be. */
const ROUNDS = 4;

/**
 * The findings of a project, in no order. It is followed coarsely first. Coarse states stand for more than there is, and nobody is
 * helped by what nobody chooses, so what is not found is not there; but what is found must hold without
 * what was left out, and everything met must replay. What does not is a doubt; the facts that it rests on
 * are followed the next time (counterexample-guided abstraction refinement, Clarke, Grumberg, Jha, Lu and Veith 2000).
 */
export function refined(project: Project, options: CheckOptions): Found {
  const all = new Set(project.facts.filter((fact) => fact.source === "app").map((fact) => fact.id));
  let facts = setAtOnce(project, all);
  for (let round = 0; round < ROUNDS; round++) {
    const found = findAt(project, coarse(facts), options);
    if ("findings" in found) return found;
    const more = new Set([...facts, ...found.doubt]);
    if (more.size === facts.size) break;
    facts = more;
  }
  const found = findAt(project, closest(project), options);
  if (!("findings" in found)) return { findings: [], explorations: [] };
  // No fewer states are met with nothing hidden, so there is no use in trying where there are too many already.
  const few = found.explorations.every(({ complete, nodes }) => complete && nodes.filter(({ pending }) => !pending).length <= WHOLE_STATES);
  return few && found.findings.some(isUnsure) ? (wholly(project, options) ?? found) : found;
}

/** States of a class of widths up to which a project is followed with nothing hidden. */
const WHOLE_STATES = 800;

/** Hidden lanes and rests stand for more than they may hold at once. No walk shows some finding, or a trap may name a screen too many. */
function isUnsure({ code, certainty }: Finding): boolean {
  return certainty === "possible" || code === "trap";
}

/** The findings with nothing hidden; undefined where there are too many states for that. */
function wholly(project: Project, options: CheckOptions): Found | undefined {
  const states = Math.min(WHOLE_STATES, options.states ?? WHOLE_STATES);
  const found = findAt(project, { ...closest(project), whole: true }, { ...options, states });
  return "findings" in found ? found : undefined;
}

/** Facts that legs set which fire within another event: they decide how that event goes on. */
function setAtOnce(project: Project, all: ReadonlySet<string>): ReadonlySet<string> {
  const within = project.legs.filter((leg) => leg.on.kind === "arrive" || leg.on.kind === "depart");
  return new Set(within.flatMap((leg) => Object.keys(leg.set ?? {})).filter((id) => all.has(id)));
}

/** The findings by following the project as closely as said, or what makes them doubtful. */
function findAt(project: Project, precision: Precision, options: CheckOptions): Found | { doubt: Doubt } {
  const abstraction = abstractionOf(project, precision);
  const { explorations, far, doubt } = exploreAll(abstraction, widthClasses(project), options);
  if (process.env.TRACE) console.error(`explored facts=${[...precision.facts]} contexts=${precision.contexts} apart=${precision.apart} whole=${precision.whole} states=${explorations.map((e) => e.nodes.length)} edges=${explorations.map((e) => e.nodes.reduce((n, x) => n + x.edges.length, 0))} doubt=${doubt && [...doubt]} ${Math.round(performance.now())}ms`);
  if (doubt) return { doubt };
  if (!abstraction.closest && abstraction.chooser.truncated) return { doubt: new Set() };
  if (process.env.TRACE) console.error(`level facts=${[...precision.facts]} contexts=${precision.contexts} apart=${precision.apart} whole=${precision.whole} states=${explorations.map((e) => e.nodes.length)} edges=${explorations.map((e) => e.nodes.reduce((n, x) => n + x.edges.length, 0))} doubt=${doubt && [...doubt]} ${Math.round(performance.now())}ms`);
  const stopped = explorations.some((exploration) => !exploration.complete);
  if (precision.whole && stopped) return { doubt: new Set() };
  // Where the search was stopped there is no closer look: facts that are not followed then count for the user.
  const graphs = explorations.map((exploration) => graphOf(exploration, !stopped));
  const found = BEHAVIOUR.map((code) => ({
    code,
    foundIn: graphs.map((graph) => ({ exploration: graph.exploration, candidates: code.find(graph).filter(({ doubtful }) => !stopped || !doubtful) })),
  }));
  if (!abstraction.closest && !stopped) {
    const doubt = doubtAbout(found);
    if (process.env.TRACE && doubt) console.error("doubtAbout", [...doubt]);
    if (doubt) return { doubt };
  }
  const findings = [
    ...found.flatMap(({ code, foundIn }) => behaviourFindings(code, foundIn)),
    ...behaviourFindings({ code: "far", severity: "note" }, far),
    ...documentFindings(project, new Set(graphs.flatMap((graph) => [...graph.hubs]))),
  ];
  if (process.env.TRACE) console.error(`found ${Math.round(performance.now())}ms lost ${findings.filter((f) => f.certainty === "possible").map((f) => f.code + f.subjects)}`);
  const lost = abstraction.closest || stopped ? undefined : findings.find((finding) => finding.certainty === "possible");
  return lost ? { doubt: doubtOf(found.filter(({ code }) => code.code === lost.code).flatMap(({ foundIn }) => foundIn)) } : { findings, explorations };
}

/** Searches each class of widths; a doubt where something met does not replay. */
function exploreAll(
  abstraction: Abstraction,
  classes: Width[][],
  { states, stop }: CheckOptions,
): { explorations: Exploration[]; far: FoundIn[]; doubt: Doubt | undefined } {
  const found: FoundIn[] = [];
  let doubt: Doubt | undefined;
  const explorations: Exploration[] = [];
  for (const widths of classes) {
    const met = new Set<string>();
    const replay = (exploration: Exploration, ends: Iterable<number>, beams: Beams) => {
      if (abstraction.closest || !exploration.complete || doubt) return;
      const lost = firstLost(exploration, met, ends, beams);
      if (lost) doubt = new Set(lost.flatMap((edge) => factsIn(edge)));
    };
    // Ways from launch are looked for now, because the search goes on and finds shorter ones by entrances.
    const launched = (exploration: Exploration) => {
      const ways = tapWays(exploration);
      replay(exploration, ways.reached.keys(), ways.beams);
      if (!doubt) found.push({ exploration: { ...exploration, widths }, candidates: far(exploration, ways) });
      return doubt === undefined;
    };
    const width = widths[0] ?? "narrow";
    const exploration = { ...explore(abstraction, width, { states, stop, launched, }), widths };
    replay(exploration, nearestFirst(exploration), beamsOf(exploration));
    explorations.push(exploration);
    if (doubt || (abstraction.precision.whole && !exploration.complete)) break;
  }
  return { explorations, far: found, doubt };
}

/** The states of a search, the nearest first. */
function nearestFirst({ nodes }: Exploration): number[] {
  return [...nodes.keys()].sort((a, b) => (nodes[a]?.distance ?? 0) - (nodes[b]?.distance ?? 0));
}

/** The facts that something found rests on, where it would not be found if they turned out as the user would choose; undefined where nothing does. */
function doubtAbout(found: Array<{ code: BehaviourCode; foundIn: FoundIn[] }>): Doubt | undefined {
  for (const { code, foundIn } of found)
    for (const { exploration, candidates } of foundIn) {
      const doubtful = candidates.filter((candidate) => candidate.doubtful);
      const certain = candidates.filter((candidate) => !candidate.ifShown);
      if (code.code in HELPS && certain.length > 0) {
        // A trap names all screens in it, of which a walk shows only one.
        if (code.code === "trap") return doubtOf([{ exploration, candidates: certain }]);
        const sure = new Set(code.find(graphOf(exploration, false)).map(({ subjects }) => subjects.join("\n")));
        doubtful.push(...certain.filter(({ subjects }) => !sure.has(subjects.join("\n"))));
      }
      if (doubtful.length > 0) return doubtOf([{ exploration, candidates: doubtful }]);
    }
  return undefined;
}

/** The facts asked on the way to where candidates show, and there. */
function doubtOf(found: readonly FoundIn[]): Doubt {
  const facts = new Set<string>();
  for (const { exploration, candidates } of found)
    for (const { node } of candidates.flatMap((candidate) => candidate.at?.slice(0, PLACES) ?? []))
      for (const edge of [...beamsOf(exploration).steps(node), ...(exploration.nodes[node]?.edges ?? [])]) for (const fact of factsIn(edge)) facts.add(fact);
  return facts;
}

function factsIn(edge: Edge): string[] {
  return edge.choices.flatMap((choice) => factAsked(choice) ?? []);
}
