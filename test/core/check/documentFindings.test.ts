import { expect, it } from "vitest";
import { FINDINGS } from "../../../src/core/check/findings/all.ts";
import { documentFindings, READ_TWICE } from "../../oracle/documentFindings.ts";
import { amount } from "../../random/amount.ts";
import { randomDocument } from "../../random/documents.ts";
import { wholeDocument } from "../../random/whole.ts";

const DOCUMENTS = amount(4000, 600);

it(`what needs no search is found as a second reading finds it, in ${DOCUMENTS} documents, half of them broken`, () => {
  const differ: string[] = [];
  const met = new Map<string, number>();
  for (let seed = 0; seed < DOCUMENTS; seed++) {
    const project = seed % 2 === 0 ? wholeDocument(seed) : randomDocument(seed, { broken: true, guarded: true, unknown: true, screens: 6, legs: 12 });
    const second = documentFindings(project);
    const kinds = FINDINGS.filter(({ code }) => READ_TWICE.some((one) => one === code));
    const first = new Set(
      kinds.flatMap(({ code, inDocument }) => (inDocument?.(project, new Set()) ?? []).map(({ subjects }) => [code, ...subjects].join(" "))),
    );
    for (const said of first) if (!second.has(said)) differ.push(`seed ${seed}: only the checker says ${said}`);
    for (const said of second) {
      const [code = ""] = said.split(" ");
      met.set(code, (met.get(code) ?? 0) + 1);
      if (!first.has(said)) differ.push(`seed ${seed}: the checker does not say ${said}`);
    }
  }
  expect(differ).toEqual([]);
  expect([...met.keys()].sort()).toEqual([...READ_TWICE].sort());
});
