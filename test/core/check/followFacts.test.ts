import { describe, expect, it } from "vitest";
import { check } from "../../../src/core/check/check.ts";
import { abstractionOf } from "../../../src/core/check/system/abstraction.ts";
import { explore } from "../../../src/core/check/system/explore.ts";
import { followed } from "../../../src/core/check/system/followFacts.ts";
import { withoutParts } from "../../../src/core/check/system/hiding.ts";
import { appFacts, coarse } from "../../../src/core/check/system/precision.ts";
import type { Project } from "../../../src/core/model/schema.ts";
import { amount } from "../../random/amount.ts";
import { assembledApp } from "../../random/assembled.ts";
import { randomDocument } from "../../random/documents.ts";
import { wholeDocument } from "../../random/whole.ts";
import { app } from "../../vectors/app.ts";

const search = (project: Project, facts: ReadonlySet<string>) => explore(abstractionOf(project, coarse(facts)), "narrow");

it("what was met under a fact that is not followed costs no second look, from a launch as from a way in", () => {
  const looks = (project: Project) => {
    const lines: string[] = [];
    const { findings } = check(project, { trace: (line) => lines.push(line) });
    expect(findings.filter(({ code, certainty }) => code === "unreachable" || certainty === "possible")).toEqual([]);
    return lines.length;
  };
  const project = app("s", {
    stacks: { s: "home a b" },
    facts: [{ id: "f", type: "boolean", initial: false, source: "app" }],
    screens: { a: { elements: [{ id: "in", kind: "button", label: "In", shown: "fact.f" }] } },
    legs: ["on home push a", "set a set set.f=true", "in a push b if=fact.f"],
  });
  expect(looks(project)).toBe(1);
  const entrance = { id: "e", name: "E", kind: "notification", to: "a", warm: "onTop" } as const;
  expect(looks({ ...project, legs: project.legs.filter(({ id }) => id !== "on"), entrances: [entrance] })).toBe(1);
});

describe("a search in which more facts are followed, along the steps that it knows", () => {
  it("has every state that a search has which follows them from the start", () => {
    let states = 0;
    let split = 0;
    for (let seed = 1; seed <= amount(300, 60); seed++) {
      const project = seed % 10 === 0 ? assembledApp(seed, 30) : seed % 2 === 0 ? wholeDocument(seed) : randomDocument(seed);
      const facts = appFacts(project);
      const coarsely = search(project, new Set());
      const closely = search(project, facts);
      const made = followed(coarsely, facts);
      if (!made || !closely.complete || !coarsely.complete) continue;
      // Of a stack brought up as it is, the names of what lies beneath may differ; a leg that only sets what is not followed is never spent.
      const plain = (key: string) =>
        withoutParts(key)
          .replace(/\^\w+(\.\w+)?/g, "^")
          .replace(/!\w+(,\w+)*(?=,\])/g, "");
      const keys = new Set(made.nodes.map(({ key }) => plain(key)));
      for (const { key } of closely.nodes) expect([seed, keys.has(plain(key)) || key]).toEqual([seed, true]);
      states += closely.nodes.length;
      if (made.nodes.length > coarsely.nodes.length) split += 1;
    }
    expect(states).toBeGreaterThan(1_000);
    expect(split).toBeGreaterThan(10);
  });
});
