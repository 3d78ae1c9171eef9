import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { builtApp } from "../../../bench/apps.ts";
import { bigProject } from "../../../bench/big.ts";
import { flowsOf } from "../../../src/core/map/flows.ts";
import { layoutMap } from "../../../src/core/map/layout.ts";
import { routeOf } from "../../../src/core/map/lines.ts";
import { isClear, obstacles } from "../../../src/core/map/route.ts";
import type { Box, Drawing, MapLayout, Room } from "../../../src/core/map/types.ts";
import { addElement, addScreen, newScreen } from "../../../src/core/model/edits/add.ts";
import { applyEdit } from "../../../src/core/model/edits/kinds.ts";
import { readProject } from "../../../src/core/model/read.ts";
import type { Project } from "../../../src/core/model/schema.ts";
import { textWidth } from "../../../src/core/text/width.ts";
import { randomDocument, seeded } from "../../random/documents.ts";
import { app } from "../../vectors/app.ts";

const demo = (name: string) => {
  const read = readProject(readFileSync(`demo/${name}.etape.json`, "utf8"));
  if (!read.ok) throw new Error("the demo does not read");
  return read.project;
};
const hollowcomb = demo("hollowcomb");
/** The map's room beside both panels, and with both folded away, in a window of 1280 by 800. */
const BESIDE: Room = { width: 642, height: 672 };
const FOLDED: Room = { width: 1280, height: 672 };

const WORDS = "Order Account Profile Stock Photo Weather Harvest Ticket Message Payment Address Delivery Coupon Trip Lesson Report".split(" ");
const TAILS = "list details settings edit review photo history search filter".split(" ");
/** A project whose screens have names as people give them, of one to so many words. */
function named(project: Project, seed: number, words = 2): Project {
  const random = seeded(seed);
  const word = (list: readonly string[]) => list[Math.floor(random() * list.length)] ?? "";
  const screens = project.screens.map((screen) => {
    const tail = Array.from({ length: Math.floor(random() * words) }, () => word(TAILS));
    return { ...screen, name: [word(WORDS), ...tail].join(" ") };
  });
  return { ...project, screens };
}

const documents: Array<[name: string, project: Project]> = [
  ["hollowcomb", hollowcomb],
  ["hollowcomb, first draft", demo("hollowcomb-first-draft")],
  ["tidewatch", demo("tidewatch")],
  ["eight", named(builtApp(8), 3)],
  ["eight, wide sheets", named(builtApp(8), 5)],
  ["hundred", named(builtApp(100), 4)],
  ["300, built", named(builtApp(300), 5)],
  ["300, few grounds", named(bigProject(300), 6)],
  ...Array.from({ length: 60 }, (_, seed): [string, Project] => [
    `random ${seed}`,
    randomDocument(seed, { broken: seed % 2 === 0, guarded: true, screens: 4 + (seed % 20), containers: 3 + (seed % 6), legs: 30 }),
  ]),
];
const overlap = (a: Box, b: Box) => a.x + 0.01 < b.x + b.width && b.x + 0.01 < a.x + a.width && a.y + 0.01 < b.y + b.height && b.y + 0.01 < a.y + a.height;
const grounds = (layout: MapLayout): Box[] => layout.bands.flatMap((band) => [band, ...band.further]);
const apart = (boxes: readonly Box[], what: string) => {
  for (const [i, a] of boxes.entries())
    for (const b of boxes.slice(i + 1)) if (overlap(a, b)) throw new Error(`${what}: ${JSON.stringify(a)} lies on ${JSON.stringify(b)}`);
};

describe.each(["names", "faces"] as const)("the map as %s", (drawing: Drawing) => {
  it("shows every screen once, on its ground, with no card and no ground on another", () => {
    for (const [name, project] of documents)
      for (const room of [BESIDE, FOLDED]) {
        const layout = layoutMap(project, drawing, room);
        expect(layout.cards.map(({ id }) => id).sort(), name).toEqual(project.screens.map(({ id }) => id).sort());
        apart(layout.cards, name);
        apart(grounds(layout), name);
        for (const card of layout.cards) {
          const band = layout.bands.find(({ id }) => id === card.band);
          const on = [band, ...(band?.further ?? [])].some(
            (part) => part && card.x >= part.x && card.x + card.width <= part.x + part.width + 0.01 && card.y >= part.y,
          );
          expect(on, `${card.id} of ${name}`).toBe(true);
        }
      }
  });

  it("draws no flow and no leg in full through a card or a caption", () => {
    const through: string[] = [];
    let lines = 0;
    for (const [name, project, room] of documents.flatMap(([name, project]) => [BESIDE, FOLDED].map((room) => [name, project, room] as const))) {
      const layout = layoutMap(project, drawing, room);
      const blocked = obstacles(layout);
      for (const flow of flowsOf(project, layout).flows) {
        lines += 1;
        if (!isClear(flow.points, layout.cards)) through.push(`${name}: flow ${flow.from} to ${flow.to}`);
      }
      for (const leg of project.legs.slice(0, 60)) {
        const line = routeOf(project, layout, leg, blocked);
        lines += line ? 1 : 0;
        if (line && !isClear(line.points, layout.cards)) through.push(`${name}: ${leg.id}`);
      }
    }
    expect(lines).toBeGreaterThan(1000);
    expect(through).toEqual([]);
  });

  it("is the same for the same document, and other bands stay as they are when one changes", () => {
    expect(layoutMap(structuredClone(hollowcomb), drawing, FOLDED)).toEqual(layoutMap(hollowcomb, drawing, FOLDED));
    const more = applyEdit(
      applyEdit(hollowcomb, addElement("rota", { id: "extra", kind: "button", label: "Extra" })),
      addScreen(newScreen("extra", "Extra"), "rotaTab"),
    );
    const inside = (project: Project, band: string) => {
      const { cards, bands } = layoutMap(project, drawing, FOLDED);
      const at = bands.find(({ id }) => id === band);
      return cards.filter((card) => card.band === band).map(({ id, x, y }) => [id, Math.round(x - (at?.x ?? 0)), Math.round(y - (at?.y ?? 0))]);
    };
    for (const band of ["hivesTab", "inspect"]) expect(inside(more, band), band).toEqual(inside(hollowcomb, band));
  });
});

describe("names", () => {
  it("are all there and no smaller than 11, in the room, with at most one in twenty cut: 34 beside both panels, 300 with them folded", () => {
    for (const [name, project, room] of [
      ["eight", named(builtApp(8), 3), BESIDE],
      ["hollowcomb", hollowcomb, BESIDE],
      ["draft", demo("hollowcomb-first-draft"), BESIDE],
      ["tidewatch", demo("tidewatch"), BESIDE],
      ["hundred", named(builtApp(100), 4), FOLDED],
      ["300 built", named(builtApp(300), 5), FOLDED],
      ["300 in few grounds", named(bigProject(300), 6), FOLDED],
    ] as const) {
      const layout = layoutMap(project, "names", room);
      expect(layout.form, name).not.toBe("dots");
      expect(layout.size, name).toBeGreaterThanOrEqual(11);
      expect(layout.height, name).toBeLessThanOrEqual(room.height + 16);
      for (const card of layout.cards) {
        expect(card.x >= 0 && card.x + card.width <= room.width, `${name}: ${card.id}`).toBe(true);
        expect(textWidth(card.label, layout.size), `${name}: ${card.label}`).toBeLessThanOrEqual(card.width + 0.1);
      }
      const cut = layout.cards.filter(({ label }) => label.endsWith("…")).length;
      expect(cut / layout.cards.length, name).toBeLessThanOrEqual(0.05);
    }
  });

  it("three hundred long ones, of one to three words each, are all there as well", () => {
    const layout = layoutMap(named(builtApp(300), 5, 3), "names", FOLDED);
    expect([layout.form, layout.size]).toEqual(["index", 11]);
    expect(layout.cards.every(({ label }) => label.length > 4 || !label.endsWith("…"))).toBe(true);
  });

  it("a thousand are dots in the room, and can be read where the map may be higher", () => {
    const project = named(builtApp(1000), 7);
    const dots = layoutMap(project, "names", FOLDED);
    expect(dots.form).toBe("dots");
    expect(dots.width).toBeLessThanOrEqual(FOLDED.width + 1);
    expect(dots.bands.filter(({ caption }) => caption.width > 0).every(({ caption }) => caption.label !== "")).toBe(true);
    const readable = layoutMap(project, "names", FOLDED, false);
    expect(readable.form).toBe("index");
    expect(readable.height).toBeGreaterThan(FOLDED.height);
    expect(readable.cards.length).toBe(project.screens.length);
  });

  it("stand in an index beneath the screen that leads to them first", () => {
    const project = app("s", { stacks: { s: "a b c d e" }, legs: ["ab a push b", "ac a push c", "bd b push d", "de d push e", "ea e push a"] });
    const layout = layoutMap(project, "names", { width: 150, height: 600 });
    expect(layout.form).toBe("index");
    expect(layout.cards.map(({ id, parent }) => [id, parent])).toEqual([
      ["a", undefined],
      ["b", "a"],
      ["d", "b"],
      ["e", "d"],
      ["c", "a"],
    ]);
  });
});

describe("flows", () => {
  const project = app("t", {
    tabs: { t: "s u" },
    stacks: { s: "a b", u: "x y" },
    modals: { m: "q" },
    legs: ["one a select x", "two b select x", "back y select a", "help t open m", "in a push b", "up x push y"],
  });

  it("count what leads from one ground to another, a shared leg once; not what stays on one", () => {
    const { flows, all } = flowsOf(project, layoutMap(project, "names", FOLDED));
    expect(flows.map(({ from, to, legs }) => [from, to, legs.map(({ id }) => id)])).toEqual([
      ["s", "u", ["one", "two"]],
      ["u", "s", ["back"]],
      ["t", "m", ["help"]],
    ]);
    expect(all).toBe(3);
  });

  it("of one form, or to and from one ground", () => {
    const layout = layoutMap(project, "names", FOLDED);
    expect(flowsOf(project, layout, { form: "open" }).flows.map(({ to }) => to)).toEqual(["m"]);
    expect(flowsOf(project, layout, { of: "m" }).flows.map(({ from }) => from)).toEqual(["t"]);
  });
});
