import { moveWord } from "../model/propose.ts";
import type { Project } from "../model/schema.ts";
import { escaped } from "../text/xml.ts";
import { legendMarks } from "./draw/legend.ts";
import { svgText } from "./draw/mark.ts";
import { fileStyle } from "./draw/styles.ts";
import { farSvg } from "./farSvg.ts";
import { ENDS, lineForm } from "./form.ts";
import { layoutMap } from "./layout.ts";
import { USUAL_ROOM } from "./layouts/far.ts";
import type { LensView, Seen } from "./lenses/lens.ts";
import { columnX, type Line, linesOf, pathOf } from "./lines.ts";
import { CARD_HEAD, CARD_WIDTH, cut, NAME_FITS, ROW_FITS, tapsOn } from "./measure.ts";
import { SHARED } from "./sections.ts";
import { stubLabel, stubText, stubWidth } from "./stub.ts";
import type { Band, Card, Drawing, MapLayout, Room, Row, Spine } from "./types.ts";

/** How a map is drawn in a file. */
export interface MapOptions {
  drawing?: Drawing;
  /** For faces and names. */
  room?: Room;
  /** What the map is coloured by. */
  lens?: LensView | undefined;
  /** The address of a picture by its file, for faces; a sketch is drawn where it gives none. */
  pictures?: ((file: string) => string | undefined) | undefined;
}

/** The map of a project as an SVG file: the layout of the page, with every text in full as a tooltip. The same document gives the same bytes. */
export function mapSvg(project: Project, { drawing = "rows", room = USUAL_ROOM, lens, pictures }: MapOptions = {}): string {
  if (drawing !== "rows") return farSvg(project, { drawing, room, lens, pictures });
  const layout = layoutMap(project);
  const width = Math.ceil(layout.width + 40);
  const map = Math.ceil(layout.height);
  const legend = lens && legendMarks(lens, width);
  const height = map + (legend?.height ?? 0);
  return `${[
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" width="${width}" height="${height}" role="img" aria-label="${escaped(`Map of ${project.name}`)}">`,
    `<title>${escaped(project.name)}</title>`,
    fileStyle(),
    style(),
    ends(),
    `<rect class="paper" width="${width}" height="${height}"/>`,
    ...ruler(layout),
    ...layout.bands.map((band) => bandSvg(project, band)),
    ...layout.spines.map((spine) => spineSvg(spine, layout)),
    ...linesOf(project, layout).map((line) => lineSvg(project, line)),
    ...(layout.launch ? [`<path class="line" stroke-width="2" marker-end="url(#end-push)" d="M${layout.launch.x - 24} ${layout.launch.y}h20"/>`] : []),
    ...layout.cards.map((card) => cardSvg(card, lens?.places.get(card.id))),
    ...(legend ? [`<g class="m" transform="translate(0 ${map})">${legend.marks.map(svgText).join("")}</g>`] : []),
    "</svg>",
  ].join("\n")}\n`;
}

/** What rows need beside the classes of the other drawings. */
function style(): string {
  const grounds = ["s0", "s1", "s2", "s3", "s4", "s5"].map((tone) => `.ground-${tone}{fill:var(--${tone})}`).join("");
  return [
    "<style>",
    "svg{font-size:11.5px}",
    ".paper{fill:var(--paper)}.sheet{fill:var(--sheet)}.band{fill:var(--band)}",
    `${grounds}.ground-good{fill:var(--s2)}.ground-warm{fill:var(--warm-soft)}.ground-urgent{fill:var(--urgent-soft)}.ground-none{fill:var(--paper)}`,
    "text{fill:var(--ink-2)}.name{fill:var(--ink);font-weight:650;font-size:13px}.caption{fill:var(--ink);font-weight:700;font-size:12px}",
    ".edge{stroke:var(--ink)}.hair{stroke:var(--hairline);fill:none}.line{stroke:var(--ink);fill:none;stroke-width:1.3}.dot{fill:var(--ink)}.end{stroke:var(--ink);stroke-width:1.4}",
    "</style>",
  ].join("\n");
}

function ends(): string {
  const markers = Object.entries(ENDS).map(
    ([end, { d, filled }]) =>
      `<marker id="end-${end}" markerWidth="12" markerHeight="12" refX="9" refY="6" orient="auto-start-reverse" markerUnits="userSpaceOnUse"><path class="end" fill="${filled ? "var(--ink)" : "none"}" d="${d}"/></marker>`,
  );
  return `<defs>${markers.join("")}</defs>`;
}

function ruler(layout: MapLayout): string[] {
  return Array.from({ length: layout.ruled }, (_, i) => {
    const x = columnX(layout, i);
    return `<path class="hair" stroke-dasharray="1 5" d="M${x - 18} 0V${layout.height}"/><text x="${x}" y="16">${tapsOn(i)}</text>`;
  });
}

function bandSvg(project: Project, band: Band): string {
  const { x, y, width, height } = band;
  const ground = band.lifted
    ? `<rect class="sheet edge" x="${x}" y="${y}" width="${width}" height="${height}" rx="3"/>`
    : `<rect class="band" x="${x}" y="${y}" width="${width}" height="${height}"/><path class="hair" d="M${x} ${y}h${width}M${x} ${y + height}h${width}"/>`;
  const shared = band.rows.map((row) => `${row.label}${row.legs[0] ? ` → ${stubLabel(project, row.legs[0])}` : ""}`);
  const says = shared.length > 0 ? `${band.says === SHARED ? "" : `${band.says} · `}${SHARED}: ${shared.join(", ")}` : band.says;
  const scale = band.scale.map(
    (mark) =>
      `<path class="hair" d="M${mark.x - 8} ${mark.y + 6}v${height - (mark.y - y) - 12}"/><text x="${mark.x}" y="${mark.y + 4}">${tapsOn(mark.depth)}</text>`,
  );
  return `<g data-place="${band.id}">${ground}${scale.join("")}<text class="caption" x="${x + 12}" y="${y + 17}">${escaped(band.name || band.id)}<tspan dx="8" fill="var(--ink-2)" font-weight="400">${escaped(says)}</tspan></text></g>`;
}

function spineSvg(spine: Spine, layout: MapLayout): string {
  const weight = spine.kind === "tabs" ? 5 : spine.kind === "drawer" ? 2 : 1;
  const middle = (spine.top + Math.min(spine.bottom, spine.top + 260)) / 2;
  const second = spine.kind === "drawer" ? `<path class="line" d="M${spine.x + 4} ${spine.top + 4}V${spine.bottom - 4}"/>` : "";
  const knots = spine.knots.map((y) => `<path class="line" d="M${spine.x} ${y}H${layout.left}"/>`).join("");
  return `<g data-place="${spine.id}"><path class="line" stroke-linecap="round" style="stroke-width:${weight}" d="M${spine.x} ${spine.top + 4}V${spine.bottom - 4}"/>${second}${knots}<text text-anchor="middle" transform="translate(${spine.x - 7} ${middle}) rotate(-90)">${escaped(`${spine.name} · ${spine.kind}`)}</text></g>`;
}

function lineSvg(project: Project, line: Line): string {
  const form = lineForm(line.leg.move);
  const dash = line.leg.planned ? "2 4" : form.dash;
  const dashes = dash === undefined ? "" : ` stroke-dasharray="${dash}"`;
  const target = stubLabel(project, line.leg);
  const title = `<title>${escaped(`${moveWord(line.leg.move)} ${target}`)}</title>`;
  if (line.drawn === "line")
    return `<g data-leg="${line.leg.id}">${title}<path class="line"${dashes} marker-end="url(#end-${form.end})" d="${pathOf(line.points)}"/></g>`;
  const label = stubText(target, line.count);
  const { x, y } = line.from;
  return `<g data-leg="${line.leg.id}">${title}<path class="line" d="M${x} ${y}h9"/><rect class="paper edge" stroke-width="0.8"${form.end === "open" ? ' stroke-dasharray="2 2"' : ""} x="${x + 9}" y="${y - 8}" width="${stubWidth(label)}" height="16" rx="8"/><text style="fill:var(--ink)" font-size="11" x="${x + 15}" y="${y + 4}">${escaped(label)}</text></g>`;
}

function cardSvg(card: Card, seen: Seen | undefined): string {
  const name = card.screen.name || card.id;
  const planned = card.screen.planned ? ' stroke-dasharray="3 3"' : "";
  const rows = card.rows.map((row) => rowSvg(card, row)).join("");
  const hub = card.screen.hub ? `<rect class="dot" x="${card.x - 5}" y="${card.y + 3}" width="2.8" height="${card.height - 6}" rx="1"/>` : "";
  const rule = card.rows.length > 0 ? `<path class="hair" d="M${card.x} ${card.y + CARD_HEAD}h${CARD_WIDTH}"/>` : "";
  const ways = card.entrances
    .map(
      (e) =>
        `<rect class="paper edge" stroke-dasharray="3 2" x="${card.x}" y="${e.y}" width="${CARD_WIDTH}" height="19" rx="2"/><text x="${card.x + 9}" y="${e.y + 13.5}">${escaped(`↑ ${cut(e.name, ROW_FITS - 1)}`)}</text>`,
    )
    .join("");
  return `<g data-place="${card.id}"><title>${escaped(seen?.long ?? name)}</title><rect class="sheet edge${seen ? ` ground-${seen.tone}` : ""}"${planned} x="${card.x}" y="${card.y}" width="${card.width}" height="${card.height}" rx="3"/><text class="name" x="${card.x + 10}" y="${card.y + CARD_HEAD / 2 + 4.5}">${escaped(cut(name, seen ? NAME_FITS - 3 : NAME_FITS - 1))}</text>${seen ? `<text class="on-${seen.tone}" text-anchor="end" x="${card.x + card.width - 8}" y="${card.y + CARD_HEAD / 2 + 4}">${escaped(seen.says)}</text>` : ""}${rule}${rows}${ways}${hub}</g>`;
}

function rowSvg(card: Card, row: Row): string {
  const dot = row.legs.length > 0 ? `<circle class="dot" cx="${card.x + CARD_WIDTH}" cy="${row.y}" r="2.6"/>` : "";
  return `<text${row.element ? "" : ' font-style="italic"'} x="${card.x + 10}" y="${row.y + 4}">${escaped(cut(row.label, ROW_FITS))}</text>${dot}`;
}
