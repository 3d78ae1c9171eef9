import { expect, it } from "vitest";
import * as old from "/work/main/src/core/engine/step.ts";
import { stateLine as oldLine } from "/work/main/src/core/engine/line.ts";
import { planOf } from "/work/main/src/core/plan/planOf.ts";
import { appOf } from "/work/main/src/core/semantics/app.ts";
import { stateLine } from "/work/main/src/core/semantics/line.ts";
import { launch, step } from "/work/main/src/core/semantics/step.ts";
import { pick, seeded } from "/work/main/test/random/documents.ts";
import { featuresOf, wholeDocument, wholeEvents } from "/work/main/test/random/whole.ts";
const N = Number(process.env.N ?? 1000), E = 40;
it("agrees", () => {
  const counts: Record<string, number> = {}, feats: Record<string, number> = {};
  for (let seed = 0; seed < N; seed++) {
    const project = wholeDocument(seed);
    for (const f of featuresOf(project)) feats[f] = (feats[f] ?? 0) + 1;
    const app = appOf(planOf(project));
    const random = seeded(seed + 1);
    const events = wholeEvents(project);
    let a = old.launch(project), b = launch(app);
    expect(b).toEqual(a);
    for (let i = 0; i < E; i++) {
      let event = pick(random, events);
      if (random() < 0.8) for (let t = 0; t < 12 && old.step(project, a, event).outcome === "ignored"; t++) event = pick(random, events);
      const x = old.step(project, a, event), y = step(app, b, event);
      const why = event.do + " " + x.outcome + " " + ((x as any).why ?? "");
      counts[why] = (counts[why] ?? 0) + 1;
      const { log, ...rest } = y as any;
      for (const f of log.fired) { const l = project.legs.find((q) => q.id === f)!; const k = "fired " + (l.move?.kind ?? "set") + " " + x.outcome; counts[k] = (counts[k] ?? 0) + 1; }
      try { expect(rest).toEqual(x); } catch (e) { console.log(seed, i, JSON.stringify(event), oldLine(project, a), "old", x.outcome, (x as any).why, oldLine(project, x.state), "new", y.outcome, (y as any).why, stateLine(app.plan, y.state)); throw e; }
      if (y.outcome !== "moved") expect(y.state).toBe(b);
      a = x.state; b = y.state as any;
    }
  }
  console.log(Object.entries(counts).sort().map(([k, v]) => k + ": " + v).join("\n"));
  console.log(Object.entries(feats).sort().map(([k, v]) => k + ": " + v).join("\n"));
}, 600000);
