import { describe, expect, it } from "vitest";
import { check } from "../../../src/core/check/check.ts";
import { appOf } from "../../../src/core/insight/app.ts";
import { available } from "../../../src/core/insight/available.ts";
import { applyEdit } from "../../../src/core/model/edits/kinds.ts";
import { addNamedType, addPaging } from "../../../src/core/model/edits/paging.ts";
import { currentScreen } from "../../../src/core/semantics/state.ts";
import { launch, step } from "../../../src/core/semantics/step.ts";
import { app } from "../../vectors/app.ts";

const plots = {
  id: "plot",
  fields: [
    { name: "id", type: "text" },
    { name: "size", type: "integer" },
  ],
  samples: [
    { id: "north", size: 1 },
    { id: "south", size: 2 },
  ],
};
const list = { id: "rows", kind: "list" as const, label: "Rows", of: "plot" };

/** What of the paging can be used on the row that is opened first, and on the one after it. */
function walked(project: Parameters<typeof addPaging>[0]) {
  const run = appOf(project);
  const opened = step(run, launch(run), { do: "leg", leg: "rows", item: "north" }).state;
  const live = (state: typeof opened) => available(project, state).flatMap((event) => (event.do === "leg" && event.leg !== "rows" ? [event.leg] : []));
  const next = live(opened).find((leg) => /Next/.test(leg)) ?? "";
  const on = step(run, opened, { do: "leg", leg: next });
  return { first: live(opened).sort(), args: currentScreen(on.state).args, second: live(on.state).sort() };
}

describe("paging through the rows of a list", () => {
  it("is one edit with both ends right, swipes too, and nothing to report", () => {
    const project = app("main", {
      types: [plots],
      stacks: { main: "all one" },
      screens: { all: { elements: [list] }, one: { params: [{ name: "plotId", type: "text", required: true }] } },
      legs: ["rows all push one pass.plotId=item.id"],
    });
    const after = applyEdit(project, addPaging(project, "one", "plot"));
    expect(walked(after)).toEqual({ first: ["oneNext", "oneSwipeNext"], args: { plotId: "south" }, second: ["onePrevious", "oneSwipePrevious"] });
    expect(check(after).findings).toEqual([]);
  });

  it("gives a screen that does not know its row a parameter that the list passes, and keeps what else it needs", () => {
    const project = app("main", {
      types: [plots],
      stacks: { main: "all one" },
      screens: {
        all: { elements: [list] },
        one: {
          params: [
            { name: "size", type: "integer", required: true },
            { name: "mode", type: "text", required: true },
          ],
        },
      },
      legs: ['rows all push one pass.size=item.size pass.mode="read"'],
    });
    const after = applyEdit(project, addPaging(project, "one", "plot"));
    expect(walked(after).args).toEqual({ plotId: "south", size: 2, mode: "read" });
    expect(check(after).findings.filter(({ severity }) => severity === "blocker")).toEqual([]);
  });

  it("begins with a record type that has rows to page through", () => {
    const project = app("main", { stacks: { main: "all one" }, screens: { all: { elements: [{ ...list, of: "plot" }] } }, legs: ["rows all push one"] });
    const { edit, id } = addNamedType(project, "Plot");
    const typed = applyEdit(project, edit);
    expect(id).toBe("plot");
    expect(walked(applyEdit(typed, addPaging(typed, "one", id)))).toMatchObject({ args: {} });
  });

  it("says which of the two is not there", () => {
    const project = app("main", { stacks: { main: "all" } });
    expect(() => addPaging(project, "all", "plot")).toThrow(/no screen "all" or no record type "plot"/);
  });
});
