import type { Project } from "../model/schema.ts";
import { type CheckResult, type Finding, type Proof, SEVERITIES } from "./finding.ts";
import { FINDINGS, kindOf } from "./findings/all.ts";
import { fixesFor } from "./fixes/fixes.ts";
import type { CheckOptions } from "./options.ts";
import { refined } from "./refine/refine.ts";
import { checkRules } from "./rules/rules.ts";
import type { Exploration } from "./system/exploration.ts";

/**
 * Checks a project: findings about the document and about behaviour, the latter with a walk
 * replayed through `step`, and what was covered. Stacks are followed to any depth; where a
 * project has too many states all the same, the proof says how far the search came.
 */
export function check(project: Project, options: CheckOptions = {}): CheckResult {
  const { findings: usual, explorations } = refined(project, options);
  const rules = checkRules(project, explorations, options);
  const findings = [...usual, ...rules.findings];
  options.explored?.(explorations);
  const ordered = inOrder(
    project,
    findings.map((finding) => ({
      ...finding,
      ...(kindOf(finding.code)?.open?.(project, finding.subjects) ? { open: true } : {}),
      fixes: options.fixes === false ? [] : fixesFor(project, finding),
    })),
  );
  const accepted = ordered.flatMap((finding) => {
    const entry = project.accepted?.find((a) => a.code === finding.code && a.subjects.join("\n") === finding.subjects.join("\n"));
    return entry ? [{ ...finding, reason: entry.reason }] : [];
  });
  const known = new Set(accepted.map((finding) => `${finding.code} ${finding.subjects}`));
  return {
    findings: ordered.filter((f) => !known.has(`${f.code} ${f.subjects}`)),
    accepted,
    proof: { ...proofOf(project, explorations), ...(rules.standings.length > 0 ? { rules: rules.standings } : {}) },
  };
}

function inOrder(project: Project, findings: Finding[]): Finding[] {
  const place = new Map<string, number>();
  for (const list of [project.containers, project.screens, project.legs, project.entrances, project.facts, project.rules ?? []])
    for (const { id } of list) if (!place.has(id)) place.set(id, place.size);
  const codes = [...new Set([...FINDINGS.flatMap(({ code, inDocument }) => (inDocument ? [] : [code])), ...findings.map((f) => f.code)])];
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
  const within = Math.min(...explorations.flatMap((e) => e.nodes.flatMap((node) => (node.followed ? [] : [node.distance]))));
  return {
    states: explorations.reduce((sum, e) => sum + e.nodes.length, 0),
    // Where the search stopped in the middle of its launches, nothing was looked at whole.
    depth: complete ? "any" : Number.isFinite(within) ? within : 0,
    complete,
    entrances: project.entrances.map((e) => e.id),
    widths: explorations.flatMap((e) => e.widths),
    factCombinations: factCombinations(project, explorations),
    screens: project.screens.length,
  };
}

/** Values of the app's facts together: those met of the facts that were followed, times all of the others, which may have had any. */
function factCombinations(project: Project, explorations: Exploration[]): number {
  const followed = new Set(explorations.flatMap((e) => [...e.abstraction.precision.follows]));
  const met = new Set(explorations.flatMap((e) => e.nodes.map((node) => JSON.stringify(node.state.facts)))).size;
  const others = project.facts.filter((fact) => fact.source === "app" && !followed.has(fact.id));
  return others.reduce((product, fact) => product * (fact.type === "choice" ? (fact.values?.length ?? 1) : 2), met);
}
