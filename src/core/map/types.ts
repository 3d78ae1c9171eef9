import type { Container, Element, Leg, Screen } from "../model/schema.ts";

/** The ways in which the map is drawn: cards with their elements; a small picture a screen; a name a screen. */
export const DRAWINGS = ["rows", "faces", "names"] as const;
export type Drawing = (typeof DRAWINGS)[number];

export interface Point {
  x: number;
  y: number;
}

export interface Box extends Point {
  width: number;
  height: number;
}

/** The pixels that a drawing has. */
export interface Room {
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

/** A screen as it is drawn. */
export interface Card extends Box {
  id: string;
  screen: Screen;
  /** Id of the band that it stands on. */
  band: string;
  /** Where it stands in its band, from the start. */
  column: number;
  /** Legs between the band's start and this screen. */
  depth: number;
  /** Empty but in rows. */
  rows: Row[];
  /** The name as far as it fits. */
  label: string;
  entrances: Array<{ id: string; name: string; kind: string; y: number }>;
  isStart: boolean;
  /** In an index: the screen of the same band that leads to it first. */
  parent?: string;
  /** A leg of it leaves the app. */
  leaves?: boolean;
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
  /** A height at its foot that is free of cards across the whole map. */
  foot: number;
  /** Where the band goes on in further columns of an index. */
  further: Array<Box & { caption: Caption }>;
  /** Flows between bands start and end at its height. */
  caption: Caption;
}

/** A caption as far as it fits; it has no width where there is none. */
export type Caption = Box & { label: string /** It stands beside a name. */; light?: true };

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
  /** Where the lanes begin. */
  to: number;
}

export interface MapLayout {
  drawing: Drawing;
  /** How names stand: in columns by taps, in an index as of a book, or as dots. */
  form: "columns" | "index" | "dots";
  /** Size of the type of names, in the map's units. */
  size: number;
  width: number;
  height: number;
  left: number;
  /** Columns of the ruler that runs across all bands; 0 where some band folds its columns or stands in a row. */
  ruled: number;
  /** Distance between two columns of the ruler. */
  pitch: number;
  bands: Band[];
  cards: Card[];
  spines: Spine[];
  launch: Point | undefined;
  /** An x that is free of cards from top to bottom. */
  trunk: number;
  /** Heights that are free of everything from side to side, beside the feet of the bands. */
  channels: number[];
  /** Upright lines between columns that are free of cards in most bands: lines may run down them. */
  gaps: number[];
}
