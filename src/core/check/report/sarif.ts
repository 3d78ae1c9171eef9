import { eventText } from "../../insight/explain.ts";
import type { Position } from "../../model/positions.ts";
import type { NavEvent, Project } from "../../model/schema.ts";
import type { CheckResult, Finding, Severity } from "../finding.ts";
import { kindOf } from "../findings/all.ts";

const LEVELS: Record<Severity, string> = { blocker: "error", warning: "warning", note: "note" };

/**
 * A check as a SARIF 2.1.0 log (OASIS standard of 2020-03-27), each result at the line and column of
 * its main subject in the file: by the paths of the document, such as `screens[3]`.
 */
export function sarifReport(file: string, places: ReadonlyMap<string, Position>, project: Project, { findings, accepted }: CheckResult): object {
  const all: Array<Finding & { reason?: string }> = [...findings, ...accepted];
  const codes = [...new Set(all.map((finding) => finding.code))].sort();
  const uri = file === "-" ? "stdin" : encodeURI(file.replaceAll("\\", "/"));
  return {
    $schema: "https://docs.oasis-open.org/sarif/sarif/v2.1.0/errata01/os/schemas/sarif-schema-2.1.0.json",
    version: "2.1.0",
    runs: [
      {
        tool: {
          driver: {
            name: "etape",
            rules: codes.map((id) => ({
              id,
              shortDescription: { text: kindOf(id)?.says ?? id },
              ...(kindOf(id) ? { fullDescription: { text: kindOf(id)?.help }, help: { text: kindOf(id)?.help } } : {}),
            })),
          },
        },
        columnKind: "utf16CodeUnits",
        results: all.map((finding) => ({
          ruleId: finding.code,
          ruleIndex: codes.indexOf(finding.code),
          level: LEVELS[finding.severity],
          message: { text: finding.message },
          locations: [
            {
              physicalLocation: { artifactLocation: { uri }, region: region(places, project, finding.subjects) },
              logicalLocations: finding.subjects.map((name) => ({ name })),
            },
          ],
          // The same finding has the same one in every version of the document, whatever line it stands on.
          partialFingerprints: { "codeAndSubjects/v1": [finding.code, ...finding.subjects].join(" ") },
          ...(finding.walk ? { codeFlows: [codeFlow(places, project, uri, finding.walk)] } : {}),
          ...(finding.reason === undefined ? {} : { suppressions: [{ kind: "external", justification: finding.reason }] }),
          properties: {
            certainty: finding.certainty,
            ...(finding.open ? { open: true } : {}),
            ...(finding.walk ? { walk: finding.walk } : {}),
            ...(finding.widths ? { widths: finding.widths } : {}),
          },
        })),
      },
    ],
  };
}

/** The walk that shows a finding, event by event, each at what it uses in the document. */
function codeFlow(places: ReadonlyMap<string, Position>, project: Project, uri: string, walk: readonly NavEvent[]) {
  const used = (event: NavEvent) => (event.do === "leg" ? event.leg : event.do === "enter" ? event.entrance : "to" in event ? event.to : project.root);
  const steps: Array<{ subject: string; says: string }> = [
    { subject: project.root, says: "launch" },
    ...walk.map((event) => ({ subject: used(event), says: eventText(project, event) })),
  ];
  const locations = steps.map(({ subject, says }) => ({
    location: { physicalLocation: { artifactLocation: { uri }, region: region(places, project, [subject]) }, message: { text: says } },
  }));
  return { threadFlows: [{ locations }] };
}

function region(places: ReadonlyMap<string, Position>, project: Project, subjects: readonly string[]) {
  const at = places.get(subjectPath(project, subjects)) ?? places.get("") ?? { line: 1, column: 1 };
  return { startLine: at.line, startColumn: at.column };
}

/** The path of the most exact subject that the document holds: an element or parameter of the main one, else that itself. */
export function subjectPath(project: Project, subjects: readonly string[]): string {
  const [main = "", detail] = subjects;
  for (const kind of ["containers", "screens", "legs", "entrances", "facts"] as const) {
    const at = project[kind].findIndex((entry) => entry.id === main);
    if (at < 0) continue;
    const entry = project[kind][at];
    const element = entry && "elements" in entry ? (entry.elements ?? []).findIndex((e) => e.id === detail) : -1;
    if (element >= 0) return `${kind}[${at}].elements[${element}]`;
    const param = entry && "params" in entry ? entry.params.findIndex((p) => p.name === detail) : -1;
    return param >= 0 ? `${kind}[${at}].params[${param}]` : `${kind}[${at}]`;
  }
  const rule = project.rules?.findIndex(({ id }) => id === main) ?? -1;
  return rule >= 0 ? `rules[${rule}]` : "";
}
