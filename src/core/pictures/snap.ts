/** Brightness of a picture: one value from 0 to 255 a pixel, row by row. */
export interface Luma {
  readonly width: number;
  readonly height: number;
  readonly values: Uint8Array;
}
export type Rect = [x: number, y: number, width: number, height: number];

/** Least mean step of brightness along a side that counts as an edge, of 255. */
const LEAST = 6;

/**
 * Moves each side of a rectangle, by at most `reach` pixels, onto the strongest edge of the picture along it; a side near none stays.
 * Nearer edges count more.
 */
export function snapped(luma: Luma, [x, y, width, height]: Rect, reach: number): Rect {
  const inside = (n: number, most: number) => Math.max(0, Math.min(most, n));
  const [x0, x1] = [inside(x, luma.width), inside(x + width, luma.width)];
  const [y0, y1] = [inside(y, luma.height), inside(y + height, luma.height)];
  const left = best(x0, reach, luma.width, (at) => stepAcross(luma, at, y0, y1));
  const right = best(x1, reach, luma.width, (at) => stepAcross(luma, at, y0, y1));
  const top = best(y0, reach, luma.height, (at) => stepDown(luma, at, x0, x1));
  const bottom = best(y1, reach, luma.height, (at) => stepDown(luma, at, x0, x1));
  return right > left && bottom > top ? [left, top, right - left, bottom - top] : [x0, y0, Math.max(1, x1 - x0), Math.max(1, y1 - y0)];
}

function best(from: number, reach: number, most: number, strength: (at: number) => number): number {
  const middle = Math.round(from);
  let [found, score] = [from, LEAST];
  for (let at = Math.max(0, middle - reach); at <= Math.min(most, middle + reach); at++) {
    const edge = at === 0 || at === most ? LEAST * 1.5 : strength(at);
    const worth = edge * (1 - Math.abs(at - middle) / (2 * reach + 1));
    if (edge >= LEAST && worth > score * 1.0001) [found, score] = [at, worth];
  }
  return found;
}

/** Mean step of brightness between two columns, over some rows. */
function stepAcross({ width, values }: Luma, x: number, y0: number, y1: number): number {
  let sum = 0;
  const [from, to] = [Math.floor(y0), Math.max(Math.floor(y0) + 1, Math.floor(y1))];
  const every = Math.max(1, Math.floor((to - from) / 200));
  let count = 0;
  for (let y = from; y < to; y += every, count++) sum += Math.abs((values[y * width + x] ?? 0) - (values[y * width + x - 1] ?? 0));
  return count === 0 ? 0 : sum / count;
}

/** Mean step of brightness between two rows, over some columns. */
function stepDown({ width, values }: Luma, y: number, x0: number, x1: number): number {
  let sum = 0;
  const [from, to] = [Math.floor(x0), Math.max(Math.floor(x0) + 1, Math.floor(x1))];
  const every = Math.max(1, Math.floor((to - from) / 200));
  let count = 0;
  for (let x = from; x < to; x += every, count++) sum += Math.abs((values[y * width + x] ?? 0) - (values[(y - 1) * width + x] ?? 0));
  return count === 0 ? 0 : sum / count;
}
