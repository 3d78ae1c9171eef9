import { textWidth } from "../../text/width.ts";
import type { Shape } from "../face.ts";
import { FACE_HEIGHT, FACE_WIDTH } from "../measure.ts";
import type { Card, MapLayout } from "../types.ts";
import type { Look, Severity } from "./look.ts";
import { type Mark, short } from "./mark.ts";

/** A screen in the drawing of names: its name in a box or a line of an index, or a dot. */
export function nameMark(card: Card, { form, size }: Pick<MapLayout, "form" | "size">, look: Look = {}): Mark {
  const { width, height } = card;
  const dot = form === "dots";
  const index = form === "index";
  const tone = look.here ? "here" : (look.lens?.tone ?? "plain");
  const boxed = !index || tone !== "plain";
  const middle = short(height / 2);
  return {
    ...group(card, look),
    children: [
      title(card, look),
      halo(look, width, height),
      look.beneath ? { tag: "rect", attrs: { className: "beneath", x: 2, y: 2, width: short(width), height, rx: 2 } } : undefined,
      {
        tag: "rect",
        attrs: {
          className: `face tone-${tone}${boxed ? (index && !look.here ? " line-box" : "") : " bare"}${edge(look)}`,
          width: short(width),
          height,
          rx: dot ? 1.5 : 2.5,
          strokeDasharray: card.screen.planned ? "3 2.5" : undefined,
        },
      },
      dot
        ? undefined
        : { tag: "text", text: card.label, attrs: { className: `name on-${tone}`, x: index ? 4 : 8, y: middle, dominantBaseline: "central", fontSize: size } },
      dot ? undefined : hub(card, look, index ? -1 : 2, height),
      dot || index || card.column > 0 ? undefined : wayIn(card, middle),
      ...(dot ? [] : afterName(card, { y: middle, size, from: index ? 4 : 8, waysIn: index || card.column > 0 })),
      look.lens && !dot
        ? {
            tag: "text",
            text: look.lens.says,
            attrs: { className: `count on-${tone}`, x: short(width - 6), y: middle, dominantBaseline: "central", textAnchor: "end", fontSize: 11 },
          }
        : undefined,
      badge(look, dot ? { x: width, y: 0, scale: 0.55 } : index ? { x: -2, y: middle, scale: 0.5 } : { x: width, y: 1, scale: 0.85 }, !dot && !index),
    ],
  };
}

/** What a face is drawn from: a sketch, or the address of the screen's picture. */
export type Face = readonly Shape[] | { picture: string };

/** A screen in the drawing of faces: its picture or its sketch, with its name beneath. */
export function faceMark(card: Card, face: Face, size: number, look: Look = {}): Mark {
  const tone = look.here ? "here" : (look.lens?.tone ?? "plain");
  return {
    ...group(card, look),
    children: [
      title(card, look),
      halo(look, card.width, card.height),
      look.beneath ? { tag: "rect", attrs: { className: "beneath", x: 3, y: 3, width: FACE_WIDTH, height: FACE_HEIGHT, rx: 7 } } : undefined,
      ...("picture" in face ? pictureMarks(face.picture) : face.map(shapeMark)),
      look.here || look.lens || look.worst?.severity === "blocker" || card.screen.planned
        ? {
            tag: "rect",
            attrs: {
              className: `frame tone-${tone}${edge(look)}`,
              width: FACE_WIDTH,
              height: FACE_HEIGHT,
              rx: 7,
              strokeDasharray: card.screen.planned ? "4 3" : undefined,
            },
          }
        : undefined,
      {
        tag: "rect",
        attrs: {
          className: look.here ? "tone-here" : look.lens ? `tone-${tone}` : "bare",
          x: -4,
          y: FACE_HEIGHT + 3,
          width: FACE_WIDTH + 8,
          height: 16,
          rx: 2,
        },
      },
      {
        tag: "text",
        text: card.label,
        attrs: {
          className: `name on-${tone}`,
          x: FACE_WIDTH / 2 - (look.lens ? 6 : 0),
          y: FACE_HEIGHT + 11,
          dominantBaseline: "central",
          textAnchor: "middle",
          fontSize: size,
        },
      },
      look.lens
        ? {
            tag: "text",
            text: look.lens.says,
            attrs: { className: `count on-${tone}`, x: FACE_WIDTH + 2, y: FACE_HEIGHT + 11, dominantBaseline: "central", textAnchor: "end", fontSize: 11 },
          }
        : undefined,
      hub(card, look, -6, FACE_HEIGHT),
      wayIn(card, 12),
      badge(look, { x: FACE_WIDTH, y: 2, scale: 1 }, true),
    ],
  };
}

/** A picture as wide as a face; of a long one its top. */
function pictureMarks(href: string): Mark[] {
  const box = { width: FACE_WIDTH, height: FACE_HEIGHT };
  return [
    { tag: "rect", attrs: { className: "f-sheet l-none", ...box, rx: 7 } },
    { tag: "image", attrs: { href, ...box, preserveAspectRatio: "xMidYMin slice", clipPath: "inset(0 round 7px)" } },
    { tag: "rect", attrs: { className: "f-none l-second", ...box, rx: 7 } },
  ];
}

/** A hub, to which people must always be able to get back: a bar at its edge. */
function hub({ screen }: Card, look: Look, x: number, height: number): Mark | undefined {
  return screen.hub
    ? { tag: "rect", attrs: { className: look.here ? "hub-bar on-here" : "hub-bar", x, y: 2, width: 2.6, height: short(height - 4), rx: 1 } }
    : undefined;
}

function group(card: Card, look: Look): Mark {
  return {
    tag: "g",
    key: card.id,
    attrs: { "data-place": card.id, "data-card": "", transform: `translate(${short(card.x)} ${short(card.y)})`, className: look.faint ? "faint" : undefined },
  };
}

function title(card: Card, { lens }: Look): Mark {
  const ways = card.entrances.map(({ name }) => `way in: ${name}`);
  return { tag: "title", text: [card.screen.name || card.id, ...(card.screen.hub ? ["hub"] : []), ...(lens ? [lens.long] : []), ...ways].join(" · ") };
}

function halo({ selected, drop }: Look, width: number, height: number): Mark | undefined {
  if (!selected && !drop) return undefined;
  return { tag: "rect", attrs: { className: drop ? "halo drop" : "halo", x: -3.5, y: -3.5, width: short(width + 7), height: short(height + 7), rx: 4 } };
}

function edge({ worst, here }: Look): string {
  return worst?.severity === "blocker" && !here ? " blocked" : "";
}

/** A way in from outside: an arrow that comes from nowhere. */
function wayIn(card: Card, y: number): Mark | undefined {
  if (card.entrances.length === 0) return undefined;
  return { tag: "path", attrs: { className: "way-in", d: `M-17 ${y}h3m2 0h3m2 0h4m-4 -3.5l4 3.5l-4 3.5` } };
}

/** After the name: an arrow up and away for a way out of the app; one that comes down for a way in, where that has no room before the name. */
function afterName(card: Card, { y, size, from, waysIn }: { y: number; size: number; from: number; waysIn: boolean }): Mark[] {
  let x = short(Math.min(card.width - 18, from + textWidth(card.label, size) + 5));
  const marks: Mark[] = [];
  if (waysIn && card.entrances.length > 0) {
    marks.push({ tag: "path", key: "in", attrs: { className: "way-in", d: `M${x + 7} ${y - 3}l-6 6m0 -4.5v4.5h4.5` } });
    x += 11;
  }
  if (card.leaves) marks.push({ tag: "path", key: "out", attrs: { className: "way-out", d: `M${x} ${y + 3}l6 -6m-4.5 0h4.5v4.5` } });
  return marks;
}

/** The worst finding, told by its form as well: a diamond, a disc, a small square. */
const BADGE: Record<Severity, string> = {
  blocker: "M0 -9.5L9.5 0L0 9.5L-9.5 0Z",
  warning: "M-8 0a8 8 0 1 0 16 0a8 8 0 1 0 -16 0Z",
  note: "M-6 -6h12v12h-12Z",
};

function badge({ worst }: Look, { x, y, scale }: { x: number; y: number; scale: number }, counted: boolean): Mark | undefined {
  if (!worst) return undefined;
  const { severity, count } = worst;
  return {
    tag: "g",
    attrs: { className: `badge ${severity}`, transform: `translate(${short(x)} ${short(y)}) scale(${scale})` },
    children: [
      { tag: "path", attrs: { d: BADGE[severity] } },
      counted && severity !== "note"
        ? { tag: "text", text: String(count), attrs: { textAnchor: "middle", dominantBaseline: "central", fontSize: 11 } }
        : undefined,
    ],
  };
}

function shapeMark(shape: Shape, i: number): Mark {
  switch (shape.is) {
    case "rect":
      return {
        tag: "rect",
        key: String(i),
        attrs: {
          className: `f-${shape.fill} l-${shape.line}`,
          x: short(shape.x),
          y: short(shape.y),
          width: short(shape.width),
          height: short(shape.height),
          rx: shape.rx,
        },
      };
    case "path":
      return { tag: "path", key: String(i), attrs: { className: `f-none l-${shape.line}`, d: shape.d } };
    case "text":
      return {
        tag: "text",
        key: String(i),
        text: shape.text,
        attrs: {
          className: `f-${shape.fill}${shape.bold ? " strong" : ""}`,
          x: short(shape.x),
          y: short(shape.y),
          fontSize: shape.size,
          textAnchor: shape.anchor,
        },
      };
  }
}
