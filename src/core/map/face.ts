import { keyField, lookup, ownersAround } from "../model/lookup.ts";
import type { Container, Element, Project, Row, Screen } from "../model/schema.ts";
import { fitted, textWidth } from "../text/width.ts";
import { FACE_HEIGHT, FACE_WIDTH } from "./measure.ts";

/** What a face is drawn from; tones are the page's own colours. */
export type Shape =
  | { is: "rect"; x: number; y: number; width: number; height: number; fill: Tone; line: Tone; rx?: number }
  | { is: "path"; d: string; line: Tone }
  | { is: "text"; x: number; y: number; text: string; size: number; fill: Tone; bold?: boolean; anchor?: "middle" | "end" };
export type Tone = "none" | "sheet" | "band" | "paper" | "ink" | "second" | "hair";

/** Type on a face. */
const SMALL = 7;
const SIDE = 7;
const WIDE = FACE_WIDTH - 2 * SIDE;
const BAR = 17;
const TABS = 15;

/** The sketch of a screen: its bar, what stands on it, the tabs beneath; what comes up over the page leaves some of it to be seen. */
export function faceOf(project: Project, screen: Screen): Shape[] {
  return new Face(project, screen).shapes;
}

class Face {
  readonly shapes: Shape[] = [];
  private y = 0;
  private bottom = FACE_HEIGHT - 4;
  private beneathBar = 0;

  constructor(
    private readonly project: Project,
    private readonly screen: Screen,
  ) {
    const around = ownersAround(project, screen.id);
    const modal = around.find((container) => container.kind === "modal");
    this.ground(modal);
    if (!modal && !screen.coversTabs) this.tabs(around);
    const shared = around
      .filter(({ kind }) => kind !== "drawer")
      .flatMap(({ elements }) => (elements ?? []).filter(({ except }) => !except?.includes(screen.id)));
    const all = [...screen.elements, ...shared];
    this.bar(
      around,
      all.filter(({ at }) => at === "bar"),
    );
    for (const element of all.filter(({ at }) => at === "foot").reverse()) this.foot(element);
    for (const element of all) if ((element.at ?? "body") === "body") this.body(element);
  }

  private ground(modal: Extract<Container, { kind: "modal" }> | undefined) {
    const part = modal === undefined || modal.shape === "full" ? 0 : modal.shape === "dialog" ? 36 : 22;
    this.rect({ x: 0, y: 0, width: FACE_WIDTH, height: FACE_HEIGHT, fill: part > 0 ? "band" : "sheet", line: "ink", rx: 7 });
    if (part === 0) return;
    this.y = part;
    this.bottom = modal?.shape === "dialog" ? FACE_HEIGHT - 26 : FACE_HEIGHT - 3;
    this.rect({
      x: 3,
      y: part,
      width: FACE_WIDTH - 6,
      height: this.bottom + 3 - part - (modal?.shape === "dialog" ? 0 : 3),
      fill: "sheet",
      line: "second",
      rx: 4,
    });
  }

  private bar(around: readonly Container[], elements: readonly Element[]) {
    const bar = this.screen.bar ?? around.find((container) => container.bar)?.bar;
    if (bar?.show === false) {
      this.y += 6;
      return;
    }
    const [owner] = around;
    const root = owner?.kind !== "stack" || owner.start === this.screen.id;
    const y = this.y;
    if (bar?.lead === "menu") this.path(`M${SIDE} ${y + 7}h7M${SIDE} ${y + 9.5}h7M${SIDE} ${y + 12}h7`, "ink");
    else if (!root && bar?.lead !== "none") this.path(`M${SIDE + 4} ${y + 6.5}l-3.5 3.5l3.5 3.5`, "ink");
    const title = fitted(this.screen.name || this.screen.id, 7.5, WIDE - 34);
    this.text({ x: FACE_WIDTH / 2, y: y + 12, text: title, size: 7.5, fill: "ink", bold: true, anchor: "middle" });
    elements.slice(0, 2).forEach((_, i) => {
      this.rect({ x: FACE_WIDTH - SIDE - 7 - i * 10, y: y + 6, width: 7, height: 7, fill: "none", line: "ink", rx: 3.5 });
    });
    this.path(`M4 ${y + BAR}H${FACE_WIDTH - 4}`, "hair");
    this.y += BAR + 6 + this.beneathBar;
  }

  private tabs(around: readonly Container[]) {
    const tabs = around.find((container) => container.kind === "tabs");
    if (tabs?.kind !== "tabs" || tabs.members.length === 0) return;
    const inside = new Set([this.screen.id, ...around.map(({ id }) => id)]);
    const [x, width] = [SIDE, WIDE / tabs.members.length];
    const top = tabs.edge === "top";
    const y = top ? BAR - 2 : FACE_HEIGHT - TABS;
    if (top) this.beneathBar = 10;
    else {
      this.path(`M4 ${y}H${FACE_WIDTH - 4}`, "hair");
      this.bottom = y - 3;
    }
    tabs.members.forEach((id, i) => {
      const here = inside.has(id);
      this.rect({ x: x + i * width + 2, y: y + 6, width: width - 4, height: here ? 3 : 1.6, fill: here ? "ink" : "hair", line: "none" });
    });
  }

  private foot(element: Element) {
    const height = this.heightOf(element);
    if (this.bottom - height < this.y) return;
    this.bottom -= height;
    this.draw(element, this.bottom + 2);
  }

  private body(element: Element) {
    const height = this.heightOf(element);
    if (this.y + height > this.bottom) {
      if (this.y < this.bottom + 40) this.more();
      this.y = this.bottom + 100;
      return;
    }
    this.draw(element, this.y);
    this.y += height;
  }

  /** There is more than has room. */
  private more() {
    for (const i of [-1, 0, 1]) this.rect({ x: FACE_WIDTH / 2 + i * 5 - 0.75, y: this.bottom - 3, width: 1.5, height: 1.5, fill: "second", line: "none" });
  }

  /** The first rows of a list, by their name or their key. */
  private rowsOf(element: Element): string[] {
    const type = element.of === undefined ? undefined : lookup(this.project).types.get(element.of);
    const names = (type?.samples ?? [])
      .slice(0, 3)
      .map((row) => rowText(element.text, row) ?? String(row.name ?? (type ? row[keyField(type)] : undefined) ?? element.label));
    return names.length > 0 ? names : [element.label];
  }

  private heightOf(element: Element): number {
    switch (element.kind) {
      case "button":
        return 17;
      case "image":
        return 36;
      case "field":
        return 23;
      case "list":
        return this.rowsOf(element).length * 14 + 4;
      case "icon":
        return 15;
      case "text":
        return linesOf(element).length * 9 + 3;
      case "link":
      case "switch":
      case "pager":
        return 12;
    }
  }

  private draw(element: Element, y: number) {
    const label = fitted(element.label || element.id, SMALL, WIDE - 8);
    switch (element.kind) {
      case "button":
        this.rect({ x: SIDE, y, width: WIDE, height: 13, fill: "paper", line: "ink", rx: 1.5 });
        this.text({ x: FACE_WIDTH / 2, y: y + 9, text: label, size: SMALL, fill: "ink", bold: true, anchor: "middle" });
        return;
      case "image":
        this.rect({ x: SIDE, y, width: WIDE, height: 31, fill: "band", line: "none" });
        this.path(`M${SIDE} ${y + 30}l24 -15l17 8l22 -17l23 14`, "second");
        return;
      case "field":
        this.text({ x: SIDE, y: y + 6, text: label, size: 6, fill: "second" });
        this.rect({ x: SIDE, y: y + 8, width: WIDE, height: 11, fill: "paper", line: "second" });
        return;
      case "list":
        this.rowsOf(element).forEach((row, i) => {
          this.text({ x: SIDE, y: y + i * 14 + 9, text: fitted(row, SMALL, WIDE - 12), size: SMALL, fill: "ink" });
          this.path(`M${FACE_WIDTH - SIDE - 3} ${y + i * 14 + 4}l2.5 2.5l-2.5 2.5`, "second");
          this.path(`M${SIDE} ${y + i * 14 + 13}H${FACE_WIDTH - SIDE}`, "hair");
        });
        return;
      case "icon":
        this.rect({ x: SIDE, y: y + 1, width: 11, height: 11, fill: "none", line: "ink", rx: 5.5 });
        this.text({ x: SIDE + 15, y: y + 9, text: fitted(label, SMALL, WIDE - 18), size: SMALL, fill: "second" });
        return;
      case "switch":
        this.text({ x: SIDE, y: y + 7, text: fitted(label, SMALL, WIDE - 18), size: SMALL, fill: "ink" });
        this.rect({ x: FACE_WIDTH - SIDE - 12, y: y + 1, width: 12, height: 7, fill: "none", line: "ink", rx: 3.5 });
        this.rect({ x: FACE_WIDTH - SIDE - 11, y: y + 2, width: 5, height: 5, fill: "ink", line: "none", rx: 2.5 });
        return;
      case "link":
        this.text({ x: SIDE, y: y + 7, text: label, size: SMALL, fill: "ink" });
        this.path(`M${SIDE} ${y + 9}h${Math.min(WIDE, label.length * 3.6)}`, "second");
        return;
      case "text":
        linesOf(element).forEach((line, i) => {
          this.text({ x: SIDE, y: y + 7 + i * 9, text: line, size: SMALL, fill: "second" });
        });
        return;
      case "pager":
        this.text({ x: SIDE, y: y + 7, text: label, size: SMALL, fill: "second" });
        return;
    }
  }

  private rect(shape: Omit<Extract<Shape, { is: "rect" }>, "is">) {
    this.shapes.push({ is: "rect", ...shape });
  }

  private path(d: string, line: Tone) {
    this.shapes.push({ is: "path", d, line });
  }

  private text(shape: Omit<Extract<Shape, { is: "text" }>, "is">) {
    this.shapes.push({ is: "text", ...shape });
  }
}

/** What a row of a list says, where its template asks for nothing but the row's own fields. */
function rowText(template: string | undefined, row: Row): string | undefined {
  if (template === undefined) return undefined;
  const text = template.replace(/\{item\.(\w+)\}/g, (whole, field: string) => (row[field] === undefined ? whole : String(row[field])));
  return text.includes("{") ? undefined : text;
}

/** A text in up to three lines: what it says where that is no template, else its label. */
function linesOf({ text, label, id }: Element): string[] {
  const words = (text === undefined || text.includes("{") ? label || id : text).split(/\s+/);
  const lines: string[] = [];
  for (const word of words) {
    const last = lines.at(-1);
    if (last !== undefined && textWidth(`${last} ${word}`, SMALL) <= WIDE) lines[lines.length - 1] = `${last} ${word}`;
    else lines.push(word);
  }
  return lines.length > 3 ? [...lines.slice(0, 2), fitted(`${lines[2]} …`, SMALL, WIDE)] : lines.map((line) => fitted(line, SMALL, WIDE));
}
