import { describe, expect, it } from "vitest";
import { inputsOf } from "../../../src/core/handoff/code/inputs.ts";
import { chunks, codeEntrances, uniqueNames, usableLegs, viewNames } from "../../../src/core/handoff/code/plan.ts";
import { kotlin } from "../../../src/core/handoff/kotlin/plan.ts";
import { literal } from "../../../src/core/handoff/typescript/literal.ts";
import { planData } from "../../../src/core/plan/planOf.ts";
import { app } from "../../vectors/app.ts";

describe("names in code", () => {
  it("are unique even for who reads capitals alike, and keep clear of what is taken", () => {
    const names = uniqueNames(["hive", "hIVE", "state"], (id) => id.charAt(0).toUpperCase() + id.slice(1), ["State"]);
    expect([...names.values()]).toEqual(["Hive", "HIVE2", "State2"]);
    const project = app("s", { stacks: { s: "a b c" }, screens: { a: { code: "Home" }, b: { code: "home" } } });
    expect([...viewNames(project)]).toEqual([
      ["a", "Home"],
      ["b", "home2"],
      ["c", "c"],
    ]);
  });

  it("and values are text that ends nothing and begins nothing", () => {
    expect(literal({ a: "</script>\u2028", b: [1, null], "x-y": true, gone: undefined })).not.toContain("</script>");
    expect(literal({ "x-y": true })).toBe('{ "x-y": true }');
    expect(kotlin('a "$b" \\ \f')).toBe('"a \\"\\$b\\" \\\\ \\u000c"');
    expect(kotlin({ n: 1, list: [true, null] })).toBe('mapOf<String, Any?>("n" to 1.0, "list" to listOf<Any?>(true, null))');
    expect(kotlin(0.5)).toBe("0.5");
  });

  it("chunks keep the order and leave nothing out", () => {
    expect(chunks([1, 2, 3, 4, 5], 2)).toEqual([[1, 2], [3, 4], [5]]);
    expect(chunks([], 2)).toEqual([]);
  });
});

describe("the plan that all languages share", () => {
  const need = (required: boolean, more = {}) => ({ params: [{ name: "id", type: "text", required, ...more }] });
  const project = app("s", {
    stacks: { s: "a b c d" },
    screens: { b: need(true), c: need(true, { default: "x" }), d: need(false) },
    legs: [
      "toB a push b pass.id='x'",
      "toC a push c",
      "toD a push d",
      "bad a push b pass.id=1",
      "soon a:after(500) push c",
      "in d:arrive replace a",
      "set a set set.nothing=true",
    ],
    entrances: [{ id: "e", name: "E", kind: "link", pattern: "/x/{id}", to: "b", when: "fact.gone", warm: "rebuild" }],
  });

  it("leaves out what is ill-typed, and never lets it happen", () => {
    const { legs, entrances } = planData(project);
    expect(legs.toB).toMatchObject({ on: "user", pass: [{ name: "id", required: true }] });
    expect(legs.toB?.never).toBeUndefined();
    expect(legs.bad?.never).toBe(true);
    expect(legs.set?.never).toBe(true);
    expect(legs.soon?.on).toBe("after");
    expect(entrances.e).toMatchObject({ never: true, takes: [{ name: "id", type: "text" }] });
    expect(codeEntrances(project)[0]?.variables).toEqual(["id"]);
  });

  it("gives a function to what the app uses, and asks for nothing where nothing has to be given", () => {
    const usable = usableLegs(project);
    expect(usable.map((leg) => leg.leg.id)).not.toContain("in");
    for (const { leg } of usable) expect(inputsOf(project, [leg]), leg.id).toEqual({ row: undefined, fields: [] });
    expect(usable[0]?.says).toMatch(/^a: .*b/);
  });

  it("asks for what is read of the row and of what was typed, by the leg, its element and the legs that come before it", () => {
    const desk = app("s", {
      stacks: { s: "a b" },
      types: [
        {
          id: "row",
          fields: [
            { name: "id", type: "text" },
            { name: "rank", type: "integer" },
            { name: "more", type: "text" },
          ],
          samples: [],
        },
      ],
      screens: {
        a: {
          elements: [
            { id: "rows", kind: "list", label: "Rows", of: "row" },
            { id: "code", kind: "field", label: "Code" },
            { id: "sure", kind: "switch", label: "Sure" },
            { id: "send", kind: "button", label: "Send", enabled: "field.code != ''" },
          ],
        },
        b: {
          params: [
            { name: "id", type: "text", required: false },
            { name: "whole", type: "row", required: false },
          ],
        },
      },
      legs: [
        "high a:on(rows) push b if=item.rank>5",
        "low a:on(rows) push b pass.id=item.id",
        "held a:on(rows) push b pass.whole=item",
        "send a:submit(send) push b if=field.sure",
        "plain a push b",
      ],
    });
    const asked = (id: string) => {
      const { row, fields } = inputsOf(
        desk,
        desk.legs.filter((leg) => leg.id === id),
      );
      return [row?.fields, fields];
    };
    expect(asked("high")).toEqual([["rank"], []]);
    expect(asked("low")).toEqual([["rank", "id"], []]);
    expect(asked("held")).toEqual(["all", []]);
    expect(asked("send")).toEqual([
      undefined,
      [
        { id: "code", type: "text" },
        { id: "sure", type: "boolean" },
      ],
    ]);
    expect(asked("plain")).toEqual([undefined, []]);
  });
});
