import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { describe, expect, it, vi } from "vitest";
import { main } from "../../../src/cli/main.ts";
import { appOf } from "../../../src/core/insight/app.ts";
import { writeProject } from "../../../src/core/model/write.ts";
import { planOf } from "../../../src/core/plan/planOf.ts";
import { stateLine } from "../../../src/core/semantics/line.ts";
import { launch, step } from "../../../src/core/semantics/step.ts";
import { VECTORS } from "../../vectors/all.ts";
import { eventOf, type Vector } from "../../vectors/vector.ts";

/** What each event of a vector comes to by the engine, in the vector's words. */
function walked({ app, steps }: Vector): string[] {
  let state = launch(appOf(app));
  return steps.map(([short, expected]) => {
    const before = state;
    const result = step(appOf(app), state, eventOf(short));
    state = result.state;
    if (result.outcome === "moved") return stateLine(planOf(app), state);
    expect(result.state).toBe(before);
    if (result.outcome === "refused") return `refused ${result.why}`;
    return result.outcome === "ignored" && expected.startsWith("ignored ") ? `ignored ${result.why}` : result.outcome;
  });
}

for (const [rule, vectors] of Object.entries(VECTORS))
  describe(rule, () => {
    for (const vector of vectors)
      it(vector.says, () => {
        expect(stateLine(planOf(vector.app), launch(appOf(vector.app)))).toBe(vector.launch);
        expect(walked(vector)).toEqual(vector.steps.map(([, expected]) => expected));
      });
  });

it("there are at least a hundred vectors, each with a sentence of its own", () => {
  const says = Object.entries(VECTORS).flatMap(([rule, vectors]) => vectors.map((v) => `${rule}: ${v.says}`));
  expect(says.length).toBeGreaterThanOrEqual(100);
  expect(new Set(says).size).toBe(says.length);
});

it("etape step replays every vector", async () => {
  const folder = mkdtempSync(join(tmpdir(), "etape-vectors-"));
  const document = join(folder, "app.etape.json");
  const events = join(folder, "events.json");
  for (const vector of Object.values(VECTORS).flat()) {
    writeFileSync(document, writeProject(vector.app));
    writeFileSync(events, JSON.stringify(vector.steps.map(([short]) => eventOf(short))));
    let out = "";
    const write = vi.spyOn(process.stdout, "write").mockImplementation((text) => {
      out += String(text);
      return true;
    });
    const status = await main(["step", document, "--events", events]);
    write.mockRestore();
    expect(status).toBe(0);
    const printed = JSON.parse(out) as { launch: { line: string }; steps: Array<{ outcome: string; why?: string; line: string }> };
    expect(printed.launch.line).toBe(vector.launch);
    expect(printed.steps.map((s) => (s.outcome === "moved" ? s.line : s.outcome === "refused" ? `refused ${s.why}` : s.outcome))).toEqual(
      vector.steps.map(([, expected]) => expected),
    );
  }
});
