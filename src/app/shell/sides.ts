/** Pixels that a side is wide at least and at most. */
export const NARROWEST = 220;
export const WIDEST = 720;
