/**
 * How wide a text will be, known without a screen: the advance widths of Hanken Grotesk at weight 600, in hundredths of the type's size,
 * read once off the font with a canvas (`measureText`). Kerning is left out, which errs on the wide side for nearly every text.
 */
const WIDTHS: Record<string, string> = {
  "19": "'",
  "24": "ij!,.:;",
  "26": "I()[]{}| ",
  "28": "l",
  "33": "f-",
  "36": 't"',
  "40": "*",
  "42": "r/",
  "47": "sz_\\",
  "50": "L",
  "52": "cg?",
  "54": "aexvy",
  "56": "0123456789$+<=>~hknuJPF",
  "58": "bdopqEST",
  "61": "BRYZ^",
  "66": "AKUVX",
  "69": "DHN#&",
  "71": "C",
  "75": "wGOQ%",
  "85": "mM",
  "88": "@",
  "97": "W",
};
const BY_LETTER = new Map(Object.entries(WIDTHS).flatMap(([width, letters]) => [...letters].map((letter) => [letter, Number(width) / 100])));
/** Letters of other alphabets, and those with marks. */
const OTHER = 0.64;
/** Signs that take a whole square: Chinese, Japanese, Korean, full-width forms, emoji. */
const SQUARE = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Hangul}\p{Extended_Pictographic}\uff00-\uffef]/u;
const ELLIPSIS = 0.74;

/** The width of a text in pixels at a size of type in pixels. */
export function textWidth(text: string, size: number): number {
  let width = 0;
  for (const letter of text) width += widthOf(letter);
  return width * size;
}

function widthOf(letter: string): number {
  const known = BY_LETTER.get(letter);
  if (known !== undefined) return known;
  if (/\p{M}/u.test(letter)) return 0;
  return SQUARE.test(letter) ? 1.05 : OTHER;
}

/** A text that is no wider than so many pixels: itself, or its beginning with an ellipsis. */
export function fitted(text: string, size: number, width: number): string {
  if (textWidth(text, size) <= width + 0.01) return text;
  let left = width - ELLIPSIS * size;
  let kept = "";
  for (const letter of text) {
    left -= widthOf(letter) * size;
    if (left < 0) break;
    kept += letter;
  }
  return `${kept.trimEnd()}…`;
}
