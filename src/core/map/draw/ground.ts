import { tapsOn } from "../measure.ts";
import type { Band, Box, MapLayout, Spine } from "../types.ts";
import { type Mark, short } from "./mark.ts";

/** The ground of a band in the drawings of faces and names; a modal's is a sheet lifted off it. */
export function bandMark(band: Band, { index, size, selected }: { index: number; size: number; selected?: boolean }): Mark {
  const ground = index % 2 === 0 ? "band" : "band-2";
  const parts = [band, ...band.further];
  const { y } = band;
  const chosen = selected ? " chosen" : "";
  const says = band.caption.width > 0 && band.says !== "" && !band.lifted ? fits(band) : undefined;
  return {
    tag: "g",
    key: band.id,
    attrs: { "data-place": band.id, "data-band": "" },
    children: [
      { tag: "title", text: `${band.name || band.id}, ${band.says}` },
      ...parts.flatMap((part, i): Mark[] => [
        ...(band.lifted ? [{ tag: "rect" as const, key: `lift${i}`, attrs: { className: "lift", ...box(part, 4) } }] : []),
        {
          tag: "rect",
          key: `ground${i}`,
          attrs: { className: `${band.lifted ? "sheet" : ground}${chosen}`, ...box(part, 0), rx: band.lifted ? 3 : undefined },
        },
      ]),
      ...band.further.flatMap(({ caption }, i): Mark[] =>
        caption.width > 0
          ? [
              {
                tag: "text",
                key: `on${i}`,
                text: caption.label,
                attrs: { className: "group", fontSize: size, x: short(caption.x), y: short(caption.y + caption.height / 2 + 1), dominantBaseline: "central" },
              },
            ]
          : [],
      ),
      {
        tag: "text",
        attrs: {
          className: band.caption.light ? "group" : "ground-name",
          fontSize: size,
          x: short(band.caption.x),
          y: short(y + band.caption.height / 2 + 2),
          dominantBaseline: "central",
        },
        text: band.caption.label,
        children: [says === undefined ? undefined : { tag: "tspan", attrs: { className: "says", dx: 8, fontSize: 11 }, text: says }],
      },
    ],
  };
}

/** What a band is, where its caption leaves room for it: "tab 1" of "tab 1, own history". */
function fits(band: Band): string | undefined {
  const free = band.x + band.width - band.caption.x - band.caption.width - 60;
  return [band.says, band.says.split(",")[0] ?? ""].find((text) => text.length * 6 < free);
}

function box({ x, y, width, height }: Box, by: number) {
  return { x: short(x + by), y: short(y + by), width: short(width), height: short(height) };
}

/** The line on which lanes hang: heavy for tabs, double for a drawer, thin for what a stack holds. */
export function spineMark(spine: Spine, drawing: Pick<MapLayout, "form" | "drawing" | "size">): Mark {
  const { x, top, bottom, kind, knots } = spine;
  const index = drawing.form !== "columns";
  const weight = kind === "tabs" ? (index ? 3.4 : 5) : kind === "drawer" ? 1.6 : 1;
  return {
    tag: "g",
    key: `${spine.id} ${x}`,
    attrs: { "data-place": spine.id, "data-band": "", className: "spine" },
    children: [
      { tag: "title", text: `${spine.name}, ${kind}` },
      { tag: "rect", attrs: { className: "catch", x: short(x - 6), y: short(top), width: 12, height: short(bottom - top) } },
      { tag: "path", attrs: { className: "line", d: `M${short(x)} ${short(top + 3)}V${short(bottom - 3)}`, strokeWidth: weight, strokeLinecap: "round" } },
      kind === "drawer"
        ? { tag: "path", attrs: { className: "line", d: `M${short(x + 3.5)} ${short(top + 3)}V${short(bottom - 3)}`, strokeWidth: 1 } }
        : undefined,
      ...[...new Set(knots)].flatMap((y): Mark[] => [
        { tag: "path", key: `to${y}`, attrs: { className: "line", d: `M${short(x)} ${short(y)}H${short(spine.to)}`, strokeWidth: kind === "tabs" ? 1.6 : 1 } },
        ...(kind === "tabs" ? [{ tag: "circle" as const, key: `at${y}`, attrs: { className: "knot", cx: short(x), cy: short(y), r: 3.6 } }] : []),
      ]),
      index
        ? spine.name === "" || bottom - top < 12
          ? undefined
          : {
              tag: "text",
              text: `${spine.name}, ${kind}`,
              attrs: {
                className: "group",
                fontSize: drawing.form === "dots" ? drawing.size : 11,
                x: short(x + 8),
                y: short(top + (drawing.form === "dots" ? drawing.size * 0.7 : 9)),
                dominantBaseline: "central",
              },
            }
        : {
            tag: "text",
            text: `${spine.name}, ${kind}`,
            attrs: {
              className: "group",
              textAnchor: "middle",
              transform: `translate(${short(x - 6)} ${short((top + Math.min(bottom, top + 300)) / 2)}) rotate(-90)`,
            },
          },
    ],
  };
}

/** The ruler across the top: taps from the start of each band. */
export function rulerMarks(layout: MapLayout): Mark[] {
  return Array.from({ length: layout.ruled }, (_, i) => ({
    tag: "text" as const,
    key: `ruler${i}`,
    text: i === 0 || layout.pitch > 80 ? tapsOn(i) : String(i),
    attrs: { className: "ruler", x: short(layout.left + 10 + i * layout.pitch), y: 16 },
  }));
}
