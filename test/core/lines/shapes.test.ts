import { describe, expect, it } from "vitest";
import { check } from "../../../src/core/check/check.ts";
import { fromLines } from "../../../src/core/lines/build.ts";
import { linesInto } from "../../../src/core/lines/into.ts";
import { SHAPES } from "../../../src/core/lines/shapes.ts";
import { toLines } from "../../../src/core/lines/tell.ts";
import { emptyProject } from "../../../src/core/model/edits/add.ts";
import { applyEdit } from "../../../src/core/model/edits/kinds.ts";

describe.each(SHAPES.map((shape) => [shape.id, shape] as const))("the shape %s", (_, { lines }) => {
  it("checks without a finding, and comes back as the same lines", () => {
    const made = linesInto(emptyProject("New"), lines);
    if (!made.ok) throw new Error(made.problems.map(({ line, message }) => `${line}: ${message}`).join("\n"));
    const project = applyEdit(emptyProject("New"), made.edit);
    expect(project.name).toBe("New");
    expect(check(project, { fixes: false }).findings).toEqual([]);
    const again = fromLines(toLines(project));
    expect(again.ok && toLines(again.project)).toBe(toLines(project));
  });
});
