import { describe, expect, it } from "vitest";
import type { Edge } from "../../../src/core/check/system/exploration.ts";
import { beneathOf, costOf, inWords, visitsOf, WAITING } from "../../../src/core/check/system/precision.ts";
import { assumptionsIn } from "../../../src/core/check/system/shortestWays.ts";
import { noEdge } from "../../../src/core/check/system/steps.ts";
import { app } from "../../vectors/app.ts";

const project = app("t", { tabs: { t: ["s u", { onBack: "previous" }] }, stacks: { s: "a b", u: "x" }, legs: ["ab a push b"] });

describe("what a search can follow", () => {
  it("is told in words: facts by their names, what is not a fact in a sentence", () => {
    expect(inWords(project, "signedIn")).toBe("signedIn");
    expect(inWords(project, WAITING)).toBe("whether a way in waits");
    expect(inWords(project, beneathOf("b"))).toBe('whether "b" lies beneath');
    expect(inWords(project, visitsOf("t"))).toBe('the order in which the tabs of "t" were visited');
    expect(inWords(project, visitsOf("other"))).toBe(visitsOf("other"));
  });

  it("costs the more the more states it brings: what lies beneath, what waits, a fact, the order of tabs", () => {
    const costs = [beneathOf("b"), WAITING, "signedIn", visitsOf("t")].map(costOf);
    expect(costs).toEqual([...costs].sort((a, b) => a - b));
    expect(new Set(costs).size).toBe(4);
  });
});

it("a step assumes each fact that is not followed, and that a way in waits; not that none does, for so it is anyway", () => {
  const edge = (...choices: Array<[string, unknown]>): Edge => ({ ...noEdge(), choices: choices.map(([question, answer]) => ({ question, answer })) });
  expect(assumptionsIn(edge())).toBe(0);
  expect(assumptionsIn(edge(["fact.online", true], ["param.id on a", false]))).toBe(0);
  expect(assumptionsIn(edge(["app signedIn 0", true], ["app plan 0", "paid"]))).toBe(2);
  expect(assumptionsIn(edge([`app ${WAITING}`, null]))).toBe(0);
  expect(assumptionsIn(edge([`app ${WAITING}`, "link"]))).toBe(1);
  expect(assumptionsIn(edge(["app signedIn 0", null]))).toBe(1);
});
