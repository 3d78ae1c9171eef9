import { describe, expect, it } from "vitest";
import { check } from "../../../src/core/check/check.ts";
import { FINDINGS } from "../../../src/core/check/findings/all.ts";
import type { PictureFiles } from "../../../src/core/model/pictures.ts";
import type { Project } from "../../../src/core/model/schema.ts";
import { app } from "../../vectors/app.ts";
import { CASES, flag, none } from "./cases.ts";

const subjectsOf = (project: Project, code: string, files?: PictureFiles) =>
  check(project, files ? { pictures: files } : {})
    .findings.filter((f) => f.code === code)
    .map((f) => f.subjects);

describe("each code where it must be reported and next to it where it must not", () => {
  CASES.forEach(({ code, subjects, bad, good, files }, i) => {
    it(`${code} (${i + 1})`, () => {
      expect(subjectsOf(bad, code, files)).toEqual([subjects]);
      expect(subjectsOf(good, code, files)).not.toContainEqual(subjects);
    });
  });

  it("every code of the format has a case", () => {
    const codes = new Set(CASES.map((c) => c.code));
    expect([...codes].sort()).toEqual(FINDINGS.map(({ code }) => code).sort());
  });
});

describe("what a check says of itself", () => {
  it("findings in order of severity, each with a message; behaviour shown by a walk", () => {
    const { findings } = check(CASES[0]?.bad as Project);
    expect(findings[0]).toMatchObject({ code: "dead-end", severity: "blocker", subjects: ["b"], certainty: "shown", walk: [{ do: "leg", leg: "go" }] });
    expect(findings.every((f) => f.message.length > 20)).toBe(true);
  });

  it("a finding that holds in one width only names it", () => {
    const project = app("s", { stacks: { s: "a b" }, screens: { b: { up: "none" } }, legs: ["go a reset b", "home b reset a if=width!='narrow'"] });
    const dead = check(project).findings.find((f) => f.code === "dead-end");
    expect(dead?.widths).toEqual(["narrow"]);
    expect(dead?.message).toMatch(/only when narrow/);
  });

  it("accepted findings are shown as such and not counted", () => {
    const project = { ...(CASES[0]?.bad as Project), accepted: [{ code: "dead-end", subjects: ["b"], reason: "a kiosk" }] };
    const result = check(project);
    expect(result.findings.map((f) => f.code)).not.toContain("dead-end");
    expect(result.accepted).toMatchObject([{ code: "dead-end", reason: "a kiosk" }]);
  });

  it("stacks that grow without end are followed to any depth", () => {
    const growing = app("s", {
      stacks: { s: "a b" },
      screens: { a: { mayRepeat: true, hub: true }, b: none },
      legs: ["more a push a", "on a push b", "home b return a orElse=nothing"],
    });
    const { proof, findings } = check(growing);
    expect(proof).toMatchObject({ depth: "any", complete: true });
    expect(findings.filter((f) => f.severity === "blocker")).toEqual([]);
  });

  it("a search that stops early finds no fault in what it did not look at, and says that it is not complete", () => {
    const long = app("s", { stacks: { s: "p0 p1 p2 p3 p4 p5" }, legs: [0, 1, 2, 3, 4].map((i) => `l${i} p${i} push p${i + 1}`) });
    const { findings, proof } = check(long, { states: 2 });
    expect(findings.filter((f) => f.severity === "blocker")).toEqual([]);
    expect(proof).toMatchObject({ complete: false, depth: expect.any(Number) });
  });

  it("a condition with more ways to turn out than are gone through makes the proof incomplete", () => {
    const facts = Array.from({ length: 11 }, (_, i) => ({ ...flag, id: `o${i}`, source: "outside" }));
    const project = app("s", { stacks: { s: "a b" }, facts, legs: [`go a push b if=${facts.map((f) => `fact.${f.id}`).join("==")}`] });
    expect(check(project).proof.complete).toBe(false);
  });

  it("a leg that waits on an outside fact counts as a way out", () => {
    const waiting = (source: string) =>
      app("s", { stacks: { s: "a b" }, screens: { b: { hub: true } }, facts: [{ ...flag, source }], legs: ["on a:arrive replace b if=fact.f"] });
    expect(subjectsOf(waiting("outside"), "dead-end")).not.toContainEqual(["a"]);
    expect(subjectsOf(waiting("app"), "dead-end")).toContainEqual(["a"]);
  });
});
