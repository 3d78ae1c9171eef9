import type { At } from "./ast.ts";

/** A part of one line of text, with where it stands. */
export interface Piece extends At {
  text: string;
}

/** A piece without the space around it. */
export function trimmed({ text, line, column }: Piece): Piece {
  const start = text.length - text.trimStart().length;
  return { text: text.trim(), line, column: column + start };
}

/** Calls back for each letter that stands outside quotes; `depth` counts the parentheses and brackets around it. */
export function outside(text: string, each: (letter: string, i: number, depth: number) => unknown): void {
  let depth = 0;
  let quote: string | undefined;
  for (let i = 0; i < text.length; i++) {
    const letter = text.charAt(i);
    if (quote !== undefined) {
      if (letter === "\\") i += 1;
      else if (letter === quote) quote = undefined;
      continue;
    }
    // An apostrophe within a word is none that opens a quotation.
    if (letter === '"' || (letter === "'" && !/\w/.test(text.charAt(i - 1)))) {
      quote = letter;
      continue;
    }
    if (/[)\]}]/.test(letter)) depth -= 1;
    if (each(letter, i, depth) === false) return;
    if (/[([{]/.test(letter)) depth += 1;
  }
}

/** The parts between a separator that stands outside quotes and parentheses. */
export function splitAt(piece: Piece, separator: string): Piece[] {
  const parts: Piece[] = [];
  let begun = 0;
  const part = (end: number) => parts.push(trimmed({ text: piece.text.slice(begun, end), line: piece.line, column: piece.column + begun }));
  outside(piece.text, (letter, i, depth) => {
    if (letter !== separator || depth !== 0) return;
    part(i);
    begun = i + 1;
  });
  part(piece.text.length);
  return parts;
}

/** The two parts before and behind the first such separator; the second is undefined where there is none. */
export function cutAt(piece: Piece, separator: string): [Piece, Piece | undefined] {
  let at = -1;
  outside(piece.text, (letter, i, depth) => {
    if (letter !== separator || depth !== 0) return;
    at = i;
    return false;
  });
  const { text, line, column } = piece;
  if (at < 0) return [trimmed(piece), undefined];
  return [trimmed({ ...piece, text: text.slice(0, at) }), trimmed({ text: text.slice(at + 1), line, column: column + at + 1 })];
}

/** Parentheses at the end of a piece, and what stands before them; `attached` where there is no space between the two. */
export interface Ending {
  before: Piece;
  inside: Piece | undefined;
  attached: boolean;
}

export function endingOf(piece: Piece): Ending {
  const { text, line, column } = piece;
  if (!text.endsWith(")")) return { before: piece, inside: undefined, attached: false };
  let open = -1;
  outside(text, (letter, i, depth) => {
    if (letter === "(" && depth === 0) open = i;
    return undefined;
  });
  if (open < 0) return { before: piece, inside: undefined, attached: false };
  return {
    before: trimmed({ text: text.slice(0, open), line, column }),
    inside: { text: text.slice(open + 1, -1), line, column: column + open + 1 },
    attached: open > 0 && text.charAt(open - 1) !== " ",
  };
}

/** A piece cut before each of some words that stand outside quotes and parentheses: the word, and what comes behind it. */
export function cutAtWords(piece: Piece, words: readonly string[]): Array<{ word: string; behind: Piece }> {
  const found: Array<{ word: string; at: number }> = [];
  outside(piece.text, (_, i, depth) => {
    if (depth !== 0 || (i > 0 && piece.text.charAt(i - 1) !== " ")) return;
    const word = words.find((one) => piece.text.startsWith(one, i) && /^(\s|$)/.test(piece.text.slice(i + one.length)));
    if (word !== undefined) found.push({ word, at: i });
    return;
  });
  return found.map(({ word, at }, i) => {
    const begins = at + word.length;
    const text = piece.text.slice(begins, found[i + 1]?.at);
    return { word, behind: trimmed({ text, line: piece.line, column: piece.column + begins }) };
  });
}

const QUOTED = /^"((?:[^"\\]|\\.)*)"$/;

/** A name as it is meant: without its quotes. */
export function unquoted(text: string): string {
  const inside = QUOTED.exec(text)?.[1];
  return inside === undefined ? text : inside.replace(/\\(.)/g, "$1");
}

export const isQuoted = (text: string): boolean => QUOTED.test(text);

/** A name as it is written: in quotes where it would be taken for something else. */
export function quotedIfNeeded(name: string, words: RegExp | undefined = undefined): string {
  const plain =
    name !== "" &&
    name === name.trim() &&
    !/[,;:>|()"/#\\\n→⇒➔➜`]|\*\*/.test(name) &&
    !name.startsWith("- ") &&
    !/^\[.*\]$/.test(name) &&
    !words?.test(name) &&
    !/(^|[^\w])'/.test(name);
  return plain ? name : `"${name.replace(/[\\"]/g, "\\$&").replace(/\n/g, " ")}"`;
}

/** Some text as a message names it. */
export function shown(text: string): string {
  return text.length > 60 ? `${text.slice(0, 59)}…` : text;
}
