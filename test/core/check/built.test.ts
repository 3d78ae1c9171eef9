import { describe, expect, it } from "vitest";
import { builtApp } from "../../../bench/apps.ts";
import { check } from "../../../src/core/check/check.ts";
import type { Project } from "../../../src/core/model/schema.ts";

/** What is said of an app beside notes. */
function said(project: Project) {
  const { findings, proof } = check(project, { fixes: false });
  const serious = findings.filter(({ severity }) => severity !== "note");
  return { serious: serious.map(({ code, subjects, certainty }) => [code, certainty, ...subjects].join(" ")), complete: proof.complete, depth: proof.depth };
}

describe("apps as people build them, with sign-in, tabs in a drawer, loops of details, and edits that ask about unsaved changes", () => {
  it.each([1, 2, 3, 4, 5, 6])("of 40 screens are proved for any depth, and nothing is wrong with them (seed %i)", (seed) => {
    expect(said(builtApp(40, seed))).toEqual({ serious: [], complete: true, depth: "any" });
  });

  it("of 100 screens are too", () => {
    expect(said(builtApp(100))).toEqual({ serious: [], complete: true, depth: "any" });
  });

  it("and where the question about unsaved changes can not be answered, its modal is a trap that a walk shows", () => {
    const whole = builtApp(40);
    const asks = whole.containers.find(({ id }) => id === "ask0");
    const broken: Project = {
      ...whole,
      legs: whole.legs.filter(({ from }) => from !== "sure0"),
      containers: whole.containers.map((c) => (c === asks && c.kind === "modal" ? { ...c, closeOn: [] } : c)),
    };
    const { serious, complete } = said(broken);
    expect(complete).toBe(true);
    expect(serious).toContain("stuck-modal shown ask0");
    expect(serious.filter((line) => line.includes(" possible "))).toEqual([]);
  });
});
