import { plainLine, withArrows, withoutSemicolons } from "./habits.ts";
import { controlsBeneath, DRAWING, HEADING, isListed, type Line, plainControls, underHeadings, withoutBrackets } from "./headings.ts";

/** A text as the lines that it consists of, in the one way of laying them out that is read. */

export interface LaidOut {
  lines: Line[];
  /** The title over them. */
  title: string | undefined;
  /** Its lists are of screens: what stands behind a dash is no control of the screen above. */
  dashed: boolean;
}

export function laidOut(text: readonly string[]): LaidOut {
  const all = text.flatMap((whole, i): Line[] => {
    const isPlain = /^(app|fact|rows|rule)\s/.test(whole.trim());
    const raw = isPlain ? whole : withoutSemicolons(withArrows(withoutBrackets(plainLine(whole))));
    const indent = (/^[ \t\u2500-\u257f]*/.exec(whole)?.[0] ?? "").replace(/\t/g, "  ").length;
    const start = raw.length - raw.trimStart().length;
    const piece = { text: raw.trim(), line: i + 1, column: start + 1 };
    return piece.text === "" || DRAWING.test(piece.text) ? [] : [{ piece, indent }];
  });
  const under = underHeadings(all);
  const { lines, isNested } = controlsBeneath(plainControls(under.lines));
  const over = isNested ? titleOver(lines) : undefined;
  const rest = over === undefined ? lines : lines.slice(1);
  // A list that begins with a dash, or under a heading, is a list of screens.
  const first = rest.find(({ piece }) => !OTHER_LINE.test(piece.text))?.piece.text ?? "";
  return { lines: rest, title: under.title ?? over, dashed: first.startsWith("- ") || HEADING.test(first) || isNested };
}

/** A name over a list that all else stands in. */
function titleOver([first, ...others]: readonly Line[]): string | undefined {
  const isName = first && !/[:>,("]/.test(first.piece.text) && !isListed(first.piece.text);
  return isName && others.every(({ isControl, piece }) => isControl || isListed(piece.text)) ? first.piece.text : undefined;
}

/** Lines that are none of a place. */
const OTHER_LINE = /^(app|fact|rows|in|rule)\s|^app( name)?:\s/i;
