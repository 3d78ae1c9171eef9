import { expect, it } from "vitest";
import { appOf } from "../../../src/core/insight/app.ts";
import { neighbour, resolveItem } from "../../../src/core/semantics/values.ts";
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

it("a screen without pages has no row before or after its own, and one with pages has them up to the ends", () => {
  const paged = app("main", {
    stacks: { main: "plots plot" },
    types: [
      {
        id: "plot",
        fields: [
          { name: "id", type: "text" },
          { name: "rank", type: "integer" },
        ],
        samples: [
          { id: "b", rank: 2 },
          { id: "a", rank: 1 },
          { id: "c", rank: 3 },
        ],
      },
    ],
    screens: { plot: { params: [{ name: "id", type: "text", required: true }], pages: { over: "plot", by: "id", order: "rank" } } },
  });
  const ready = appOf(paged);
  const beside = (at: string, id: string, by: 1 | -1) => neighbour(ready, { kind: "shown", at, args: { id } }, by)?.id;
  expect(["a", "b", "c"].map((id) => [beside("plot", id, -1), beside("plot", id, 1)])).toEqual([
    [undefined, "b"],
    ["a", "c"],
    ["b", undefined],
  ]);
  expect(beside("plot", "nobody", 1)).toBeUndefined();
  expect(beside("plots", "a", 1)).toBeUndefined();
});
