import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { bigProject } from "../../../bench/big.ts";
import { layoutMap } from "../../../src/core/map/layout.ts";
import { linesOf, pathOf, routeOf } from "../../../src/core/map/lines.ts";
import { isClear, obstacles } from "../../../src/core/map/route.ts";
import type { Box, Card } from "../../../src/core/map/types.ts";
import { addElement, addScreen, newScreen } from "../../../src/core/model/edits/add.ts";
import { applyEdit } from "../../../src/core/model/edits/kinds.ts";
import { readProject } from "../../../src/core/model/read.ts";
import type { Project } from "../../../src/core/model/schema.ts";
import { randomDocument } from "../../random/documents.ts";
import { app } from "../../vectors/app.ts";

const read = readProject(readFileSync("demo/hollowcomb.etape.json", "utf8"));
if (!read.ok) throw new Error("the demo does not read");
const demo = read.project;
const documents: Project[] = [
  demo,
  bigProject(200),
  bigProject(300),
  ...Array.from({ length: 150 }, (_, seed) => randomDocument(seed, { broken: seed % 2 === 0, guarded: true, screens: 8, legs: 14 })),
];

const overlap = (a: Box, b: Box) => a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;
const within = (card: Card, x1: number, y1: number, x2: number, y2: number) =>
  overlap(
    { x: card.x + 1, y: card.y + 1, width: card.width - 2, height: card.height - 2 },
    { x: Math.min(x1, x2), y: Math.min(y1, y2), width: Math.abs(x2 - x1) + 0.01, height: Math.abs(y2 - y1) + 0.01 },
  );

describe("the layout of the map", () => {
  it("shows every screen once, on the ground of a band", () => {
    for (const project of documents) {
      const { cards, bands } = layoutMap(project);
      expect(cards.map((card) => card.id).sort()).toEqual(project.screens.map((s) => s.id).sort());
      for (const card of cards) {
        const band = bands.find((b) => b.id === card.band) as Box;
        expect(card.y).toBeGreaterThan(band.y);
        expect(card.y + card.height).toBeLessThan(band.y + band.height);
      }
    }
  });

  it("lets no card and no band lie on another", () => {
    for (const project of documents) {
      const { cards, bands } = layoutMap(project);
      for (const list of [cards, bands])
        for (const [i, a] of list.entries()) for (const b of list.slice(i + 1)) expect(overlap(a, b), `${a.id} and ${b.id} of ${project.name}`).toBe(false);
    }
  });

  it("draws no line through a card, at rest or in focus", () => {
    const through: string[] = [];
    for (const project of documents) {
      const layout = layoutMap(project);
      const lines = [...linesOf(project, layout), ...project.legs.flatMap((leg) => routeOf(project, layout, leg) ?? [])].filter(
        (line) => line.drawn === "line",
      );
      for (const { points, leg } of lines)
        for (const [i, to] of points.slice(1).entries()) {
          const from = points[i] as { x: number; y: number };
          for (const card of layout.cards) if (within(card, from.x, from.y, to.x, to.y)) through.push(`${leg.id} of ${project.name} through ${card.id}`);
        }
    }
    expect(through).toEqual([]);
  });

  it("draws no line of a leg in focus through a caption of the demos, and few of them round the whole map", () => {
    const layout = layoutMap(demo);
    const blocked = obstacles(layout);
    const lines = demo.legs.flatMap((leg) => routeOf(demo, layout, leg, blocked) ?? []);
    expect(lines.filter(({ points }) => !isClear(points, blocked))).toEqual([]);
    expect(lines.filter(({ points }) => points.some(({ x }) => x === layout.trunk)).length).toBeLessThan(3);
  });

  it("is the same for the same document", () => {
    for (const project of documents.slice(0, 20)) expect(layoutMap(structuredClone(project))).toEqual(layoutMap(project));
  });

  it("an edit in one band moves no card in the others out of its place in its band", () => {
    const places = (project: Project, but: string) => {
      const { cards, bands } = layoutMap(project);
      return Object.fromEntries(
        cards.filter((card) => card.band !== but).map((card) => [card.id, [card.x, card.y - (bands.find((b) => b.id === card.band)?.y ?? 0)]]),
      );
    };
    const more = applyEdit(
      applyEdit(demo, addElement("rota", { id: "extra", kind: "button", label: "Extra" })),
      addScreen(newScreen("extra", "Extra"), "rotaTab"),
    );
    expect(places(more, "rotaTab")).toEqual(places(demo, "rotaTab"));
  });

  it("stands screens in columns by how many legs lie between them and the band's start", () => {
    const { cards } = layoutMap(app("s", { stacks: { s: "a b c d e" }, screens: { e: { up: "b" } }, legs: ["x a push b", "y b push c", "z a push d"] }));
    expect(Object.fromEntries(cards.map((card) => [card.id, card.column]))).toEqual({ a: 0, b: 1, c: 2, d: 1, e: 2 });
  });

  it("folds a depth of more than eight screens into slots side by side, and gives that band a scale instead of the ruler", () => {
    const many = Array.from({ length: 12 }, (_, i) => `m${i}`);
    const project = app("s", { stacks: { s: `a ${many.join(" ")} z` }, legs: [...many.map((id) => `to${id} a push ${id}`), "last m0 push z"] });
    const { cards, bands, ruled } = layoutMap(project);
    const column = Object.fromEntries(cards.map((card) => [card.id, card.column]));
    expect([column.a, column.m0, column.m3, column.m4, column.m11, column.z]).toEqual([0, 1, 1, 2, 3, 4]);
    expect(bands[0]?.scale.map(({ depth }) => depth)).toEqual([0, 1, 2]);
    expect(bands[0]?.scale[2]?.x).toBe(cards.find((card) => card.id === "z")?.x);
    expect(ruled).toBe(0);
    const eight = app("s", { stacks: { s: "a b c d e f g h i" }, legs: [..."bcdefghi"].map((id) => `to${id} a push ${id}`) });
    expect(layoutMap(eight)).toMatchObject({ ruled: 4, bands: [{ scale: [] }] });
  });

  it("stands many sheets in rows, few of them beneath one another", () => {
    const sheets = (count: number) => {
      const { bands } = layoutMap(bigProject(count));
      return bands.filter((band) => band.lifted).map((band) => [band.x, band.y]);
    };
    expect(new Set(sheets(200).map(([x]) => x)).size).toBe(1);
    const heights = sheets(300).map(([, y]) => y);
    expect(Math.max(...heights.map((y) => heights.filter((other) => other === y).length))).toBeGreaterThan(2);
  });

  it("takes the map's own order where the document has one", () => {
    const project = app("t", { tabs: { t: "a b" } });
    expect(layoutMap({ ...project, mapOrder: { t: ["b", "a"] } }).bands.map((band) => band.id)).toEqual(["b", "a"]);
  });
});

it("a path has round bends and ends where its line ends", () => {
  expect(
    pathOf([
      { x: 0, y: 0 },
      { x: 20, y: 0 },
      { x: 20, y: 30 },
    ]),
  ).toBe("M0 0L14 0Q20 0 20 6L20 30");
});
