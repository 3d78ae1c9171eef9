import { elementsOf, lookup, nameOf } from "../../model/lookup.ts";
import type { Project } from "../../model/schema.ts";
import type { Severity } from "../draw/look.ts";
import { counted, type LensGiven, type LensViewer, type Seen } from "./lens.ts";

const ORDER: readonly Severity[] = ["blocker", "warning", "note"];
const TONES = { blocker: "urgent", warning: "warm", note: "s1" } as const;

/** Where the checker found something, the worst of each place. */
export const findings: LensViewer = (project, _, { findings = [] }) => {
  const at = byPlace(project, findings);
  const places = new Map<string, Seen>();
  for (const [place, list] of at) {
    const worst = ORDER.find((severity) => list.some((finding) => finding.severity === severity)) ?? "note";
    places.set(place, { tone: TONES[worst], says: String(list.length), long: list.map(({ message }) => message).join(" ") });
  }
  const of = (severity: Severity) => findings.filter((finding) => finding.severity === severity && !finding.open);
  const ends = findings.filter(({ open }) => open);
  return {
    id: "findings",
    question: "What is wrong, and where?",
    places,
    legend: [
      { tone: "urgent", says: "blockers", count: of("blocker").length },
      { tone: "warm", says: "warnings", count: of("warning").length },
      { tone: "s1", says: "notes", count: of("note").length },
      { tone: "none", says: "open ends", count: ends.length },
    ],
    extremes: [
      findings.length === 0 ? "Nothing is wrong." : (findings.find(({ open }) => !open)?.message ?? `Nothing is wrong; ${counted(ends.length, "open end")}.`),
    ],
    list: [...at]
      .sort(([, a], [, b]) => b.length - a.length)
      .map(([place, list]) => ({ place, says: nameOf(project, place), note: counted(list.length, "finding") })),
  };
};

/** Findings by the places that they speak of; those of a leg or an element belong to where it starts. */
function byPlace(project: Project, findings: NonNullable<LensGiven["findings"]>) {
  const { places, legs } = lookup(project);
  const at = new Map<string, Array<(typeof findings)[number]>>();
  for (const finding of findings) {
    const [first = ""] = finding.subjects;
    const place = places.has(first) ? first : (legs.get(first)?.from ?? finding.subjects.find((id) => places.has(id)) ?? ownerOf(project, first));
    if (place !== undefined) at.set(place, [...(at.get(place) ?? []), finding]);
  }
  return at;
}

function ownerOf(project: Project, element: string): string | undefined {
  return [...project.screens, ...project.containers].find(({ id }) => elementsOf(project, id).some((one) => one.id === element))?.id;
}
