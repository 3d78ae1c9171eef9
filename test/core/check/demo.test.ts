import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { check } from "../../../src/core/check/check.ts";
import { junitReport } from "../../../src/core/check/report/junit.ts";
import { sarifReport } from "../../../src/core/check/report/sarif.ts";
import { runWalk } from "../../../src/core/insight/walks.ts";
import { treeOf } from "../../../src/core/model/lookup.ts";
import { positions } from "../../../src/core/model/positions.ts";
import { readProject } from "../../../src/core/model/read.ts";
import type { Project } from "../../../src/core/model/schema.ts";

function demo(name: string): { project: Project; text: string } {
  const text = readFileSync(`demo/${name}.etape.json`, "utf8");
  const read = readProject(text);
  if (!read.ok) throw new Error(`${name} does not read`);
  return { project: read.project, text };
}

const hollowcomb = demo("hollowcomb");
const draft = demo("hollowcomb-first-draft");
const found = check(draft.project);

describe("Hollowcomb", () => {
  it("has no blockers and no warnings, proved for any depth of stack; its walks pass", () => {
    const { findings, proof } = check(hollowcomb.project);
    expect(findings.filter((f) => f.severity !== "note")).toEqual([]);
    expect(findings.every((f) => f.certainty !== "possible")).toBe(true);
    expect(proof).toMatchObject({ depth: "any", complete: true, widths: ["narrow", "middle", "wide"] });
    expect(hollowcomb.project.walks.map((walk) => runWalk(hollowcomb.project, walk).passed)).not.toContain(false);
  });

  it("uses every kind of container and of move", () => {
    const { containers, legs } = hollowcomb.project;
    expect(new Set(containers.map((c) => c.kind))).toEqual(new Set(["stack", "tabs", "drawer", "modal"]));
    const kinds = new Set(legs.map((leg) => leg.move?.kind));
    for (const kind of ["push", "replace", "reset", "return", "open", "close", "select", "menu", "back", "up", "proceed", "leave"])
      expect(kinds, kind).toContain(kind);
  });
});

describe("Tidewatch", () => {
  const { project } = demo("tidewatch");

  it("has no blockers and no warnings, proved for any depth of stack; its walks pass", () => {
    const { findings, proof } = check(project);
    expect(findings.filter((f) => f.severity !== "note")).toEqual([]);
    expect(proof).toMatchObject({ depth: "any", complete: true, widths: ["narrow", "middle", "wide"] });
    expect(project.walks.map((walk) => runWalk(project, walk).passed)).not.toContain(false);
  });

  it("has an address for every page and a drawer that is pinned when wide", () => {
    const modals = project.containers.filter((c) => c.kind === "modal").flatMap((modal) => treeOf(project, modal.id));
    const pages = project.screens.filter((screen) => !modals.includes(screen.id));
    expect(pages.filter((screen) => screen.path === undefined)).toEqual([]);
    expect(project.containers).toContainEqual(expect.objectContaining({ kind: "drawer", pinnedFrom: "wide" }));
  });
});

describe("Hollowcomb, first draft", () => {
  it("shows each mistake that docs/findings.md tells of", () => {
    const lines = new Set(found.findings.map((f) => [f.code, ...f.subjects].join(" ")));
    const told = readFileSync("docs/findings.md", "utf8").split("## Hollowcomb, first draft")[1] ?? "";
    const rows = [...told.matchAll(/\| `([a-z-]+)` ([\w ]+?) \|/g)].map((m) => `${m[1]} ${m[2]}`);
    expect(rows.length).toBeGreaterThanOrEqual(10);
    for (const row of rows) expect(lines, row).toContain(row);
  });
});

describe("reports", () => {
  const sarif = sarifReport("a folder/draft.etape.json", positions(draft.text), draft.project, found) as {
    version: string;
    runs: Array<{
      tool: { driver: { rules: Array<{ id: string; help?: { text: string } }> } };
      results: Array<{
        ruleId: string;
        ruleIndex: number;
        level: string;
        message: { text: string };
        partialFingerprints: Record<string, string>;
        codeFlows?: Array<{
          threadFlows: Array<{ locations: Array<{ location: { message: { text: string }; physicalLocation: { region: { startLine: number } } } }> }>;
        }>;
        locations: Array<{ physicalLocation: { artifactLocation: { uri: string }; region: { startLine: number; startColumn: number } } }>;
      }>;
    }>;
  };

  it("SARIF: version, rules that results refer to, levels, an encoded address", () => {
    const [run] = sarif.runs;
    expect(sarif.version).toBe("2.1.0");
    expect(run?.results).toHaveLength(found.findings.length);
    for (const result of run?.results ?? []) {
      expect(run?.tool.driver.rules[result.ruleIndex]?.id).toBe(result.ruleId);
      expect(["error", "warning", "note"]).toContain(result.level);
      expect(result.message.text).not.toBe("");
      expect(result.locations[0]?.physicalLocation.artifactLocation.uri).toBe("a%20folder/draft.etape.json");
    }
  });

  it("SARIF: each result stands at the line of its main subject", () => {
    const lines = draft.text.split("\n");
    for (const [i, result] of (sarif.runs[0]?.results ?? []).entries()) {
      const { startLine, startColumn } = result.locations[0]?.physicalLocation.region ?? { startLine: 0, startColumn: 0 };
      expect(lines[startLine - 1]?.[startColumn - 1]).toBe("{");
      const [main = "", detail] = found.findings[i]?.subjects ?? [];
      const next = (lines[startLine] ?? "").trim();
      expect([`"id": "${main}",`, `"id": "${detail}",`, `"name": "${detail}",`]).toContain(next);
    }
  });

  it("SARIF: a fingerprint that outlives other lines, help for each rule, and the walk as a code flow", () => {
    const before = draft.text;
    const moved = sarifReport("draft.etape.json", positions(before.replace("{", "{\n\n")), draft.project, found) as typeof sarif;
    const prints = (log: typeof sarif) => log.runs[0]?.results.map(({ partialFingerprints }) => Object.values(partialFingerprints).join());
    expect(prints(moved)).toEqual(prints(sarif));
    expect(new Set(prints(sarif)).size).toBe(found.findings.length);
    for (const rule of sarif.runs[0]?.tool.driver.rules ?? []) expect(rule.help?.text).not.toBe("");
    const lines = draft.text.split("\n");
    for (const [i, result] of (sarif.runs[0]?.results ?? []).entries()) {
      const walk = found.findings[i]?.walk;
      const steps = result.codeFlows?.[0]?.threadFlows[0]?.locations ?? [];
      expect(steps).toHaveLength(walk ? walk.length + 1 : 0);
      for (const { location } of steps) {
        expect(location.message.text).not.toBe("");
        expect(lines[location.physicalLocation.region.startLine - 1]).toContain("{");
      }
    }
  });

  it("JUnit: one case a finding and one for each rule that holds, blockers and warnings failed, markup and odd characters harmless", () => {
    const odd = { ...found, findings: found.findings.map((f, i) => (i === 0 ? { ...f, message: 'a <b> & "c" \u0007' } : f)) };
    const xml = junitReport(draft.project, "x.json", odd, 12);
    // And one for each rule that holds.
    const held = found.proof.rules?.filter(({ standing }) => standing === "proved").length ?? 0;
    expect(held).toBe(2);
    expect(xml.match(/<testcase /g)).toHaveLength(found.findings.length + held);
    expect(xml.match(/<failure /g)).toHaveLength(found.findings.filter((f) => f.severity !== "note").length);
    expect(xml).toContain("a &lt;b&gt; &amp; &quot;c&quot; \uFFFD");
    expect(xml).not.toContain("\u0007");
  });
});
