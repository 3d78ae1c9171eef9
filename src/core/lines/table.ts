import { inOurWords } from "./habits.ts";
import { quotedIfNeeded } from "./scan.ts";
import { CONTAINER_KINDS, WAYS } from "./words.ts";

/** Tables of what leads where, as they are copied from a spreadsheet or written with bars, as lines. */

/** What a column is about. */
type Column = "from" | "control" | "to" | "way";

const HEADS: Record<Column, RegExp> = {
  from: /^(screens?|from|pages?|source|where|on|start)( screen| page)?$/i,
  control: /^(element|control|button|action|trigger|tap|user action|what|event|label)s?$/i,
  to: /^(targets?|to|leads to|goes to|next|destination|opens|result)( screen| page)?$/i,
  way: /^(how|way|kind|type|transition|presentation|navigation|mode)$/i,
};
const USUAL: readonly Column[] = ["from", "control", "to", "way"];
/** A row of a table with bars that only rules a line. */
const RULE = /^[|\s:-]+$/;

/**
 * A text that is a table, row by row as lines: `Home<tab>Plot list<tab>Plot` is `Home: Plot list > Plot`. Rows have three or four cells; a first row of headings says what
 * they are about, else they are the screen, the control, where that leads, and how. An empty first cell is as the one above. Undefined where the text is no table.
 */
export function tableLines(text: string): string[] | undefined {
  const lines = text.split(/\r\n|\r|\n/);
  const rows = lines.map((line) => (line.trim() === "" || RULE.test(line) ? [] : cellsOf(line)));
  const full = rows.filter((row) => row.length > 0);
  const [first = []] = full;
  const width = first.length;
  if (full.length < 2 || width < 3 || width > 4 || full.some((row) => row.length !== width) || full.some((row) => row.some((cell) => /[:>]/.test(cell))))
    return undefined;
  const heads = first.map((cell) => USUAL.find((column) => HEADS[column].test(cell)));
  const isHead = heads.includes("from") && heads.includes("to");
  const columns = isHead ? heads : USUAL.slice(0, width);
  let above = "";
  return rows.map((row) => {
    if (row.length === 0 || (isHead && row === first)) return "";
    const cell = (column: Column) => row[columns.indexOf(column)] ?? "";
    above = cell("from") || above;
    return above === "" ? "" : rowLine(above, cell("control"), cell("to"), cell("way"));
  });
}

/** The cells of a row, between tabs or bars; bars may stand at its ends, too. */
function cellsOf(line: string): string[] {
  const cells = line.includes("\t") ? line.split("\t") : line.trim().replace(/^\|/, "").replace(/\|$/, "").split("|");
  return cells.map((cell) => cell.trim());
}

function rowLine(from: string, control: string, to: string, way: string): string {
  const { text } = inOurWords({ text: way, line: 1, column: 1 });
  const isKnown = CONTAINER_KINDS[text] !== undefined || Object.values(WAYS).some((words) => words.includes(text));
  const target = /^(back|close|up)$/i.test(to) ? to.toLowerCase() : quotedIfNeeded(to);
  const leg = to === "" ? "" : `${target}${isKnown ? ` (${text})` : ""}`;
  if (control === "") return leg === "" ? quotedIfNeeded(from) : `${quotedIfNeeded(from)} > ${leg}`;
  return `${quotedIfNeeded(from)}: ${quotedIfNeeded(control)}${leg === "" ? "" : ` > ${leg}`}`;
}
