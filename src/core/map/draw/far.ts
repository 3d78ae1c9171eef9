import type { Project } from "../../model/schema.ts";
import { type Flow, flowsOf } from "../flows.ts";
import { grouped } from "../grouped.ts";
import { pathOf } from "../lines.ts";
import type { Card, MapLayout, Point } from "../types.ts";
import { type Mark, short } from "./mark.ts";

/** A flow between two grounds, as wide as many legs it stands for. */
export function flowMark({ from, to, legs, points, width }: Flow, says: string): Mark {
  return {
    tag: "g",
    key: `${from} ${to}`,
    attrs: { className: "flow-group", "data-flow": `${from} ${to}` },
    children: [
      { tag: "title", text: `${says}: ${legs.length} ${legs.length === 1 ? "leg" : "legs"}` },
      { tag: "path", attrs: { className: "flow", d: pathOf(points.map(rounded)), strokeWidth: short(width) } },
      { tag: "path", attrs: { className: "flow-head", d: headOf(points, 5) } },
    ],
  };
}

/** The flows of a map, and how many more there are. */
export function flowMarks(project: Project, layout: MapLayout, name: (id: string) => string): { marks: Mark[]; all: number } {
  const { flows, all } = flowsOf(project, layout);
  return { marks: flows.map((flow) => flowMark(flow, `${name(flow.from)} to ${name(flow.to)}`)), all };
}

function rounded({ x, y }: Point): Point {
  return { x: short(x), y: short(y) };
}

/** An open arrowhead at the end of a line. */
export function headOf(points: readonly Point[], size: number): string {
  const [before, end] = [points.at(-2), points.at(-1)];
  if (!before || !end) return "";
  const back = end.x >= before.x ? -size : size;
  return `M${short(end.x + back)} ${short(end.y - size * 0.8)}L${short(end.x)} ${short(end.y)}L${short(end.x + back)} ${short(end.y + size * 0.8)}`;
}

/** What leads on within a band: arrows between columns of names, the lines of an outline in an index. */
export function innerMarks(project: Project, layout: MapLayout): Mark[] {
  if (layout.drawing !== "names" || layout.form === "dots") return [];
  return layout.form === "columns" ? pushMarks(project, layout) : treeMarks(layout);
}

function pushMarks(project: Project, layout: MapLayout): Mark[] {
  const cards = new Map(layout.cards.map((card) => [card.id, card]));
  const lanes = new Map<string, number>();
  return layout.cards.flatMap((card): Mark[] => {
    const to = new Set(project.legs.flatMap(({ from, move }) => (from === card.id && (move?.kind === "push" || move?.kind === "replace") ? [move.to] : [])));
    const targets = [...to].flatMap((id) => {
      const target = cards.get(id);
      return target && target.band === card.band && target.column === card.column + 1 ? [target] : [];
    });
    if (targets.length === 0) return [];
    const key = `${card.band} ${card.column}`;
    const lane = lanes.get(key) ?? 0;
    lanes.set(key, lane + 1);
    return targets.map((target) => arrow(card, target, lane));
  });
}

function arrow(card: Card, target: Card, lane: number): Mark {
  const start = { x: card.x + card.width, y: card.y + card.height / 2 };
  const end = { x: target.x - 1, y: target.y + target.height / 2 };
  const channel = start.x + 6 + (lane % 4) * 3;
  const points = start.y === end.y ? [start, end] : [start, { x: channel, y: start.y }, { x: channel, y: end.y }, end];
  return { tag: "path", key: `${card.id} ${target.id}`, attrs: { className: "push", d: pathOf(points.map(rounded), 4) + headOf(points, 4.5) } };
}

function treeMarks(layout: MapLayout): Mark[] {
  const cards = new Map(layout.cards.map((card) => [card.id, card]));
  const children = grouped(
    layout.cards.filter(({ parent }) => parent !== undefined),
    ({ parent }) => parent,
  );
  return [...children].flatMap(([id, list]): Mark[] => {
    const parent = cards.get(id ?? "");
    const near = parent ? list.filter((child) => child.y > parent.y && child.x > parent.x && child.x - parent.x < 30) : [];
    const last = near.at(-1);
    if (!parent || !last) return [];
    const x = short(parent.x + 6);
    const ticks = near.map((child) => `M${x} ${short(child.y + child.height / 2)}H${short(child.x + 1)}`);
    return [
      {
        tag: "path",
        key: `tree ${parent.id}`,
        attrs: { className: "tree", d: `M${x} ${short(parent.y + parent.height - 1)}V${short(last.y + last.height / 2)}${ticks.join("")}` },
      },
    ];
  });
}
