import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { check } from "../../../src/core/check/check.ts";
import { fixesFor } from "../../../src/core/check/fixes/fixes.ts";
import { bornSays, followValue, providersOf } from "../../../src/core/insight/flow.ts";
import { sampleArguments } from "../../../src/core/insight/sample.ts";
import { completions } from "../../../src/core/model/complete.ts";
import { applyEdit } from "../../../src/core/model/edits/kinds.ts";
import { compile } from "../../../src/core/model/expression.ts";
import { lookup } from "../../../src/core/model/lookup.ts";
import { readProject } from "../../../src/core/model/read.ts";
import { legScope } from "../../../src/core/model/scope.ts";

const read = readProject(readFileSync("demo/hollowcomb.etape.json", "utf8"));
if (!read.ok) throw new Error("the demo can be read");
const demo = read.project;

describe("following a value", () => {
  it("from the row of a list to every screen that it reaches", () => {
    const flow = followValue(demo, { screen: "hive", param: "hiveId" });
    expect(new Set(flow.slots.map((s) => s.screen))).toEqual(
      new Set(["hive", "notes", "note", "queen", "miteCount", "weather", "brood", "food", "review", "shift", "swap", "swarm"]),
    );
    expect(flow.born.map((p) => bornSays(demo, p))).toContain("the row that was used");
    expect(flow.legs.map((leg) => leg.id)).toEqual(expect.arrayContaining(["toHive", "toNotes", "toNote", "inspectHive", "toBrood", "hiveOfDay"]));
  });

  it("a record handed on whole", () => {
    const flow = followValue(demo, { screen: "weigh", param: "batch" });
    expect(flow.slots.map((s) => s.screen)).toEqual(["batch", "weigh"]);
    expect(flow.born.map((p) => (p.kind === "entrance" ? p.entrance.id : p.leg.id))).toEqual(["toBatch"]);
  });

  it("every parameter of Hollowcomb is born somewhere, and has a value on the samples", () => {
    for (const screen of demo.screens)
      for (const param of screen.params) {
        expect(followValue(demo, { screen: screen.id, param: param.name }).born, `${screen.id} ${param.name}`).not.toHaveLength(0);
        if (param.required) expect(sampleArguments(demo, screen)[param.name], `${screen.id} ${param.name}`).toBeDefined();
      }
  });

  it("taking any one argument away is reported, and the first fix that hands it on restores it", () => {
    let taken = 0;
    for (const leg of demo.legs) {
      if (!leg.move || !("pass" in leg.move) || !leg.move.pass) continue;
      for (const name of Object.keys(leg.move.pass)) {
        const { [name]: source, ...pass } = leg.move.pass;
        const without = { ...demo, legs: demo.legs.map((l) => (l === leg ? { ...leg, move: { ...leg.move, pass } as typeof leg.move } : l)) };
        const screen = demo.screens.find(
          (s) =>
            s.params.some((p) => p.name === name && p.required && p.default === undefined) &&
            providersOf(demo, s, s.params.find((p) => p.name === name) as never).some((p) => p.kind === "leg" && p.leg === leg),
        );
        if (!screen) continue;
        taken += 1;
        const finding = {
          code: "missing-argument",
          severity: "blocker",
          certain: "shown",
          subjects: [leg.id, screen.id, name],
          message: "",
          fixes: [],
        } as never;
        const [fix] = fixesFor(without, finding);
        expect(fix, `${leg.id} ${name}`).toBeDefined();
        const fixed = fix && applyEdit(without, fix);
        const now = fixed && lookup(fixed).legs.get(leg.id)?.move;
        const restored = now && "pass" in now ? now.pass?.[name] : undefined;
        expect(restored, `${leg.id} ${name}`).toBeDefined();
        if (source?.startsWith("param.") || source === "item" || source === `item.${name}`) expect(restored).toBe(source);
      }
    }
    expect(taken).toBeGreaterThan(20);
  });

  it("the checker says so too, by the same names", () => {
    const leg = demo.legs.find((l) => l.id === "toNotes");
    const without = { ...demo, legs: demo.legs.map((l) => (l === leg ? { ...l, move: { kind: "push" as const, to: "notes" } } : l)) };
    const found = check(without).findings.find((f) => f.code === "missing-argument");
    expect(found?.subjects).toEqual(["toNotes", "notes", "hiveId"]);
    expect(found?.fixes.map((f) => f.name)).toEqual(["Pass hiveId = param.hiveId", 'Make hiveId optional, with ""']);
  });
});

describe("completing an expression", () => {
  const leg = demo.legs.find((l) => l.id === "toHive");
  if (!leg) throw new Error("the demo has the leg");
  const scope = legScope(demo, leg);
  const inserts = (source: string) => completions(source, source.length, scope).map((c) => c.insert);

  it("names what is in scope at that leg", () => {
    expect(inserts("item.")).toEqual(["id", "name", "route"]);
    expect(inserts("item.ro")).toEqual(["route"]);
    expect(inserts("param.")).toEqual(["apiaryId", "apiaryName"]);
    expect(inserts("fact.mem")).toEqual(["member"]);
    expect(inserts("api")).toEqual(["param.apiaryId", "param.apiaryName"]);
    expect(inserts("next.")).toEqual([]);
  });

  it("nothing within quotes, and every completion compiles", () => {
    expect(inserts('"item.')).toEqual([]);
    for (const { insert } of completions("", 0, scope, 100)) expect(compile(insert, scope).ok, insert).toBe(true);
  });

  it("no expression hangs or throws, however long or nested", () => {
    for (const source of [
      "(".repeat(1000),
      `${"!".repeat(1999)}t`,
      `${"(".repeat(900)}1${")".repeat(900)}`,
      `${"fact.member && ".repeat(130)}fact.member`,
      "a".repeat(2000),
      `${"1+".repeat(999)}1`,
    ]) {
      expect(() => compile(source, scope)).not.toThrow();
      completions(source, source.length, scope);
    }
  });
});
