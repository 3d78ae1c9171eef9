import { describe, expect, it } from "vitest";
import { check } from "../../../src/core/check/check.ts";
import type { Finding } from "../../../src/core/check/finding.ts";
import { applyEdit, deletes } from "../../../src/core/model/edits/kinds.ts";
import { readProjectData } from "../../../src/core/model/read.ts";
import type { Project } from "../../../src/core/model/schema.ts";
import { app } from "../../vectors/app.ts";
import { CASES } from "./cases.ts";

/** The codes that always offer a fix. */
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
    "lost-area",
  ],
];

const lineOf = (finding: Finding) => [finding.code, ...finding.subjects].join(" ");

describe("every fix removes its finding and brings no new blocker", () => {
  CASES.forEach(({ code, subjects, bad }, i) => {
    if (!MENDED.includes(code)) return;
    it(`${code} (${i + 1})`, () => {
      const before = check(bad);
      const finding = before.findings.find((f) => lineOf(f) === [code, ...subjects].join(" "));
      expect(finding?.fixes.length).toBeGreaterThan(0);
      const blockers = new Set(before.findings.filter((f) => f.severity === "blocker").map(lineOf));
      const names = finding?.fixes.map(({ name }) => name) ?? [];
      expect(new Set(names).size, "each is offered once").toBe(names.length);
      for (const fix of finding?.fixes ?? []) {
        const fixed = applyEdit(bad, fix);
        expect(readProjectData(JSON.parse(JSON.stringify(fixed))).ok, fix.name).toBe(true);
        const after = check(fixed).findings;
        expect(after.map(lineOf), fix.name).not.toContain(lineOf(finding as Finding));
        expect(after.filter((f) => f.severity === "blocker" && !blockers.has(lineOf(f))).map(lineOf), fix.name).toEqual([]);
      }
    });
  });
});

describe("what is offered", () => {
  const form = app("t", {
    tabs: { t: "s u" },
    stacks: { s: "home form", u: "done" },
    screens: { home: { hub: true }, form: { once: true, up: "none" }, done: { hub: true } },
    legs: ["fill home push form", "send form select u"],
  });
  const found = (project: Project, code: string) => check(project).findings.find((finding) => finding.code === code);

  it("never changes nothing: a form that is left by going over to another tab is taken off its stack", () => {
    const finding = found(form, "returns-to-finished");
    expect(finding?.subjects).toEqual(["form"]);
    const [fix] = finding?.fixes ?? [];
    expect(fix && applyEdit(form, fix).legs.find((leg) => leg.id === "send")?.move).toEqual({ kind: "select", to: "u", tidy: "source" });
    expect(fix && found(applyEdit(form, fix), "returns-to-finished")).toBeUndefined();
    for (const { bad } of CASES) for (const { fixes } of check(bad).findings) for (const one of fixes) expect(applyEdit(bad, one), one.name).not.toEqual(bad);
  });

  it("deletes last", () => {
    for (const { bad } of CASES)
      for (const { fixes } of check(bad).findings) {
        const first = fixes.findIndex(deletes);
        expect(fixes.slice(Math.max(first, 0)).every((fix) => first < 0 || deletes(fix))).toBe(true);
      }
  });

  it("for a leg that has no stack to put on top of: one is put around its screen", () => {
    const bare = app("t", { tabs: { t: "a b" }, screens: { c: {} }, legs: ["go a push c"] });
    const refused = found(bare, "refused-move");
    const names = refused?.fixes.map((fix) => fix.name) ?? [];
    expect(names.some((name) => name.startsWith("Put a stack around"))).toBe(true);
    for (const fix of refused?.fixes ?? []) expect(found(applyEdit(bare, fix), "refused-move"), fix.name).toBeUndefined();
    expect(refused?.fixes.slice(-1).map(deletes)).toEqual([true]);
  });

  it("for a leg that resets or goes back out of a dialog: in the stack that is meant, each way once", () => {
    const out = app("s", { stacks: { s: "a b" }, modals: { m: "ask" }, legs: ["ab a push b", "open b open m", "out ask push a"] });
    const fixes = found(out, "refused-move")?.fixes ?? [];
    const names = fixes.map(({ name }) => name);
    expect(names[0]).toBe("Closes the modal and pushes “a” onto the page beneath.");
    expect(new Set(names).size).toBe(names.length);
    for (const fix of fixes) expect(found(applyEdit(out, fix), "refused-move"), fix.name).toBeUndefined();
  });

  it("for a condition in plain words: the expression that it says", () => {
    const order = { id: "order", type: "choice", values: ["none", "sent"], initial: "none", source: "app" } as const;
    const member = { id: "member", type: "boolean", initial: false, source: "app" } as const;
    const plain = app("s", {
      stacks: { s: "a b" },
      facts: [order, member],
      screens: {
        a: { elements: [{ id: "x", kind: "button", label: "X", shown: "not member" }] },
        b: { params: [{ name: "id", type: "text", required: true }] },
      },
      legs: ["go a push b if=member pass.id=order set.order=sent"],
      entrances: [{ id: "e", name: "e", kind: "link", pattern: "/a", to: "a", warm: "rebuild", when: "order = sent" }],
    });
    const ruled: Project = { ...plain, rules: [{ id: "r", name: "R", kind: "only", see: ["a"], while: "member or order is none" }] };
    const mended = check(ruled).findings.reduce((now: Project, { code, fixes: [fix] }) => (code === "wrong-type" && fix ? applyEdit(now, fix) : now), ruled);
    expect(mended.legs[0]).toMatchObject({ when: "fact.member", move: { pass: { id: "fact.order" } }, set: { order: "'sent'" } });
    expect([mended.entrances[0]?.when, mended.rules?.[0], mended.screens[0]?.elements[0]?.shown]).toMatchObject([
      "fact.order == 'sent'",
      { while: "fact.member || fact.order == 'none'" },
      "!fact.member",
    ]);
    expect(check(mended).findings.filter(({ code }) => code === "wrong-type")).toEqual([]);
  });

  it("for a leg that is refused after its target was put away: a way that works, before deleting it", () => {
    const away = app("s", { stacks: { s: "a b", u: "c d" }, modals: { m: "u" }, legs: ["go a push d in=u", "up b open m", "on a push b"] });
    const fixes = found(away, "refused-move")?.fixes ?? [];
    expect(fixes.slice(0, 1).map(deletes)).toEqual([false]);
    expect(fixes[0] && found(applyEdit(away, fixes[0]), "refused-move")).toBeUndefined();
  });
});
