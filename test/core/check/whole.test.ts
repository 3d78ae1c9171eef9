import { expect, it } from "vitest";
import { check } from "../../../src/core/check/check.ts";
import { FINDINGS } from "../../../src/core/check/findings/all.ts";
import { widthClasses } from "../../../src/core/check/system/widths.ts";
import type { Project } from "../../../src/core/model/schema.ts";
import { oracle } from "../../oracle/oracle.ts";
import { showsWhatItSays } from "../../oracle/shown.ts";
import { amount } from "../../random/amount.ts";
import { featuresOf, wholeDocument, wholeEvents, withoutArguments } from "../../random/whole.ts";

const DOCUMENTS = Number(process.env.WHOLE_DOCUMENTS ?? amount(120, 15));
const FROM = Number(process.env.WHOLE_FROM ?? 0);
const WALKED = amount(60, 4);
/** What the plain search looks for. Idle legs are left to their cases: it does not keep what was ignored. */
const COMPARED = new Set(FINDINGS.filter(({ code, inSearch }) => (inSearch && code !== "idle-leg") || code === "far").map(({ code }) => code));

/** Documents that the plain search can finish in every width, with what it finds. */
function* finished(): Generator<{ seed: number; project: Project; expected: Array<{ widths: string[]; lines: Set<string> }> }> {
  for (let seed = FROM, found = 0; found < DOCUMENTS; seed++) {
    const project = withoutArguments(wholeDocument(seed));
    const expected = widthClasses(project).map((widths) => ({
      widths,
      lines: oracle(project, widths[0] ?? "narrow", 250, 6, wholeEvents(project)).findings,
    }));
    const all = expected.flatMap(({ widths, lines }) => (lines ? [{ widths, lines }] : []));
    if (all.length < expected.length) continue;
    found += 1;
    yield { seed, project, expected: all };
  }
}

it(`on ${DOCUMENTS} documents in which everything of the model occurs, the checker and the plain search agree, and every walk replays`, () => {
  const wrong: string[] = [];
  const counts = { findings: 0, possible: 0 };
  const features = new Map<string, number>();
  for (const { seed, project, expected } of finished()) {
    for (const feature of new Set(featuresOf(project))) features.set(feature, (features.get(feature) ?? 0) + 1);
    const found = check(project, { fixes: false }).findings.filter(({ code }) => COMPARED.has(code));
    for (const { widths, lines } of expected) {
      const here = found.filter((f) => f.widths === undefined || widths.some((width) => f.widths?.some((one) => one === width)));
      const named = new Set(here.map((f) => [f.code, ...f.subjects].join(" ")));
      const missed = [...lines].filter((line) => !named.has(line));
      const extra = [...named].filter((line) => !lines.has(line));
      if (missed.length + extra.length > 0) wrong.push(`seed ${seed} ${widths}: missed ${missed.join("; ") || "none"}; too many ${extra.join("; ") || "none"}`);
    }
    counts.findings += found.length;
    counts.possible += found.filter((f) => f.certainty === "possible").length;
    for (const finding of found)
      if (finding.certainty === "shown" && !showsWhatItSays(project, finding))
        wrong.push(`seed ${seed}: the walk of ${finding.code} ${finding.subjects.join(" ")} does not show it: ${JSON.stringify(finding.walk)}`);
  }
  const rare = [...features].filter(([, count]) => count < DOCUMENTS / 40).map(([feature, count]) => `${feature} ${count}`);
  process.stdout.write(`whole documents: ${JSON.stringify(counts)}; ${features.size} features, rare ones: ${rare.join(", ") || "none"}\n`);
  expect(wrong).toEqual([]);
  expect(counts.possible / counts.findings).toBeLessThanOrEqual(0.01);
  for (const feature of [
    "tabs.onBack=previous",
    "drawer.pinnedFrom=middle",
    "modal.blocks=false",
    "entrance.resume=true",
    "push.tidy=source",
    "on depart.kind=depart",
  ])
    expect(features.get(feature) ?? 0, feature).toBeGreaterThan(0);
});

it("walks show what they say where arguments, rows and typed text matter too", () => {
  const wrong: string[] = [];
  let walks = 0;
  for (let seed = FROM; seed < FROM + WALKED; seed++) {
    const project = wholeDocument(seed);
    for (const finding of check(project, { fixes: false, states: 1500 }).findings) {
      if (finding.certainty !== "shown") continue;
      walks += 1;
      if (!showsWhatItSays(project, finding)) wrong.push(`seed ${seed}: ${finding.code} ${finding.subjects.join(" ")}: ${JSON.stringify(finding.walk)}`);
    }
  }
  expect(wrong).toEqual([]);
  expect(walks).toBeGreaterThan(2 * WALKED);
});
