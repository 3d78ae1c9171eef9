import { currentScreen } from "../engine/state.ts";
import { lookup } from "../model/lookup.ts";
import type { NavEvent, Project, Width } from "../model/schema.ts";
import { abstractProject } from "./abstract.ts";
import { idleLead, silent } from "./behaviour/controls.ts";
import { piledCopies, redirectLoop, refusedMove, returnsToFinished } from "./behaviour/legs.ts";
import { far, leavesBySurprise, unreachable } from "./behaviour/reached.ts";
import { backOnly, deadEnd, stuckModal, trap } from "./behaviour/stuck.ts";
import { documentFindings } from "./document/all.ts";
import type { Exploration } from "./exploration.ts";
import { explore } from "./explore.ts";
import { type CheckResult, type Finding, type Proof, SEVERITIES, type Severity } from "./finding.ts";
import { fixesFor } from "./fixes.ts";
import { type Candidate, type Graph, graphOf, oncePlaces, type Place } from "./graph.ts";
import { type LastStep, witness } from "./witness.ts";

interface BehaviourCode {
  code: string;
  severity: Severity;
  find: (graph: Graph) => Candidate[];
  /** Whether the last step of a walk shows it. */
  shows?: (candidate: Candidate, step: LastStep) => boolean;
}

/** The findings about behaviour, in the order in which they are listed. */
const BEHAVIOUR: readonly BehaviourCode[] = [
  { code: "dead-end", severity: "blocker", find: deadEnd },
  { code: "stuck-modal", severity: "blocker", find: stuckModal },
  { code: "trap", severity: "blocker", find: trap },
  { code: "unreachable", severity: "blocker", find: unreachable },
  { code: "redirect-loop", severity: "blocker", find: redirectLoop, shows: (_, { result }) => result.outcome === "refused" && result.why === "redirect-loop" },
  { code: "refused-move", severity: "blocker", find: refusedMove, shows: ({ subjects }, { refused }) => refused.some(({ leg }) => leg === subjects[0]) },
  { code: "back-only", severity: "warning", find: backOnly },
  {
    code: "piled-copies",
    severity: "warning",
    find: piledCopies,
    shows: ({ subjects }, { copied }) => copied.some(({ leg, place }) => leg === subjects[0] && place === subjects[1]),
  },
  {
    code: "returns-to-finished",
    severity: "warning",
    find: returnsToFinished,
    shows: ({ subjects }, { result, project }) => result.outcome === "moved" && oncePlaces(project, currentScreen(result.state).at).includes(subjects[0] ?? ""),
  },
  {
    code: "leaves-by-surprise",
    severity: "warning",
    find: (graph) => leavesBySurprise(graph, (screen) => oncePlaces(graph.project, screen).length > 0),
    shows: (_, { result }) => result.outcome === "left",
  },
  { code: "silent", severity: "warning", find: silent },
  { code: "idle-lead", severity: "warning", find: idleLead },
];

export interface CheckOptions {
  /** States to look at in each class of widths. */
  states?: number;
  /** Asked now and then; true ends the search, and the proof says that it is not complete. */
  stop?: () => boolean;
}

/**
 * Checks a project: findings about the document and about behaviour, the latter with a walk
 * replayed through `step`, and what was covered. Stacks are followed to any depth; where a
 * project has too many states all the same, the proof says how far the search came.
 */
export function check(project: Project, options: CheckOptions = {}): CheckResult {
  const abstract = abstractProject(project);
  const { explorations, far } = exploreAll(abstract, widthClasses(project), options);
  const graphs = explorations.map(graphOf);
  const findings = [
    ...BEHAVIOUR.flatMap((code) =>
      behaviourFindings(
        code,
        graphs.map((graph) => ({ exploration: graph.exploration, candidates: code.find(graph) })),
      ),
    ),
    ...behaviourFindings({ code: "far", severity: "note" }, far),
    ...documentFindings(project, new Set(graphs.flatMap((graph) => [...graph.hubs]))),
  ].map((finding) => ({
    ...finding,
    fixes: fixesFor(project, finding),
  }));
  const ordered = inOrder(project, findings);
  const accepted = ordered.flatMap((finding) => {
    const entry = project.accepted?.find((a) => a.code === finding.code && a.subjects.join("\n") === finding.subjects.join("\n"));
    return entry ? [{ ...finding, reason: entry.reason }] : [];
  });
  const known = new Set(accepted.map((finding) => `${finding.code} ${finding.subjects}`));
  return { findings: ordered.filter((f) => !known.has(`${f.code} ${f.subjects}`)), accepted, proof: proofOf(project, explorations) };
}

/** What one search found of one code. */
interface FoundIn {
  exploration: Exploration;
  candidates: Candidate[];
}

/** Searches each class of widths. */
function exploreAll(
  abstract: ReturnType<typeof abstractProject>,
  classes: Width[][],
  { states, stop }: CheckOptions,
): { explorations: Exploration[]; far: FoundIn[] } {
  const found: FoundIn[] = [];
  const explorations = classes.map((widths) => {
    const launched = (exploration: Exploration) =>
      found.push({ exploration: { ...exploration, widths }, candidates: withWalks(exploration, far(exploration)) });
    return { ...explore(abstract, widths[0] ?? "narrow", { states, stop, launched }), widths };
  });
  return { explorations, far: found };
}

/** Widths in which the document can not behave differently, together. */
export function widthClasses(project: Project): Width[][] {
  if (!dependsOnWidth(project)) return [["narrow"]];
  if (asksWidth(project)) return [["narrow"], ["middle"], ["wide"]];
  const pinned = (from: "middle" | "wide") => project.containers.some((c) => c.kind === "drawer" && c.pinnedFrom === from);
  const classes: Width[][] = [["narrow"]];
  for (const width of ["middle", "wide"] as const) {
    if (pinned(width)) classes.push([width]);
    else classes.at(-1)?.push(width);
  }
  return classes;
}

/** Whether anything in the document is different from one width to another. */
export function dependsOnWidth(project: Project): boolean {
  return asksWidth(project) || project.containers.some((c) => c.kind === "drawer" && c.pinnedFrom !== "never");
}

function asksWidth(project: Project): boolean {
  const asks = (source: string | undefined) => source !== undefined && /\bwidth\b/.test(source);
  const elements = [...project.screens, ...project.containers].flatMap((place) => place.elements ?? []);
  return (
    project.legs.some((leg) => asks(leg.when) || Object.values(leg.set ?? {}).some(asks)) ||
    elements.some((e) => asks(e.shown) || asks(e.enabled)) ||
    project.entrances.some((e) => asks(e.when))
  );
}

function behaviourFindings({ code, severity, shows }: Pick<BehaviourCode, "code" | "severity" | "shows">, foundIn: FoundIn[]): Finding[] {
  const found = new Map<string, { finding: Finding; widths: Width[] }>();
  for (const { exploration, candidates } of foundIn) {
    for (const candidate of candidates) {
      if (!isKnown(exploration.abstract.original, candidate.subjects[0] ?? "")) continue;
      const key = candidate.subjects.join("\n");
      const known = found.get(key);
      if (known) known.widths.push(...exploration.widths);
      else found.set(key, { finding: behaviourFinding(exploration, code, severity, candidate, shows), widths: [...exploration.widths] });
    }
  }
  const all = foundIn.flatMap(({ exploration }) => exploration.widths).length;
  return [...found.values()].map(({ finding, widths }) => (widths.length === all ? finding : onlyIn(finding, widths)));
}

/** Whether a subject is in the document: an empty screen made for a place that is not there is no subject. */
function isKnown(project: Project, id: string): boolean {
  return lookup(project).places.has(id) || lookup(project).legs.has(id);
}

function behaviourFinding(exploration: Exploration, code: string, severity: Severity, candidate: Candidate, shows: BehaviourCode["shows"]): Finding {
  const common = { code, severity, subjects: candidate.subjects, message: candidate.message, fixes: [] };
  if (!candidate.at)
    return exploration.complete
      ? { ...common, certainty: "certain" }
      : { ...common, message: `${candidate.message} (Possible: not every state was looked at.)`, certainty: "possible" };
  const walk =
    candidate.walk ??
    firstOf(nearest(exploration, candidate.at), ({ node, edge }) => witness(exploration, node, edge, shows && ((step) => shows(candidate, step))));
  if (walk) return { ...common, certainty: "shown", walk };
  return { ...common, message: `${candidate.message} (Possible: the analysis finds it, but no walk was found that shows it.)`, certainty: "possible" };
}

/** Candidates with their walks, looked for now because the search goes on and finds shorter ones by entrances. */
function withWalks(exploration: Exploration, candidates: Candidate[]): Candidate[] {
  return candidates.map((candidate) => ({
    ...candidate,
    walk: firstOf(nearest(exploration, candidate.at ?? []), ({ node, edge }) => witness(exploration, node, edge)),
  }));
}

/** Places at which a walk is looked for before a finding is given as possible only. */
const TRIES = 24;

/** The places nearest to launch. */
function nearest({ nodes }: Exploration, places: readonly Place[]): Place[] {
  const distance = ({ node, edge }: Place) => (nodes[node]?.distance ?? 0) + (edge ? 1 : 0);
  return [...places].sort((a, b) => distance(a) - distance(b)).slice(0, TRIES);
}

function firstOf<T>(list: readonly T[], find: (entry: T) => NavEvent[] | undefined): NavEvent[] | undefined {
  for (const entry of list) {
    const found = find(entry);
    if (found) return found;
  }
  return undefined;
}

function onlyIn(finding: Finding, widths: Width[]): Finding {
  return { ...finding, widths, message: `${finding.message.replace(/\.$/, "")}; only when ${widths.join(" or ")}.` };
}

function inOrder(project: Project, findings: Finding[]): Finding[] {
  const place = new Map<string, number>();
  for (const list of [project.containers, project.screens, project.legs, project.entrances, project.facts])
    for (const { id } of list) if (!place.has(id)) place.set(id, place.size);
  const codes = [...new Set([...BEHAVIOUR.map((b) => b.code), ...findings.map((f) => f.code)])];
  const rank = (f: Finding) => [SEVERITIES.indexOf(f.severity), codes.indexOf(f.code), ...f.subjects.map((id) => place.get(id) ?? place.size)];
  return findings
    .map((finding) => ({ finding, rank: rank(finding) }))
    .sort((a, b) => {
      for (let i = 0; i < Math.max(a.rank.length, b.rank.length); i++) {
        const order = (a.rank[i] ?? -1) - (b.rank[i] ?? -1);
        if (order !== 0) return order;
      }
      return 0;
    })
    .map(({ finding }) => finding);
}

function proofOf(project: Project, explorations: Exploration[]): Proof {
  const complete = explorations.every((e) => e.complete);
  const within = Math.min(Number.MAX_SAFE_INTEGER, ...explorations.flatMap((e) => e.nodes.flatMap((node) => (node.followed ? [] : [node.distance]))));
  return {
    states: explorations.reduce((sum, e) => sum + e.nodes.length, 0),
    depth: complete ? "any" : within,
    complete,
    entrances: project.entrances.map((e) => e.id),
    widths: explorations.flatMap((e) => e.widths),
    factCombinations: new Set(explorations.flatMap((e) => e.nodes.map((node) => JSON.stringify(node.state.facts)))).size,
    screens: project.screens.length,
  };
}
