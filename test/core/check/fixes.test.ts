import { describe, expect, it } from "vitest";
import { check } from "../../../src/core/check/check.ts";
import type { Finding } from "../../../src/core/check/finding.ts";
import { readProjectData } from "../../../src/core/model/read.ts";
import { CASES } from "./cases.ts";

/** The codes that always offer a mend. */
const MENDED = [
  ...["dead-end", "stuck-modal", "unreachable", "refused-move", "back-only", "piled-copies", "returns-to-finished", "idle-lead"],
  ...[
    "broken-target",
    "no-owner",
    "no-start",
    "missing-argument",
    "up-arguments",
    "no-way-up",
    "idle-element",
    "no-menu-control",
    "pages-push",
    "past-the-end",
    "no-outside",
  ],
];

const lineOf = (finding: Finding) => [finding.code, ...finding.subjects].join(" ");

describe("every mend removes its finding and brings no new blocker", () => {
  CASES.forEach(({ code, subjects, bad }, i) => {
    if (!MENDED.includes(code)) return;
    it(`${code} (${i + 1})`, () => {
      const before = check(bad);
      const finding = before.findings.find((f) => lineOf(f) === [code, ...subjects].join(" "));
      expect(finding?.fixes.length).toBeGreaterThan(0);
      const blockers = new Set(before.findings.filter((f) => f.severity === "blocker").map(lineOf));
      for (const fix of finding?.fixes ?? []) {
        const mended = fix.apply(bad);
        expect(readProjectData(JSON.parse(JSON.stringify(mended))).ok, fix.name).toBe(true);
        const after = check(mended).findings;
        expect(after.map(lineOf), fix.name).not.toContain(lineOf(finding as Finding));
        expect(after.filter((f) => f.severity === "blocker" && !blockers.has(lineOf(f))).map(lineOf), fix.name).toEqual([]);
      }
    });
  });
});
