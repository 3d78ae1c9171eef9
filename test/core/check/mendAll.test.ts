import { describe, expect, it } from "vitest";
import { check } from "../../../src/core/check/check.ts";
import { mendAll } from "../../../src/core/check/repairs/repairAll.ts";
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

describe("mending all of one kind", () => {
  it("is one edit after which none of them is left, each mended with what is known where it stands", () => {
    const findings = check(project).findings.filter((f) => f.code === "missing-argument");
    expect(findings).toHaveLength(2);
    const mend = mendAll(project, findings);
    expect(mend?.name).toBe("Mend all 2 of missing-argument");
    const mended = mend?.apply(project) ?? project;
    expect(check(mended).findings.filter((f) => f.severity === "blocker")).toEqual([]);
    expect(mended.legs.map((leg) => leg.move)).toMatchObject([{ pass: { hiveId: "item.id" } }, { pass: { hiveId: "param.hiveId" } }]);
  });

  it("is not offered for one alone", () => {
    const findings = check(project).findings.filter((f) => f.code === "missing-argument");
    expect(mendAll(project, findings.slice(0, 1))).toBeUndefined();
    expect(mendAll(project, [])).toBeUndefined();
  });
});
