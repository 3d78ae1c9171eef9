import { optionsIn, SAYS_ITS_KIND } from "./habits.ts";
import { cutAt, endingOf, isQuoted, type Piece } from "./scan.ts";
import { CONTAINER_KINDS } from "./words.ts";

/** How whole texts are laid out: headings over groups of screens, and lists beneath them. */

/** One line, and how far in it stands. */
export interface Line {
  piece: Piece;
  indent: number;
  /** The kind of modal that it is by the heading over it, unless it says another. */
  modal?: string;
}

/** How far in what stands beneath a heading is. */
export const BENEATH = 1_000;

/** A heading: `## Main (tabs)`, `### Settings`. */
const MARKED = /^(#{1,6})\s+(\S.*)$/;
/** A heading over modals. */
const OVER_MODALS = /^(?:the )?(modal|sheet|bottom sheet|dialog|overlay|popup|pop-up|full screen|panel)s\s*:?$/i;
/** A heading over screens that says nothing of them. */
export const HEADING = /^(the )?(screens|pages|views)\s*:$/i;

/**
 * Lines with what stands beneath a heading that names a container in that: `## Main (tabs)`, and the screens beneath it are its tabs. Other headings and
 * comments are left out; what stands beneath `## Dialogs` are dialogs. The title of a text with such headings comes with it.
 */
export function underHeadings(lines: readonly Line[]): { lines: Line[]; title: string | undefined } {
  const heads = lines.map(({ piece }) => MARKED.exec(piece.text));
  const parts = heads.filter((head) => head && head[1] !== "#").length;
  const [first] = heads;
  const title = parts > 0 && first && first[1] === "#" && !containerIn(first[2] ?? "") ? first[2] : undefined;
  const out: Line[] = [];
  let beneath = 0;
  let modal: string | undefined;
  lines.forEach(({ piece, indent }, i) => {
    const [, , text = ""] = heads[i] ?? [];
    const isOverList = piece.text.endsWith(":") && isListed(lines[i + 1]?.piece.text ?? "");
    const plural = heads[i] || isOverList ? OVER_MODALS.exec(heads[i] ? text : piece.text)?.[1] : undefined;
    if (heads[i] || plural) {
      const container = plural ? undefined : containerIn(text);
      beneath = container ? BENEATH : 0;
      modal = plural?.toLowerCase();
      if (container) out.push({ piece: { ...piece, text: container, column: piece.column + piece.text.length - text.length }, indent: 0 });
    } else if (!piece.text.startsWith("#")) {
      // A list under a plain heading ends where something stands that is no part of it.
      if (modal && !isListed(piece.text) && indent === 0 && !isMarkedAbove(heads, i)) modal = undefined;
      out.push({ piece, indent: indent + beneath, ...(modal && indent === 0 ? { modal } : {}) });
    }
  });
  return { lines: out, title };
}

/** The line of the container that a heading names; undefined where it names none. */
function containerIn(text: string): string | undefined {
  const { before, inside } = endingOf({ text: text.replace(/\s*:$/, ""), line: 1, column: 1 });
  const isNamed = inside && optionsIn(inside).some((option) => CONTAINER_KINDS[option.text]);
  return isNamed || SAYS_ITS_KIND.test(before.text) ? text.replace(/\s*:$/, "") + (isNamed ? "" : ":") : undefined;
}

/** Whether a line is one of a list: after a dash, another bullet or a number. */
export const isListed = (text: string): boolean => /^([-*•·+]\s|\d{1,4}[.)]\s)/.test(text);

function isMarkedAbove(heads: ReadonlyArray<RegExpExecArray | null>, i: number): boolean {
  return heads.slice(0, i).some((head) => head !== null);
}

/** Whether what stands behind a dash is a screen with what is on it, and no control: `- Home: Plot list > Plot`. */
export function isScreenLine({ text, line, column }: Piece): boolean {
  const piece = { text: text.slice(2), line, column: column + 2 };
  const [head, rest] = cutAt(piece, ":");
  return rest !== undefined && !isQuoted(head.text) && !cutAt(head, ">")[1];
}
