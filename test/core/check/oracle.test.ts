import { expect, it } from "vitest";
import { check } from "../../../src/core/check/check.ts";
import { dependsOnWidth } from "../../../src/core/check/system/widths.ts";
import { appOf } from "../../../src/core/insight/app.ts";
import type { Project, Width } from "../../../src/core/model/schema.ts";
import { launch, step } from "../../../src/core/semantics/step.ts";
import { oracle } from "../../oracle/oracle.ts";
import { amount } from "../../random/amount.ts";
import { randomDocument, switchedDocument } from "../../random/documents.ts";

const BEHAVIOUR = new Set([
  "dead-end",
  "stuck-modal",
  "trap",
  "unreachable",
  "redirect-loop",
  "refused-move",
  "back-only",
  "piled-copies",
  "returns-to-finished",
  "leaves-by-surprise",
  "silent",
  "idle-lead",
  "far",
]);
const DOCUMENTS = Number(process.env.ORACLE_DOCUMENTS ?? amount(2000, 150));
const FROM = Number(process.env.ORACLE_FROM ?? 0);

/** Documents on which the two once disagreed. */
const ONCE_WRONG = [
  34, 101, 116, 175, 185, 221, 233, 300, 316, 912, 1020, 1548, 1584, 1650, 2025, 5213, 5850, 6423, 6646, 3012, 10866, 12393, 12790, 15150, 7263, 13763, 21588,
  22601, 40596, 43466, 43474, 45701, 68109, 3435, 522, 1640, 1648, 1703, 102234, 301752, 302067, 400182, 802371, 1001207, 2002829, 3001600,
];

/** How large documents are: most of one container beside the outermost, so that the plain search ends; one in eight larger. */
const USUAL = { screens: 4, legs: 6, containers: 1 };
const LARGER = { screens: 5, legs: 9, containers: 2 };
const LARGER_ONCE_WRONG = [50955, 51851];

/** Documents with many facts that are compared. */
const SWITCHED = Math.ceil(DOCUMENTS / 10);

/** What is compared of a document, and how the two differ there. */
interface Compared {
  findings: number;
  possible: number;
  wrong: string[];
}

/** Holds what is found of a document against the plain search, and its walks against `step`; undefined where the plain search does not end. */
function compared(name: string, project: Project, { states, settled }: Comparison): Compared | undefined {
  const widths: Width[] = dependsOnWidth(project) ? ["narrow", "middle", "wide"] : ["narrow"];
  const expected = widths.map((width) => oracle(project, width, states, 5).findings);
  if (expected.some((set) => set === undefined)) return undefined;
  const wrong: string[] = [];
  const found = check(project).findings.filter((f) => BEHAVIOUR.has(f.code));
  widths.forEach((width, i) => {
    const here = found.filter((f) => f.widths === undefined || f.widths.includes(width)).map((f) => [f.code, ...f.subjects].join(" "));
    const plain = expected[i] ?? new Set();
    const missed = [...plain].filter((line) => !here.includes(line));
    const unsettled = new Set(settled ? [] : found.filter((f) => f.certainty === "possible").map((f) => [f.code, ...f.subjects].join(" ")));
    const extra = here.filter((line) => !plain.has(line) && !unsettled.has(line));
    if (missed.length + extra.length > 0) wrong.push(`${name} ${width}: missed ${missed.join("; ") || "none"}; too many ${extra.join("; ") || "none"}`);
  });
  for (const finding of found) {
    let state = launch(appOf(project));
    for (const event of finding.walk ?? []) {
      const stepped = step(appOf(project), state, event);
      if (stepped.outcome === "ignored")
        wrong.push(`${name}: the walk of ${finding.code} ${finding.subjects.join(" ")} does not replay at ${JSON.stringify(event)}`);
      state = stepped.state;
    }
  }
  return { findings: found.length, possible: found.filter((f) => f.certainty === "possible").length, wrong };
}

/** States that the plain search goes through, and whether all must be settled: or what is said to be possible need not be so. */
interface Comparison {
  states: number;
  settled: boolean;
}

/** Compares so many documents that the plain search can finish. */
function compareAll(documents: Iterable<{ name: string; project: Project }>, count: number, comparison: Comparison) {
  const all: Compared[] = [];
  for (const { name, project } of documents) {
    if (all.length >= count) break;
    const one = compared(name, project, comparison);
    if (one) all.push(one);
  }
  const sum = (what: "findings" | "possible") => all.reduce((total, one) => total + one[what], 0);
  expect(all.flatMap(({ wrong }) => wrong)).toEqual([]);
  expect(sum("possible") / sum("findings")).toBeLessThanOrEqual(0.01);
}

it(`the checker and the plain search agree on ${DOCUMENTS} random documents, and every walk replays`, () => {
  const document = (seed: number, size: typeof USUAL) => ({
    name: `seed ${seed}`,
    project: randomDocument(seed, { guarded: seed % 3 === 0, broken: seed % 5 === 0, ...size }),
  });
  const documents = function* () {
    for (const seed of ONCE_WRONG) yield document(seed, USUAL);
    for (const seed of LARGER_ONCE_WRONG) yield document(seed, LARGER);
    for (let seed = FROM; ; seed++) {
      yield document(seed, USUAL);
      if (seed % 8 === 0) yield document(seed, LARGER);
    }
  };
  compareAll(documents(), DOCUMENTS, { states: 400, settled: true });
});

it(`and on ${SWITCHED} with five switches more`, () => {
  const documents = function* () {
    for (let seed = FROM; ; seed++) yield { name: `switched ${seed}`, project: switchedDocument(seed) };
  };
  compareAll(documents(), SWITCHED, { states: 2_500, settled: false });
});
