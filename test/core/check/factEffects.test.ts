import { expect, it } from "vitest";
import type { Edge } from "../../../src/core/check/system/exploration.ts";
import { Effects } from "../../../src/core/check/system/factEffects.ts";
import { noEdge } from "../../../src/core/check/system/steps.ts";
import { planOf } from "../../../src/core/plan/planOf.ts";
import { app } from "../../vectors/app.ts";

const project = app("s", {
  stacks: { s: "home next" },
  facts: [{ id: "f", type: "boolean", initial: false, source: "app" }],
  legs: ["flip home set set.f=!fact.f", "go home push next set.f=true"],
});
const step = (leg: string, outcome: Edge["outcome"]): Edge => ({ ...noEdge(), event: { do: "leg", leg }, way: "out", fired: [leg], outcome });

it("a leg that is refused or comes to nothing sets nothing, whichever of the same legs was asked for first", () => {
  const effects = new Effects(planOf(project), project.facts);
  const values = (edge: Edge) =>
    effects
      .of(edge)
      .after(effects.first)
      .map((after) => effects.valuesOf(after.values).f);
  expect(values(step("flip", "refused"))).toEqual([false]);
  // To a search that does not follow the fact, setting it alone changes nothing.
  expect(values(step("flip", "ignored"))).toEqual([true]);
  expect(values(step("go", "ignored"))).toEqual([false]);
  expect(values(step("go", "moved"))).toEqual([true]);
});
