import type { Option, Target } from "./ast.ts";
import { cutAtWords, type Piece, splitAt, trimmed, unquoted } from "./scan.ts";

/** Where a leg leads, as lines say it. */

const DOINGS = ["back", "up", "close", "menu", "open menu", "close menu", "leave", "go on", "nothing"] as const;

/** The target of a leg: a place, or what is done. */
export function targetOf(text: string): Target | undefined {
  if (text === "") return undefined;
  const doing = DOINGS.find((what) => what === text);
  if (doing) return { is: "doing", what: doing };
  const other = OTHER_DOINGS[text.toLowerCase()];
  if (other && /^[A-Z]|^(go back|dismiss)$/.test(text)) return { is: "doing", what: other };
  if (ADDRESS.test(text)) return { is: "doing", what: "leave", name: text };
  const [, what, name] = /^(open menu|close menu|close|leave|menu) (.+)$/.exec(text) ?? [];
  // “Close account” is a place: only the small word closes something.
  if (what !== undefined && name !== undefined && (what !== "leave" || /^[a-z][a-z0-9+.-]*:/i.test(name)))
    return { is: "doing", what: what as (typeof DOINGS)[number], name };
  return { is: "place", path: pathOf(text) };
}

/** What is done, in other words or with a capital; a menu with a capital is a place. */
const OTHER_DOINGS: Record<string, (typeof DOINGS)[number]> = Object.assign(Object.create(null), {
  back: "back",
  "go back": "back",
  up: "up",
  close: "close",
  dismiss: "close",
});

/** What is outside the app. */
const ADDRESS = /^[a-z][a-z0-9+.-]*:\/\/\S|^(mailto|tel|sms):\S/i;

/** The names of a path such as `Yard/Rota`. */
export function pathOf(text: string): string[] {
  return splitAt({ text, line: 0, column: 0 }, "/").map((part) => unquoted(part.text));
}

/** A condition without its parentheses at the end of a leg: `Home if member`; `sure` where it cannot be a part of a name. */
export function conditionBehind(piece: Piece): { before: Piece; condition?: Option; sure?: boolean } {
  const found = cutAtWords(piece, ["if"]).at(-1);
  const before = found && trimmed({ ...piece, text: piece.text.slice(0, found.behind.column - piece.column).replace(/if\s*$/, "") });
  if (!found || !before || before.text === "" || found.behind.text === "") return { before: piece };
  const condition = { text: `if ${found.behind.text}`, line: piece.line, column: found.behind.column };
  return { before, condition, sure: before.text.endsWith(")") || /^(not |!|fact\.|param\.|field\.|item\.)/.test(found.behind.text) };
}

/** Names of places that would be read as something else. */
export const TAKEN_TARGET =
  /^(back|go back|dismiss|up|close|menu|open menu|close menu|leave|go on|nothing)$|^(close|menu|open menu|close menu) |^leave [a-z][a-z0-9+.-]*:|^[a-z][a-z0-9+.-]*:\/\/\S|^(mailto|tel|sms):\S| if (not|!|fact\.|param\.|field\.|item\.)/i;
