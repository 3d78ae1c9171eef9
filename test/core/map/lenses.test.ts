import { readFileSync } from "node:fs";
import { SaxesParser } from "saxes";
import { describe, expect, it } from "vitest";
import { LENSES } from "../../../src/core/map/lenses/names.ts";
import { reachChange } from "../../../src/core/map/lenses/reach.ts";
import { lensView } from "../../../src/core/map/lenses/table.ts";
import { mapSvg } from "../../../src/core/map/svg.ts";
import { DRAWINGS } from "../../../src/core/map/types.ts";
import { changeScreen } from "../../../src/core/model/edits/change.ts";
import { applyEdit } from "../../../src/core/model/edits/kinds.ts";
import { lookup } from "../../../src/core/model/lookup.ts";
import { readProject } from "../../../src/core/model/read.ts";
import { randomDocument } from "../../random/documents.ts";
import { app } from "../../vectors/app.ts";

const read = readProject(readFileSync("demo/hollowcomb.etape.json", "utf8"));
if (!read.ok) throw new Error("the demo does not read");
const demo = read.project;
/** What a screen needs to know. */
const ID = { name: "id", type: "text", required: true };
const project = app("t", {
  tabs: { t: "s u" },
  stacks: { s: "a b c", u: "x" },
  screens: { b: { params: [ID] }, c: { params: [ID] } },
  legs: ["ab a push b pass.id='1'", "bc b push c pass.id=param.id"],
});

describe("reach", () => {
  it("gives each screen its taps, the farthest by name, and how many have how many", () => {
    const view = lensView(project, { lens: "reach" });
    expect(Object.fromEntries([...view.places].map(([id, { says }]) => [id, says]))).toEqual({ a: "0", b: "1", c: "2", x: "1" });
    expect(view.extremes[0]).toContain("“c”, 2 taps from launch");
    expect(view.chart?.counts).toEqual([1, 2, 1]);
    expect(view.legend.reduce((sum, { count }) => sum + count, 0)).toBe(4);
  });

  it("says what a change would bring nearer, and what it would put out of reach", () => {
    const direct = app("t", {
      tabs: { t: "s u" },
      stacks: { s: "a b c", u: "x" },
      screens: { b: { params: [ID] }, c: { params: [ID] } },
      legs: ["ab a push b pass.id='1'", "bc b push c pass.id=param.id", "ac a push c pass.id='2'"],
    });
    expect(reachChange(project, direct, { lens: "reach" })).toEqual(["1 screen nearer: “c” 2 → 1."]);
    expect(reachChange(direct, { ...direct, legs: [] }, { lens: "reach" })[0]).toContain("“b” 1 → not reached");
    expect(reachChange(project, project, { lens: "reach" })).toEqual(["No screen comes nearer or goes farther."]);
  });
});

describe("walked", () => {
  it("tells what no walk comes by, and which legs none takes", () => {
    const walked = { ...project, walks: [{ id: "one", name: "One", events: [{ do: "leg" as const, leg: "ab" }] }] };
    const view = lensView(walked, { lens: "walked" });
    expect([view.places.get("b")?.says, view.places.get("c")?.tone]).toEqual(["1", "none"]);
    expect(view.extremes).toEqual(["1 of 2 legs are taken by 1 walk."]);
    expect(view.list.map(({ note }) => note)).toEqual(["no walk", "no walk", "leg not taken"]);
    const more = lensView(walked, { lens: "walked", tests: true }, { walks: [{ events: [{ do: "tab", to: "u" }] }] });
    expect(more.places.get("x")?.says).toBe("1");
  });
});

describe("changed", () => {
  it("marks what is new, moved and other, and lists what is gone", () => {
    const newer = app("t", {
      tabs: { t: "s u" },
      stacks: { s: "a b", u: "x c n" },
      screens: { b: { params: [ID] }, c: { params: [ID] } },
      legs: ["ab a push b pass.id='2'"],
    });
    const older = { ...project, walks: [{ id: "w", name: "To c", events: [{ do: "leg" as const, leg: "bc" }] }] };
    const view = lensView(newer, { lens: "changed", against: "" }, { older: { project: older, name: "Monday", went: ["One"], came: ["Two"] } });
    const signs = Object.fromEntries([...view.places].map(([id, { says }]) => [id, says]));
    expect([signs.n, signs.c, signs.a, signs.b]).toEqual(["+", "→", "~", "~"]);
    expect(view.question).toBe("What changed since Monday?");
    expect(view.extremes).toEqual(["New finding: Two", "1 finding has gone since."]);
    expect(
      lensView(project, { lens: "changed", against: "" }, { older: { project: newer, name: "then" } }).list.some(({ note }) => note === "screen gone"),
    ).toBe(true);
    expect(lensView(project, { lens: "changed", against: "" }, { older: { project, name: "now" } }).extremes).toEqual(["Nothing changed."]);
  });

  it("names a kept walk that passed and no longer does", () => {
    const walks = [{ id: "w", name: "To b", events: [{ do: "leg" as const, leg: "ab" }] }];
    const view = lensView({ ...project, walks, legs: [] }, { lens: "changed", against: "" }, { older: { project: { ...project, walks }, name: "then" } });
    expect(view.extremes).toContain("The walk “To b” no longer passes.");
  });
});

describe("data and findings", () => {
  it("follows one value, or tells what each screen needs", () => {
    const one = lensView(project, { lens: "data", screen: "c", param: "id" });
    expect(Object.fromEntries([...one.places].map(([id, { tone }]) => [id, tone]))).toEqual({ c: "s4", b: "s2", a: "warm" });
    expect(lensView(project, { lens: "data" }).places.get("x")?.tone).toBe("none");
    expect(lensView(project, { lens: "data", screen: "x", param: "id" }).question).toBe("What does each screen need to know?");
  });

  it("puts a finding at its place, one of a leg or an element where it starts", () => {
    const finding = (severity: "blocker" | "note", ...subjects: string[]) => ({ severity, subjects, message: `about ${subjects[0]}` });
    const view = lensView(demo, { lens: "findings" }, { findings: [finding("note", "hive"), finding("blocker", "toNotes"), finding("note", "nowhere")] });
    expect(view.places.get(lookup(demo).legs.get("toNotes")?.from ?? "")).toMatchObject({ tone: "urgent", says: "2" });
    expect(view.legend.map(({ count }) => count)).toEqual([1, 0, 2, 0]);
  });
});

describe("in files", () => {
  it("every lens on every drawing is well-formed XML, the same each time, with its question and its legend", () => {
    const projects = [demo, project, ...Array.from({ length: 12 }, (_, seed) => randomDocument(seed, { broken: true, guarded: true }))];
    for (const one of projects)
      for (const drawing of DRAWINGS)
        for (const { id } of LENSES) {
          const choice = id === "changed" ? { lens: id, against: "x" } : { lens: id };
          const lens = lensView(one, choice, { older: { project: demo, name: 'an "older" <one> & more' } });
          const svg = mapSvg(one, { drawing, lens });
          const parser = new SaxesParser();
          parser.on("error", (error) => {
            throw error;
          });
          parser.write(svg).close();
          expect(mapSvg(one, { drawing, lens })).toBe(svg);
          expect(svg.includes(lens.question.slice(0, 12).replace(/"/g, "&quot;"))).toBe(true);
        }
  });

  it("a name or a label cannot break out of the drawing", () => {
    const evil = '"><script>alert(1)</script>';
    const named = applyEdit(demo, changeScreen(demo, "hive", { name: evil }));
    for (const drawing of DRAWINGS) expect(mapSvg(named, { drawing })).not.toContain("<script>");
  });
});
