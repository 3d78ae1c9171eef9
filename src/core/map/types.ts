import type { Container, Element, Leg, Screen } from "../model/schema.ts";

export interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** One element of a place as a row, with the legs that start at it. */
export interface Row {
  element: Element | undefined;
  /** What the row says: the element's label, or the trigger of legs without an element. */
  label: string;
  /** Centre line, from the top of the map. */
  y: number;
  legs: Leg[];
}

export interface Card extends Box {
  id: string;
  screen: Screen;
  band: string;
  column: number;
  rows: Row[];
  entrances: Array<{ id: string; name: string; kind: string; y: number }>;
  isStart: boolean;
}

/** A strip of ground for the screens of one container, or for one screen that is a lane by itself. */
export interface Band extends Box {
  id: string;
  container: Container | undefined;
  name: string;
  /** What the ground is, in words: "tab 1, own history". */
  says: string;
  lifted: boolean;
  /** A sheet that stands in a row with others. */
  inRow: boolean;
  /** Elements that the container shows on every screen in it. */
  rows: Row[];
  /** Where each depth starts, for a band that folds its columns and so does not keep to the ruler; else empty. */
  scale: Array<{ x: number; y: number; depth: number }>;
}

/** The line on which the lanes of a tab set or drawer hang. */
export interface Spine {
  id: string;
  kind: "tabs" | "drawer" | "stack";
  name: string;
  x: number;
  top: number;
  bottom: number;
  /** Heights at which a lane hangs. */
  knots: number[];
}

export interface MapLayout {
  width: number;
  height: number;
  left: number;
  /** Columns of the ruler that runs across all bands; 0 where some band folds its columns or stands in a row. */
  ruled: number;
  bands: Band[];
  cards: Card[];
  spines: Spine[];
  launch: { x: number; y: number } | undefined;
}
