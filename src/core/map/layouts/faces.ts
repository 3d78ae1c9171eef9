import { lookup } from "../../model/lookup.ts";
import type { Project } from "../../model/schema.ts";
import { fitted, textWidth } from "../../text/width.ts";
import { columnsOf } from "../columns.ts";
import { FACE_HEIGHT, FACE_WIDTH } from "../measure.ts";
import { type Section, type Sections, sectionsOf } from "../sections.ts";
import type { Band, Card, MapLayout, Room } from "../types.ts";
import { finished, hangingSpines, waysIn } from "./made.ts";

const TOP = 12;
const LEVEL = 20;
const CAPTION = 24;
const SPACE = 12;
/** Beneath a face, for its name. */
const NAME = 20;
const SIZE = 11.5;
/** Between two faces, where lines run. */
const GAP = 24;
const BELOW = 16;
const PAD = 14;
const PITCH = FACE_WIDTH + GAP;
const ROW = FACE_HEIGHT + NAME + BELOW;
/** Columns of faces that there are in the narrowest room. */
const FEWEST = 3;

/** A small picture of each screen, those nearest to the start of their band first; bands stand side by side where the room has space for it. */
export function layoutFaces(project: Project, room: Room): MapLayout {
  return new Faces(project, sectionsOf(project), room).finish();
}

class Faces {
  private readonly bands: Band[] = [];
  private readonly cards: Card[] = [];
  private readonly left: number;
  private readonly across: number;
  private readonly ways: ReturnType<typeof waysIn>;
  private shelf = { x: 0, y: TOP, bottom: TOP, begun: 0, of: "" };

  constructor(
    private readonly project: Project,
    private readonly from: Sections,
    room: Room,
  ) {
    this.left = Math.max(0, ...from.groups.map(({ level }) => level + 1)) * LEVEL + 16;
    this.across = Math.max(FEWEST, Math.floor((room.width - this.left - PAD * 2 - 30 + GAP) / PITCH));
    this.ways = waysIn(project);
    this.shelf.x = this.left;
    from.sections.forEach((section, i) => {
      this.place(section, i);
    });
    this.nextShelf("");
  }

  private get right(): number {
    return this.left + PAD * 2 + this.across * PITCH - GAP;
  }

  private place(section: Section, i: number) {
    const columns = [...columnsOf(this.project, section.screens, section.start)].sort(([, a], [, b]) => a - b);
    const across = Math.min(this.across, Math.max(1, columns.length));
    const faces = columns.length === 0 ? 0 : across * PITCH - GAP;
    const width =
      Math.max(
        faces,
        Math.min(textWidth(`${section.name || section.id}${section.modal ? "" : ` ${section.says.split(",")[0]}`}`, SIZE) + 30, PITCH * 2 - GAP),
      ) +
      PAD * 2;
    const of = this.from.groups.flatMap(({ from, to }, group) => (from <= i && i < to ? [group] : [])).join(" ") + (section.modal ? " sheets" : "");
    if (of !== this.shelf.of || columns.length === 0 || this.bands.at(-1)?.height === CAPTION + 6 || this.shelf.x + width > this.right + 1) this.nextShelf(of);
    const { x, y } = this.shelf;
    columns.forEach(([id, depth], n) => {
      const card = this.face(id, { x: x + PAD + (n % across) * PITCH, y: y + CAPTION + Math.floor(n / across) * ROW, column: n, depth, section });
      if (card) this.cards.push(card);
    });
    const height = CAPTION + Math.ceil(columns.length / across) * ROW + (columns.length === 0 ? 6 : 0);
    const label = fitted(section.name || section.id, 12, (width - 24) / 1.15);
    this.bands.push({
      id: section.id,
      container: section.container,
      name: section.name,
      says: section.says,
      lifted: section.modal !== undefined,
      inRow: false,
      x,
      y,
      width,
      height,
      rows: [],
      scale: [],
      foot: 0,
      further: [],
      caption: { x: x + PAD, y: y + 4, width: textWidth(label, 12) * 1.15 + 8, height: 18, label },
    });
    this.shelf.x += width + SPACE;
    this.shelf.bottom = Math.max(this.shelf.bottom, y + height);
  }

  private nextShelf(of: string) {
    const { bottom, begun } = this.shelf;
    for (const band of this.bands.slice(begun)) {
      band.foot = bottom + SPACE / 2;
      if (!band.lifted) band.height = bottom - band.y;
    }
    this.shelf = { x: this.left, y: this.bands.length === begun ? this.shelf.y : bottom + SPACE, bottom, begun: this.bands.length, of };
  }

  private face(id: string, at: { x: number; y: number; column: number; depth: number; section: Section }): Card | undefined {
    const screen = lookup(this.project).screens.get(id);
    if (!screen) return undefined;
    const { x, y, column, depth, section } = at;
    const entrances = (this.ways.get(id) ?? []).map((entrance) => ({ id: entrance.id, name: entrance.name, kind: entrance.kind, y: y + 12 }));
    const label = fitted(screen.name || id, SIZE, FACE_WIDTH + GAP - 12);
    return {
      id,
      screen,
      band: section.id,
      column,
      depth,
      rows: [],
      label,
      entrances,
      isStart: id === section.start,
      x,
      y,
      width: FACE_WIDTH,
      height: FACE_HEIGHT + NAME,
    };
  }

  finish(): MapLayout {
    const right = Math.max(this.right, ...this.bands.map((band) => band.x + band.width));
    return finished(this.project, {
      drawing: "faces",
      form: "columns",
      size: SIZE,
      width: right + 36,
      height: this.shelf.y + 4,
      left: this.left,
      ruled: 0,
      pitch: PITCH,
      bands: this.bands,
      cards: this.cards,
      spines: hangingSpines(this.from, this.bands, { level: LEVEL, to: this.left, at: 14 }),
      trunk: right + 18,
      channels: [],
      gaps: [],
    });
  }
}
