import { describe, expect, it } from "vitest";
import { check } from "../../../src/core/check/check.ts";
import { fixAll } from "../../../src/core/check/fixes/fixAll.ts";
import { applyEdit } from "../../../src/core/model/edits/kinds.ts";
import { app } from "../../vectors/app.ts";

const project = app("s", {
  stacks: { s: "list a b" },
  types: [{ id: "hive", name: "Hive", fields: [{ name: "id", type: "text" }], samples: [{ id: "lark" }] }],
  screens: {
    list: { elements: [{ id: "rows", kind: "list", label: "Rows", of: "hive" }] },
    a: { params: [{ name: "hiveId", type: "text", required: true }], title: "{param.hiveId}" },
    b: { params: [{ name: "hiveId", type: "text", required: true }], title: "{param.hiveId}" },
  },
  legs: ["toA list:on(rows) push a", "toB a push b"],
});

describe("fixing all of one kind", () => {
  it("is one edit after which none of them is left, each fixed with what is known where it stands", () => {
    const findings = check(project).findings.filter((f) => f.code === "missing-argument");
    expect(findings).toHaveLength(2);
    const fix = fixAll(project, findings);
    expect(fix?.name).toBe("Fix all 2: a required parameter that is not passed");
    const fixed = fix ? applyEdit(project, fix) : project;
    expect(check(fixed).findings.filter((f) => f.severity === "blocker")).toEqual([]);
    expect(fixed.legs.map((leg) => leg.move)).toMatchObject([{ pass: { hiveId: "item.id" } }, { pass: { hiveId: "param.hiveId" } }]);
  });

  it("is not offered for one alone", () => {
    const findings = check(project).findings.filter((f) => f.code === "missing-argument");
    expect(fixAll(project, findings.slice(0, 1))).toBeUndefined();
    expect(fixAll(project, [])).toBeUndefined();
  });
});
