import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { usualMotion } from "../../../src/core/insight/motion.ts";
import { whatIf } from "../../../src/core/insight/whatif.ts";
import { inFocus, pathBetween } from "../../../src/core/map/focus.ts";
import { keepLines } from "../../../src/core/map/keep.ts";
import { layoutMap } from "../../../src/core/map/layout.ts";
import { linesOf } from "../../../src/core/map/lines.ts";
import { changeScreen } from "../../../src/core/model/edits/change.ts";
import { applyEdit } from "../../../src/core/model/edits/kinds.ts";
import { plannedIn, setPlanned } from "../../../src/core/model/edits/planned.ts";
import { lookup } from "../../../src/core/model/lookup.ts";
import { readProject } from "../../../src/core/model/read.ts";
import { app } from "../../vectors/app.ts";

const read = readProject(readFileSync("demo/hollowcomb.etape.json", "utf8"));
if (!read.ok) throw new Error("the demo can be read");
const demo = read.project;
const project = app("t", {
  tabs: { t: "s u" },
  stacks: { s: "a b c", u: "x", f: "p q" },
  modals: { m: "f" },
  legs: ["ab a push b", "bc b push c", "help t open m", "pq p push q", "xa x select s", "cc c replace b", "close m close"],
});
const legs = (focus: Parameters<typeof inFocus>[1]) => inFocus(project, focus).legs.map((leg) => leg.id);

describe("what is in focus", () => {
  it("one screen's legs, in and out, with those that it shares with others", () => {
    expect(legs({ kind: "legs", place: "b" })).toEqual(["ab", "bc", "help", "cc"]);
    expect([...inFocus(project, { kind: "legs", place: "b" }).places].sort()).toEqual(["a", "b", "c", "p", "t"]);
  });

  it("the legs of one form", () => {
    expect(legs({ kind: "form", form: "push" })).toEqual(["ab", "bc", "pq"]);
    expect(legs({ kind: "form", form: "open" })).toEqual(["help"]);
    expect(legs({ kind: "form", form: "lane" })).toEqual(["xa"]);
  });

  it("a lane with what leads into it and out of it", () => {
    expect(legs({ kind: "lane", place: "s" })).toEqual(["ab", "bc", "xa", "cc"]);
    expect(inFocus(project, { kind: "lane", place: "s" }).places.has("x")).toBe(true);
  });

  it("the fewest legs between two screens, by shared legs too, or none at all", () => {
    expect(pathBetween(project, "x", "q")?.map((leg) => leg.id)).toEqual(["help", "pq"]);
    expect(pathBetween(project, "x", "c")?.map((leg) => leg.id)).toEqual(["xa", "ab", "bc"]);
    expect(pathBetween(project, "q", "x")).toBeUndefined();
    expect(pathBetween(project, "a", "a")).toEqual([]);
    expect(inFocus(project, { kind: "path", from: "q", to: "x" })).toMatchObject({ legs: [] });
  });

  it("a value's way through the demo touches the screens that know it, and no other", () => {
    const { places } = inFocus(demo, { kind: "value", screen: "weigh", param: "batch" });
    expect(places.has("batch") && places.has("weigh") && places.has("harvest")).toBe(true);
    expect(places.has("hive")).toBe(false);
  });
});

describe("what if a leg went another way", () => {
  it("what Back and the bar's start do then", () => {
    expect(whatIf(project, "b", { kind: "push", to: "c" })).toMatchObject({ back: "to “b”", says: "" });
    expect(whatIf(project, "b", { kind: "replace", to: "c" }).back).toBe("to “a”");
    expect(whatIf(project, "b", { kind: "open", to: "m" }).back).toBe("closes, to “b”");
    expect(whatIf(project, "a", { kind: "reset", to: "c" }).back).toBe("leaves the app");
  });

  it("and why nothing would come of it", () => {
    expect(whatIf(project, "a", { kind: "leave" })).toMatchObject({ after: undefined, says: "the app is left" });
    expect(whatIf(app("x", {}), "x", { kind: "push", to: "x" })).toMatchObject({ after: undefined, says: "can not be done from there" });
  });
});

describe("the usual motion of a leg", () => {
  const usual = (id: string) => {
    const leg = lookup(project).legs.get(id);
    return leg && usualMotion(project, leg);
  };
  it("is that of its move, its modal or its container", () => {
    expect(usual("ab")).toEqual({ kind: "slide", from: "end" });
    expect(usual("cc")).toEqual({ kind: "fade" });
    expect(usual("help")).toEqual({ kind: "rise", from: "bottom" });
    const own = { ...project, containers: project.containers.map((c) => (c.id === "s" ? { ...c, motion: { kind: "grow" as const } } : c)) };
    const leg = lookup(own).legs.get("ab");
    expect(leg && usualMotion(own, leg)).toEqual({ kind: "grow" });
  });
});

describe("drawing only what changed", () => {
  it("cards and lines that came out as before are the same objects after an edit elsewhere", () => {
    const before = layoutMap(demo);
    const after = layoutMap(applyEdit(demo, changeScreen(demo, "stores", { name: "Store room" })));
    for (const card of after.cards) expect(card === before.cards.find((c) => c.id === card.id), card.id).toBe(card.id !== "stores");
    const lines = linesOf(demo, before);
    const kept = keepLines(lines, linesOf(demo, after));
    expect(kept.every((line) => lines.includes(line))).toBe(true);
  });

  it("a card that moved, or whose legs changed, is another", () => {
    const before = layoutMap(demo);
    const fewer = { ...demo, legs: demo.legs.filter((leg) => leg.id !== "toNotes") };
    const card = (layout: typeof before) => layout.cards.find((c) => c.id === "hive");
    expect(card(layoutMap(fewer))).not.toBe(card(before));
    expect(card(layoutMap(fewer))?.rows.find((row) => row.element?.id === "notes")?.legs).toEqual([]);
  });
});

describe("stand-ins", () => {
  it("are marked and made real in bulk, and counted", () => {
    const made = applyEdit(project, setPlanned({ screens: ["a", "x"], legs: ["ab"] }, true));
    expect(plannedIn(made)).toEqual({ screens: ["a", "x"], legs: ["ab"] });
    expect(applyEdit(made, setPlanned({ screens: ["a", "x"], legs: ["ab"] }, false))).toEqual(project);
  });
});
