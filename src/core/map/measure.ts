/** Sizes of the map, in its own units: one is one pixel at full size. */
export const CARD_WIDTH = 128;
export const CARD_HEAD = 28;
export const ROW_HEIGHT = 18;
export const CARD_FOOT = 6;
/** Space between columns; lines run and stubs stand in it. */
export const GAP = 100;
export const PITCH = CARD_WIDTH + GAP;
export const RULER_HEIGHT = 28;
/** Height of a band's caption. */
export const CAPTION = 26;
/** Height of the scale that a band has which does not keep to the ruler. */
export const SCALE_HEIGHT = 20;
/** Free space at a band's foot, in which lines to other columns run. */
export const GUTTER = 20;
export const CARD_SPACE = 14;
export const BAND_SPACE = 8;
/** Width of the margin that each level of containers takes at the left. */
export const LEVEL = 26;
export const ENTRANCE_HEIGHT = 22;
/** Characters of a row or name that fit a card at full size. */
export const NAME_FITS = 17;
export const ROW_FITS = 18;
export const STUB_FITS = 11;
/** Space within a gap, at its left, that stubs take; lines run to the right of it. */
export const STUB_SPACE = 78;

/** Size of a face, the small picture of a screen. */
export const FACE_WIDTH = 100;
export const FACE_HEIGHT = 148;

/** Text cut to a number of characters, the last of them an ellipsis. */
export function cut(text: string, fits: number): string {
  const characters = [...text];
  return characters.length <= fits ? text : `${characters.slice(0, fits - 1).join("")}…`;
}

/** How far a column is from where one starts, in words. */
export function tapsOn(depth: number): string {
  return depth === 0 ? "start" : depth === 1 ? "1 tap on" : `${depth} taps on`;
}
