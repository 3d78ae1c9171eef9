import { fitted, textWidth } from "../../text/width.ts";
import type { LensView } from "../lenses/lens.ts";
import { type Mark, short } from "./mark.ts";

const LINE = 18;
const PAD = 16;
const BARS = { height: 44, width: 16 };

/** What a lens says beneath a map in a file: its question, what stands out, the legend, and how many have which value. */
export function legendMarks(view: LensView, width: number): { marks: Mark[]; height: number } {
  const marks: Mark[] = [];
  const text = (x: number, y: number, says: string, className: string, size = 12) => {
    marks.push({ tag: "text", text: says, attrs: { className, x: short(x), y: short(y), fontSize: size, dominantBaseline: "central" } });
  };
  let y = PAD;
  text(PAD, y, fitted(view.question, 13, width - 2 * PAD), "ground-name", 13);
  for (const says of view.extremes.slice(0, 4)) {
    y += LINE;
    text(PAD, y, fitted(says, 12, width - 2 * PAD), "on-plain");
  }
  y += LINE + 4;
  let x = PAD;
  for (const { tone, says, count } of view.legend) {
    const label = `${says}: ${count}`;
    const wide = 26 + textWidth(label, 12) + 16;
    if (x + wide > width - PAD && x > PAD) {
      x = PAD;
      y += LINE;
    }
    marks.push({
      tag: "rect",
      attrs: { className: `face tone-${tone}`, x: short(x), y: short(y - 6), width: 16, height: 12, strokeDasharray: tone === "none" ? "2 2" : undefined },
    });
    text(x + 22, y, label, "on-plain");
    x += wide;
  }
  y += LINE;
  const { chart } = view;
  if (chart && chart.counts.length > 1) {
    const most = Math.max(1, ...chart.counts);
    y += 4;
    text(PAD, y, chart.title, "m-note", 11);
    const foot = y + 14 + BARS.height;
    chart.counts.forEach((count, i) => {
      const high = (count / most) * (BARS.height - 12);
      const left = PAD + i * (BARS.width + 6);
      marks.push({ tag: "rect", attrs: { className: "tone-s3", x: left, y: short(foot - high), width: BARS.width, height: short(high) } });
      marks.push({ tag: "text", text: String(count), attrs: { x: left + BARS.width / 2, y: short(foot - high - 4), textAnchor: "middle", fontSize: 11 } });
      marks.push({ tag: "text", text: chart.labels[i] ?? "", attrs: { x: left + BARS.width / 2, y: foot + 11, textAnchor: "middle", fontSize: 11 } });
    });
    y = foot + 16;
  }
  return { marks, height: Math.ceil(y + 8) };
}
