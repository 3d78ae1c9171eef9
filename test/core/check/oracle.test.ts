import { expect, it } from "vitest";
import { check } from "../../../src/core/check/check.ts";
import { dependsOnWidth } from "../../../src/core/check/system/widths.ts";
import { appOf } from "../../../src/core/insight/app.ts";
import type { Width } from "../../../src/core/model/schema.ts";
import { launch, step } from "../../../src/core/semantics/step.ts";
import { oracle } from "../../oracle/oracle.ts";
import { amount } from "../../random/amount.ts";
import { randomDocument } from "../../random/documents.ts";

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

it(`the checker and the plain search agree on ${DOCUMENTS} random documents, and every walk replays`, () => {
  let compared = 0;
  let findings = 0;
  let possible = 0;
  const wrong: string[] = [];
  const documents = function* (): Generator<{ seed: number; size: typeof USUAL }> {
    for (const seed of ONCE_WRONG) yield { seed, size: USUAL };
    for (const seed of LARGER_ONCE_WRONG) yield { seed, size: LARGER };
    for (let seed = FROM; ; seed++) {
      yield { seed, size: USUAL };
      if (seed % 8 === 0) yield { seed, size: LARGER };
    }
  };
  for (const { seed, size } of documents()) {
    if (compared >= DOCUMENTS) break;
    const project = randomDocument(seed, { guarded: seed % 3 === 0, broken: seed % 5 === 0, ...size });
    const widths: Width[] = dependsOnWidth(project) ? ["narrow", "middle", "wide"] : ["narrow"];
    const expected = widths.map((width) => oracle(project, width, 400, 5).findings);
    if (expected.some((set) => set === undefined)) continue;
    compared += 1;
    const result = check(project);
    const found = result.findings.filter((f) => BEHAVIOUR.has(f.code));
    widths.forEach((width, i) => {
      const here = found.filter((f) => f.widths === undefined || f.widths.includes(width)).map((f) => [f.code, ...f.subjects].join(" "));
      const plain = expected[i] ?? new Set();
      const missed = [...plain].filter((line) => !here.includes(line));
      const extra = here.filter((line) => !plain.has(line));
      if (missed.length + extra.length > 0) wrong.push(`seed ${seed} ${width}: missed ${missed.join("; ") || "none"}; too many ${extra.join("; ") || "none"}`);
    });
    findings += found.length;
    possible += found.filter((f) => f.certainty === "possible").length;
    for (const finding of found) {
      let state = launch(appOf(project));
      for (const event of finding.walk ?? []) {
        const stepped = step(appOf(project), state, event);
        if (stepped.outcome === "ignored")
          wrong.push(`seed ${seed}: the walk of ${finding.code} ${finding.subjects.join(" ")} does not replay at ${JSON.stringify(event)}`);
        state = stepped.state;
      }
    }
  }
  expect(wrong).toEqual([]);
  expect(possible / findings).toBeLessThanOrEqual(0.01);
});
