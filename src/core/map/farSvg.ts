import { nameOf } from "../model/lookup.ts";
import { pictureFor } from "../model/pictures.ts";
import type { Project, Screen } from "../model/schema.ts";
import { escaped } from "../text/xml.ts";
import { type Face, faceMark, nameMark } from "./draw/card.ts";
import { flowMarks, innerMarks } from "./draw/far.ts";
import { bandMark, rulerMarks, spineMark } from "./draw/ground.ts";
import { legendMarks } from "./draw/legend.ts";
import type { Look } from "./draw/look.ts";
import { type Mark, svgText } from "./draw/mark.ts";
import { fileStyle } from "./draw/styles.ts";
import { faceOf } from "./face.ts";
import { layoutMap } from "./layout.ts";
import type { LensView } from "./lenses/lens.ts";
import type { Drawing, Room } from "./types.ts";

export interface FarOptions {
  drawing: Exclude<Drawing, "rows">;
  room: Room;
  /** How each screen stands, by its id. */
  look?: (screen: string) => Look | undefined;
  /** What the map is coloured by, with its legend beneath the map. */
  lens?: LensView | undefined;
  /** The address of a picture by its file, for faces; a sketch is drawn where it gives none. */
  pictures?: ((file: string) => string | undefined) | undefined;
}

/** The map as faces or as names, as an SVG file: what the page draws, with every text in full as a tooltip. The same document gives the same bytes. */
export function farSvg(project: Project, { drawing, room, look, lens, pictures }: FarOptions): string {
  const layout = layoutMap(project, drawing, room);
  const [width, map] = [Math.ceil(layout.width), Math.ceil(layout.height)];
  const legend = lens && legendMarks(lens, width);
  const height = map + (legend?.height ?? 0);
  const lookOf = (id: string) => lookThrough(lens, id, look?.(id));
  const flows = flowMarks(project, layout, (id) => nameOf(project, id));
  const marks = [
    ...rulerMarks(layout),
    ...layout.bands.map((band, index) => bandMark(band, { index, size: layout.size })),
    ...layout.spines.map((spine) => spineMark(spine, layout)),
    ...flows.marks,
    ...innerMarks(project, layout),
    ...(layout.launch ? [launchMark(layout.launch, layout.form === "columns" ? 17 : 11)] : []),
    ...layout.cards.map((card) =>
      drawing === "faces" ? faceMark(card, faceWith(project, card.screen, pictures), layout.size, lookOf(card.id)) : nameMark(card, layout, lookOf(card.id)),
    ),
  ];
  return `${[
    `<svg class="m" xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" width="${width}" height="${height}" role="img" aria-label="${escaped(`Map of ${project.name}`)}">`,
    `<title>${escaped(project.name)}</title>`,
    fileStyle(),
    `<rect class="paper" width="${width}" height="${height}"/>`,
    ...marks.map(svgText),
    ...(legend ? [`<g transform="translate(0 ${map})">${legend.marks.map(svgText).join("")}</g>`] : []),
    "</svg>",
  ].join("\n")}\n`;
}

function faceWith(project: Project, screen: Screen, pictures: FarOptions["pictures"]): Face {
  const picture = pictureFor(screen, { width: "narrow", dark: false });
  const href = picture && pictures?.(picture.file);
  return href === undefined ? faceOf(project, screen) : { picture: href };
}

/** How a place looks through a lens. */
function lookThrough(lens: LensView | undefined, id: string, look: Look = {}): Look {
  const seen = lens?.places.get(id);
  return seen ? { ...look, lens: seen } : look;
}

/** Where the app starts: a heavy arrow from outside. */
export function launchMark({ x, y }: { x: number; y: number }, length: number): Mark {
  const [left, middle] = [Math.round(x), Math.round(y)];
  return {
    tag: "g",
    key: "launch",
    children: [
      { tag: "title", text: "The app starts here" },
      { tag: "path", attrs: { className: "line", strokeWidth: 2, d: `M${left - length} ${middle}h${length - 1}m-5 -4.5l5 4.5l-5 4.5` } },
    ],
  };
}
