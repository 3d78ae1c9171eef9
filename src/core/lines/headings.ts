import { folded } from "../model/names.ts";
import { optionsIn, SAYS_ITS_KIND } from "./habits.ts";
import { cutAt, endingOf, isQuoted, type Piece, splitAt } from "./scan.ts";
import { CONTAINER_KINDS } from "./words.ts";

/** How whole texts are laid out: headings over groups of screens, and lists beneath them. */

/** One line, and how far in it stands. */
export interface Line {
  piece: Piece;
  indent: number;
  /** It is a control of the screen above it, or a screen, though it stands behind a dash. */
  isControl?: boolean;
  isScreen?: boolean;
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
 * Lines with what stands beneath a heading that names a container in that: `## Main (tabs)`, and the screens beneath it are its tabs. A heading over a list of
 * controls is a screen: `## Home`, and `- Play > Game` beneath it. Other headings and comments are left out; what stands beneath `## Dialogs` are
 * dialogs. The title of a text with such headings comes with it.
 */
export function underHeadings(lines: readonly Line[]): { lines: Line[]; title: string | undefined } {
  const heads = lines.map(({ piece }) => MARKED.exec(piece.text));
  const parts = heads.filter((head) => head && head[1] !== "#").length;
  const [first] = heads;
  const title = parts > 0 && first && first[1] === "#" && !containerIn(first[2] ?? "") ? first[2] : undefined;
  const out: Line[] = [];
  let beneath = 0;
  let modal: string | undefined;
  let of: "screens" | "controls" | undefined;
  lines.forEach(({ piece, indent }, i) => {
    const [, , text = ""] = heads[i] ?? [];
    const isOverList = piece.text.endsWith(":") && isListed(lines[i + 1]?.piece.text ?? "");
    const plural = heads[i] || isOverList ? OVER_MODALS.exec(heads[i] ? text : piece.text)?.[1] : undefined;
    if (heads[i] || plural) {
      const container = plural ? undefined : containerIn(text);
      beneath = container ? BENEATH : 0;
      modal = plural?.toLowerCase();
      const list = heads[i]?.[1] === "#" ? [] : following(lines, i, (other) => isListed(other.piece.text));
      const isOfControls = !container && !plural && list.some((other) => cutAt(other.piece, ">")[1]) && !list.some((other) => isScreenLine(other.piece));
      const name = container ?? (isOfControls ? text : undefined);
      if (name !== undefined) out.push({ piece: { ...piece, text: name, column: piece.column + piece.text.length - text.length }, indent: 0 });
      if (heads[i]?.[1] !== "#") of = isOfControls ? "controls" : "screens";
    } else if (!piece.text.startsWith("#")) {
      // A list under a plain heading ends where something stands that is no part of it.
      if (modal && !isListed(piece.text) && indent === 0 && !isMarkedAbove(heads, i)) modal = undefined;
      if (indent === 0 && !isListed(piece.text)) of = undefined;
      const isInList = of !== undefined && isListed(piece.text);
      const behind = { ...(isInList && of === "screens" && indent === 0 ? { isScreen: true } : {}), ...(modal && indent === 0 ? { modal } : {}) };
      out.push(isInList && of === "controls" ? asControl({ piece, indent }) : { piece, indent: indent + beneath, ...behind });
    }
  });
  return { lines: out, title };
}

/** The line of the container that a heading names; undefined where it names none. */
function containerIn(text: string): string | undefined {
  const plain = withoutColon(text);
  const { before, inside } = endingOf({ text: plain, line: 1, column: 1 });
  const isNamed = inside && optionsIn(inside).some((option) => CONTAINER_KINDS[option.text]);
  return isNamed || SAYS_ITS_KIND.test(before.text) ? plain + (isNamed ? "" : ":") : undefined;
}

const withoutColon = (text: string): string => (text.endsWith(":") ? text.slice(0, -1).trimEnd() : text);

/** Whether a line is one of a list: after a dash, another bullet or a number. */
export const isListed = (text: string): boolean => BULLET.test(text);

function isMarkedAbove(heads: ReadonlyArray<RegExpExecArray | null>, i: number): boolean {
  return heads.slice(0, i).some((head) => head !== null);
}

/** A line that begins with what it is: `Screen: Home`, `Dialog: Discard?`. */
const SAYS_FIRST = /^(screen|page|view|tab|modal|sheet|bottom sheet|dialog|alert|popup|full screen|panel|stack|drawer)\s*:\s*([^:>,]+)$/i;

/** Names that would be read as what the following is, as a name in brackets, or as the first line of a drawing. */
export const TAKEN_FIRST =
  /^(screen|page|view|tab|modal|sheet|bottom sheet|dialog|alert|popup|full screen|panel|stack|drawer)$|^\[.*\]$|^(graph|flowchart) (TD|TB|LR|RL|BT)$/i;

/** The first line of a drawing in text, which says which way it goes. */
export const DRAWING = /^((graph|flowchart) (TD|TB|LR|RL|BT)|stateDiagram(-v2)?);?$/i;

/** A heading in brackets without them: `[Home]`. */
export function withoutBrackets(line: string): string {
  const [, before = "", name, behind = ""] = /^(\s*(?:[-*•·+]\s+)?)\[([^[\]]+)\](\s*:?\s*)$/.exec(line) ?? [];
  return name === undefined ? line : `${before} ${name} ${behind}`;
}

/** A container with its members in its parentheses: `Home (tabs: Feed, Shop)`. */
const HOLDS_INSIDE = /^([^:>()]*[^:>()\s])\s*\((tabs|tab bar|bottom tabs|drawer|side menu|menu)\s*:([^:>()]+)\)$/i;

/** `Screen: Home` as `Home`, `Dialog: Discard?` as `Discard? (dialog)`, and `Home (tabs: Feed, Shop)` as `Home (tabs): Feed, Shop`. */
export function saidFirst(piece: Piece): Piece {
  const [, around, lanes = "", members] = HOLDS_INSIDE.exec(piece.text) ?? [];
  if (around !== undefined) return { ...piece, text: `${around} (${/menu$/i.test(lanes) ? "drawer" : lanes}): ${members?.trim()}` };
  const [, kind = "", name] = SAYS_FIRST.exec(piece.text) ?? [];
  if (name === undefined) return piece;
  const column = piece.column + piece.text.length - name.length;
  const isScreen = /^(screen|page|view)$/i.test(kind);
  return { ...piece, text: isScreen || endingOf({ text: name, line: 1, column: 1 }).inside ? name : `${name} (${kind.toLowerCase()})`, column };
}

/** A step that goes on by itself: `Splash > (2 sec) > Home`. */
const WAITS = /^([^>:"]+)>\s*\(?(?:after )?(\d+(?:\.\d+)?) ?(ms|s|secs?|seconds?)\)?\s*>\s*([^>]+)$/i;

/** Such a step as one after a while. */
export function waiting(piece: Piece): Piece {
  const [, from, time, unit, then] = WAITS.exec(piece.text) ?? [];
  return from === undefined ? piece : { ...piece, text: `${from.trim()}: after ${time} ${unit} > ${then}` };
}

/** What is tapped, behind where that leads: `(tap "Start")`. */
const TAPPED = /^(?:on )?(?:tap|click|press)(?:ping|ing|es|s)?(?: on)?(?: the)? (\S.*)$/i;

/** A place that is led to, with the control that leads there where it says that: `Lessons (tap "Start")`. */
export function tapped(piece: Piece): { label: string; to: string } | undefined {
  const { before, inside } = endingOf(piece);
  const [, label] = TAPPED.exec(inside?.text ?? "") ?? [];
  return label === undefined ? undefined : { label, to: before.text };
}

/**
 * A line of one step, named behind or on its arrow, as one of the screen that it starts from: `Home > Settings: gear icon` and `Home >|gear icon| Settings`
 * are `Home: gear icon > Settings`.
 */
export function stepFirst(piece: Piece): Piece {
  const [head, behind] = cutAt(piece, ":");
  const [from, to] = cutAt(behind ? head : piece, ">");
  if (!to || isQuoted(head.text)) return piece;
  const [, on, target = to.text] = /^\|([^|]+)\|\s*(.+)$/.exec(to.text) ?? [];
  const label = on ?? behind?.text;
  if (label === undefined || /[>,:]/.test(label) || /[>,:|]/.test(target) || (on !== undefined && behind)) return piece;
  const plain = label.trim().replace(/^(?:on )?(?:tap|click|press|select|choose|pick)(?:s|ping|ing|es)?(?: on)?(?: the)? /i, "");
  const isBack = /^(go )?back$/i.test(plain);
  return { ...piece, text: `${from.text}: ${isBack ? "Back" : plain} > ${isBack ? "back" : target}` };
}

/**
 * Lists of screens with lists of their controls further in: then each of the latter is on the screen above it. Where something in it leads somewhere and
 * nothing in it holds more, a list is of controls.
 */
export function controlsBeneath(lines: readonly Line[]): { lines: Line[]; isNested: boolean } {
  let isNested = false;
  const out = [...lines];
  lines.forEach(({ piece, indent }, i) => {
    const line = saidFirst(piece).text;
    const isContainer = containerIn(line.replace(BULLET, "")) !== undefined;
    // A modal holds steps or controls: what stands right beneath its line are controls unless something stands on them.
    const isModal = isContainer && isModalLine(line) && (lines[i + 1]?.indent ?? -1) >= indent;
    if ((isContainer && !isModal) || piece.text.endsWith(":")) return;
    const inside = following(lines, i, (other) => (isModal ? isListed(other.piece.text) && other.indent >= indent : other.indent > indent));
    const [first] = inside;
    const isList = first !== undefined && inside.every((one) => one.indent === first.indent && isListed(one.piece.text) && !isScreenLine(one.piece));
    if (!isList || !(isModal || inside.some((one) => cutAt(one.piece, ">")[1]))) return;
    isNested ||= isListed(piece.text);
    out.splice(i + 1, inside.length, ...inside.map((one) => asControl(one)));
  });
  return { lines: out, isNested };
}

/** What stands before a list of controls: `Buttons: Play, Scores`. */
const SAYS_CONTROLS = /^(buttons|controls|elements|fields|actions|content|contents|ui|on it)\s*:\s*/i;

/**
 * The same where such a list has no bullets: lines that lead somewhere further in than a screen, and that nothing leads to. `Home` with `Play > Game` and
 * `Scores > Scores` beneath it has two buttons; `Main` with `Home > Game` and `Game > Home` has two screens.
 */
export function plainControls(lines: readonly Line[]): Line[] {
  const least = Math.min(...lines.map(({ indent }) => indent));
  if (lines.filter(({ indent }) => indent === least).length < 2) return [...lines];
  const headOf = ({ piece }: Line) => folded(cutAt(piece, ">")[0].text);
  const targets = new Map<string, Set<string>>();
  for (const line of lines)
    for (const part of splitAt(cutAt(line.piece, ":")[1] ?? line.piece, ",")) {
      const to = folded(endingOf(cutAt(part, ">")[1] ?? { ...part, text: "" }).before.text);
      if (to !== "") targets.set(to, (targets.get(to) ?? new Set()).add(headOf(line)));
    }
  const isLedTo = (name: string) => [...(targets.get(name) ?? [])].some((from) => from !== name);
  const out = [...lines];
  lines.forEach((line, i) => {
    const { piece, indent } = line;
    if (/[:>"]/.test(piece.text) || isListed(piece.text) || containerIn(piece.text)) return;
    const inside = following(lines, i, (other) => other.indent > indent);
    const [first] = inside;
    const isPlain = (one: Line) =>
      one.indent === first?.indent && !isListed(one.piece.text) && (SAYS_CONTROLS.test(one.piece.text) || !cutAt(one.piece, ":")[1]);
    const leading = inside.filter((one) => cutAt(one.piece, ">")[1] && !SAYS_CONTROLS.test(one.piece.text));
    if (!first || !inside.every(isPlain) || leading.length === 0 || (leading.length < 2 && !isLedTo(folded(piece.text)))) return;
    if (leading.some((one) => isLedTo(headOf(one)))) return;
    out.splice(i + 1, inside.length, ...inside.map((one) => asControl(one, SAYS_CONTROLS)));
  });
  return out;
}

/** Whether a line is that of a modal alone: `New post (sheet)`. */
function isModalLine(text: string): boolean {
  const { inside } = endingOf({ text: withoutColon(text), line: 1, column: 1 });
  return inside !== undefined && !text.includes(">") && optionsIn(inside).some((option) => CONTAINER_KINDS[option.text]?.kind === "modal");
}

/** A line as one of a control of the screen above it, without what stands before its name. */
function asControl(line: Line, before = BULLET): Line {
  const { length } = before.exec(line.piece.text)?.[0] ?? "";
  return { ...line, piece: { ...line.piece, text: `- ${line.piece.text.slice(length)}`, column: line.piece.column + length - 2 }, isControl: true };
}

/** The lines behind one, as long as something holds of them. */
function following(lines: readonly Line[], i: number, holds: (line: Line) => boolean): Line[] {
  let end = i + 1;
  for (let line = lines[end]; line && holds(line); line = lines[end]) end += 1;
  return lines.slice(i + 1, end);
}

const BULLET = /^([-*•·+]|\d{1,4}[.)])\s+/;

/** Whether what stands behind a dash is a screen with what is on it, and no control: `- Home: Plot list > Plot`. */
export function isScreenLine({ text, line, column }: Piece): boolean {
  const piece = { text: text.slice(2), line, column: column + 2 };
  const [head, rest] = cutAt(piece, ":");
  return rest !== undefined && !isQuoted(head.text) && !cutAt(head, ">")[1];
}
