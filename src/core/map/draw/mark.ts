import { escaped } from "../../text/xml.ts";

/** One element of a drawing, for the page and for files alike. Attributes are written as React has them: strokeWidth, not stroke-width. */
export interface Mark {
  tag: "g" | "rect" | "path" | "circle" | "text" | "title" | "tspan" | "image";
  key?: string;
  attrs?: Record<string, string | number | undefined>;
  text?: string;
  children?: Array<Mark | undefined>;
}

/** A drawing as SVG text. */
export function svgText({ tag, attrs = {}, text, children = [] }: Mark): string {
  const written = Object.entries(attrs).flatMap(([name, value]) => (value === undefined ? [] : [` ${attribute(name)}="${escaped(String(value))}"`]));
  const inside = (text === undefined ? "" : escaped(text)) + children.map((child) => (child ? svgText(child) : "")).join("");
  return inside === "" ? `<${tag}${written.join("")}/>` : `<${tag}${written.join("")}>${inside}</${tag}>`;
}

function attribute(name: string): string {
  return name === "className" ? "class" : name.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`);
}

/** A number with at most one decimal, so that files are short and the same on every machine. */
export function short(value: number): number {
  return Math.round(value * 10) / 10;
}
