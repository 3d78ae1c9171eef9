import { expect, it } from "vitest";
import { check } from "../../../src/core/check/check.ts";
import { dependsOnWidth } from "../../../src/core/check/system/widths.ts";
import { appOf } from "../../../src/core/insight/app.ts";
import type { Project } from "../../../src/core/model/schema.ts";
import { currentScreen } from "../../../src/core/semantics/state.ts";
import { launch, step } from "../../../src/core/semantics/step.ts";
import { lostWithin, meets } from "../../oracle/bounded.ts";
import { hubsOf, metWithin } from "../../oracle/oracle.ts";
import { amount } from "../../random/amount.ts";
import { randomDocument } from "../../random/documents.ts";

const DOCUMENTS = Number(process.env.ENDLESS_DOCUMENTS ?? amount(100, 10));
const FROM = Number(process.env.ENDLESS_FROM ?? 0);
const LOST = ["dead-end", "stuck-modal", "trap"];

/** Documents whose stacks have no end, with who is lost in them as far as a bounded search can tell. */
function* endless(): Generator<{ seed: number; project: Project; lost: NonNullable<ReturnType<typeof lostWithin>> }> {
  for (let seed = FROM, found = 0; found < DOCUMENTS; seed++) {
    const project = randomDocument(seed, { guarded: seed % 3 === 0, screens: 4, legs: 7, containers: 1 });
    if (dependsOnWidth(project)) continue;
    const lost = lostWithin(project, "narrow", 4, 1500);
    if (!lost?.endless) continue;
    found += 1;
    yield { seed, project, lost };
  }
}

it(`on ${DOCUMENTS} random documents whose stacks have no end, nobody is lost who is not reported, and nobody is reported who is not lost`, () => {
  const wrong: string[] = [];
  const counts = { documents: 0, lost: 0, reported: 0, possible: 0, possibleTraps: 0, met: 0 };
  for (const { seed, project, lost } of endless()) {
    const { findings } = check(project);
    const found = findings.filter((f) => LOST.includes(f.code));
    const named = (code: string) => new Set(found.flatMap((f) => (f.code === code ? f.subjects : [])));
    const missed = [
      ...[...lost.dead].filter((id) => !named("dead-end").has(id)).map((id) => `dead-end ${id}`),
      ...[...lost.stuck].filter((id) => !named("stuck-modal").has(id)).map((id) => `stuck-modal ${id}`),
      ...[...lost.trap].filter((id) => !named("trap").has(id) && !named("dead-end").has(id)).map((id) => `trap ${id}`),
    ];
    const all = new Set(findings.map(({ code, subjects }) => [code, ...subjects].join(" ")));
    const met = metWithin(project, "narrow", 1500, 4);
    missed.push(...[...met.findings].filter((line) => !all.has(line)));
    counts.met += met.findings.size;
    if (missed.length > 0) wrong.push(`seed ${seed}: missed ${missed.join("; ")}`);
    for (const { code, subjects, message } of findings) {
      const [id = ""] = subjects;
      if (code === "unreachable" && met.shown.has(id)) wrong.push(`seed ${seed}: ${id} is met after all`);
      const taps = met.taps.get(id);
      if (code === "far" && taps !== undefined && taps < Number(/is (\d+) taps/.exec(message)?.[1])) wrong.push(`seed ${seed}: ${id} is ${taps} taps away`);
    }
    const hubs = hubsOf(project, currentScreen(launch(appOf(project))).at);
    for (const f of found.filter((one) => one.certainty === "shown")) {
      const end = (f.walk ?? []).reduce((state, event) => step(appOf(project), state, event).state, launch(appOf(project)));
      const helped =
        f.code === "trap"
          ? meets(project, end, (state) => hubs.has(currentScreen(state).at), 1200)
          : f.code === "stuck-modal" && meets(project, end, (state) => state.layers.every((layer) => layer.at !== f.subjects[0]), 1200);
      if (helped) wrong.push(`seed ${seed}: ${f.code} ${f.subjects.join(" ")} is helped after all`);
    }
    counts.documents += 1;
    counts.lost += lost.dead.size + lost.stuck.size + lost.trap.size > 0 ? 1 : 0;
    counts.reported += found.length;
    const possible = findings.filter((f) => f.certainty === "possible");
    counts.possible += possible.length;
    counts.possibleTraps += possible.filter((f) => f.code === "trap" || f.code === "stuck-modal").length;
  }
  process.stdout.write(`endless documents: ${JSON.stringify(counts)}\n`);
  expect(wrong).toEqual([]);
  expect(counts.lost).toBeGreaterThan(DOCUMENTS / 20);
  expect(counts.met).toBeGreaterThan(DOCUMENTS);
  expect(counts.possibleTraps).toBe(0);
  expect(counts.possible / counts.documents).toBeLessThanOrEqual(0.05);
});
