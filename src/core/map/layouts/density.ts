/** Sizes of a drawing of names, in pixels. */
export interface Density {
  /** Of the type; no name is smaller than 11. */
  size: number;
  /** From one name to the next. */
  line: number;
  /** Height of a caption. */
  caption: number;
  /** Sheets have their captions at the end of their first line. */
  beside?: boolean;
}
