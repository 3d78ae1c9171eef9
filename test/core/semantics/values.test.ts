import { expect, it } from "vitest";
import { appOf } from "../../../src/core/insight/app.ts";
import { resolveItem } from "../../../src/core/semantics/values.ts";
import { app } from "../../vectors/app.ts";

const numbered = app("main", {
  stacks: { main: "plots plot" },
  types: [
    {
      id: "plot",
      fields: [
        { name: "number", type: "integer" },
        { name: "says", type: "text" },
      ],
      samples: [
        { number: 7, says: "Oak" },
        { number: 9, says: "Long" },
      ],
    },
  ],
  screens: { plots: { elements: [{ id: "list", kind: "list", label: "Plots", of: "plot" }] }, plot: {} },
  legs: ["open plots:on(list) push plot"],
});

it("a row is named by itself, by its key, by its key as text or by its position; what names none is unknown", () => {
  const ready = appOf(numbered);
  const leg = ready.plan.legs.get("open");
  if (!leg) throw new Error("the leg is there");
  const says = (item: Parameters<typeof resolveItem>[2]) => {
    const row = resolveItem(ready, leg, item);
    return typeof row === "object" ? row.says : row;
  };
  expect([says(undefined), says({ says: "own" }), says(7), says("9"), says(1), says(5), says("x"), says([7])]).toEqual([
    undefined,
    "own",
    "Oak",
    "Long",
    "Long",
    "unknown",
    "unknown",
    "unknown",
  ]);
});
