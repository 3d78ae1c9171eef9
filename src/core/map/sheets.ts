import type { Container } from "../model/schema.ts";
import { GAP, PITCH } from "./measure.ts";
import type { Band } from "./types.ts";

export type Modal = Extract<Container, { kind: "modal" }>;

/** How wide a sheet is that holds a number of columns. */
export function sheetWidth(band: Pick<Band, "width" | "name" | "says">): number {
  return Math.max(14 + band.width * PITCH - GAP + 92, captionWidth(band));
}

/** Room for a band's caption, by the usual width of a letter. */
export function captionWidth(band: Pick<Band, "name" | "says">): number {
  return 40 + band.name.length * 8 + band.says.length * 6.2;
}

/** What a sheet is, in words. */
export function modalSays(modal: Modal, ownHistory: boolean): string {
  const closing = modal.closeOn
    .filter((way) => way !== "outside" || modal.shape !== "full")
    .map((way) => (way === "button" ? "×" : way === "outside" ? "a tap outside" : way === "back" ? "Back" : "swipe"));
  return [
    "comes up over the page",
    ...(ownHistory ? ["own history"] : []),
    closing.length > 0 ? `closes by ${closing.join(", ")}` : "closes by its legs alone",
  ].join(" · ");
}
