import { comparePatterns, segmentsOf } from "../../model/address.ts";
import type { Project } from "../../model/schema.ts";
import type { FindingKind, Found } from "./kind.ts";

export const linkClash: FindingKind = {
  code: "link-clash",
  severity: "blocker",
  says: "two addresses that can be one and the same",
  help: "An address matches both patterns, and neither goes first: segment by segment, a literal goes before a variable, and a variable before the rest of the path.",
  subjects: "both ways in",
  inDocument: find,
};

/** Pairs of entrances whose patterns match one and the same address. */
function find(project: Project): Found[] {
  const links = project.entrances.filter((e) => e.pattern !== undefined);
  return links.flatMap((a, i) =>
    links
      .slice(i + 1)
      .filter((b) => comparePatterns(a.pattern ?? "", b.pattern ?? "") === 0 && clash(a.pattern ?? "", b.pattern ?? ""))
      .map((b) => ({
        subjects: [a.id, b.id],
        message: `The addresses ${a.pattern} and ${b.pattern} can be one and the same; which way in is meant can not be told.`,
      })),
  );
}

function clash(a: string, b: string): boolean {
  const [x, y] = [segmentsOf(a), segmentsOf(b)];
  for (let i = 0; ; i++) {
    const [p, q] = [x[i], y[i]];
    if (p === undefined || q === undefined) return p === q;
    if (p.includes("{+")) return meet(p.replace("{+", "{"), q);
    if (q.includes("{+")) return meet(p, q.replace("{+", "{"));
    if (!meet(p, q)) return false;
  }
}

/** Whether two segments, each with at most one variable, can be the same text. */
function meet(p: string, q: string): boolean {
  const [a, b] = [around(p), around(q)];
  if (!a && !b) return p === q;
  if (!a || !b) {
    const [fixed, open] = a ? [q, a] : [p, b as [string, string]];
    return fixed.length > open[0].length + open[1].length && fixed.startsWith(open[0]) && fixed.endsWith(open[1]);
  }
  const prefix = a[0].startsWith(b[0]) || b[0].startsWith(a[0]);
  return prefix && (a[1].endsWith(b[1]) || b[1].endsWith(a[1]));
}

function around(segment: string): [string, string] | undefined {
  const match = /^([^{]*)\{[^}]*\}(.*)$/.exec(segment);
  return match ? [match[1] ?? "", match[2] ?? ""] : undefined;
}
