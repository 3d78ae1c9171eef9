import type { ElementNode, Option, PlaceTriggerNode } from "./ast.ts";
import { isQuoted, type Piece, unquoted } from "./scan.ts";
import { WAYS } from "./words.ts";

/** What stands on a place, as lines say it. */

const KINDS = ["button", "icon", "link", "field", "switch", "text", "image", "pager"] as const;
/** The words for ways that lead to a place. */
export const WAY_WORDS: ReadonlySet<string> = new Set(Object.values(WAYS).flat());

/** A label with its kind: the word at its end, or that of a list, which stays a part of the label. */
export function labelOf(text: string): Pick<ElementNode, "label" | "kind"> {
  if (isQuoted(text)) return { label: unquoted(text), kind: "button" };
  const [, quoted, last] = /^("(?:[^"\\]|\\.)*"|.*\S)\s+(\w+)$/.exec(text) ?? [];
  const kind = KINDS.find((one) => one === last);
  if (quoted !== undefined && kind) return { label: unquoted(quoted), kind };
  if (quoted !== undefined && isQuoted(quoted) && last === "list") return { label: unquoted(quoted), kind: "list" };
  return { label: text, kind: /(^|\s)(list|rows)$/i.test(text) ? "list" : "button" };
}

/** What a control is by the last word of its label, where it leads nowhere: nobody taps a chart. */
export function idleKindOf(label: string): ElementNode["kind"] | undefined {
  const word = /(?:^|\s)([a-z]+)$/i.exec(label)?.[1]?.toLowerCase() ?? "";
  return Object.hasOwn(IDLE_KINDS, word) ? IDLE_KINDS[word] : undefined;
}

/** Whether a control leads back by its label, though nothing says where it leads. */
export const isBackLabel = (label: string): boolean => /^(go )?back$/i.test(label);

const words = (kind: ElementNode["kind"], all: string): Array<[string, ElementNode["kind"]]> => all.split(" ").map((word) => [word, kind]);
const IDLE_KINDS: Record<string, ElementNode["kind"]> = Object.fromEntries([
  ...words("field", "input textbox textarea box bar picker dropdown select stepper slider rating"),
  ...words("field", "email password username name address phone code pin amount quantity date time notes comment search"),
  ...words("switch", "toggle checkbox checkboxes radio"),
  ...words("image", "chart graph map photo picture avatar logo illustration video animation player spinner"),
  ...words("text", "label title subtitle heading headline text message total summary description details balance score"),
]);

/**
 * Whether a control starts the app over by its label: signing out, and signing in where that is sent as a form, unless that goes on to another
 * step of it.
 */
export function startsOver(label: string, to: string, isForm: boolean): boolean {
  return /^(sign|log)[ -]?(out|off)\b/i.test(label) || (isForm && /^(sign|log)[ -]?in$/i.test(label) && !FOR_SIGNING_IN.test(to));
}

const FOR_SIGNING_IN = /\b((sign|log)[ -]?(in|up|on)|signup|login|register|registration|account|password|pin|verif\w*|confirm\w*|code|otp|two|2fa|mfa|form)\b/i;

/** What happens by itself: `on arriving`, `after 2 s`, and what people write for these. */
export function triggerOf(text: string): PlaceTriggerNode | undefined {
  if (/^(on (arriving|arrival|appear|load|enter)|automatically|auto|immediately)$/.test(text)) return { kind: "arrive" };
  if (/^on (leaving|leave|exit|departing)$/.test(text)) return { kind: "depart" };
  const [, count, unit = ""] = /^after (\d+(?:\.\d+)?) ?(ms|milliseconds?|s|secs?|seconds?|min|minutes?)$/i.exec(text) ?? [];
  if (count !== undefined) return { kind: "after", ms: Number(count) * (/^mi?n/i.test(unit) ? 60_000 : /^s/i.test(unit) ? 1000 : 1) };
  if (/^after (a|some) (short )?(while|moment|delay|time)$/i.test(text)) return { kind: "after", ms: A_WHILE };
  const [, to] = /^swip(?:e|ing) (?:to the )?(left|right|up|down)$/i.exec(text) ?? [];
  return to === undefined ? undefined : { kind: "swipe", to: to.toLowerCase() as "left" };
}

/** As long as people look at a splash screen, in milliseconds. */
const A_WHILE = 2_000;

/** The parts of a line with those together that a comma within a label has cut apart: `Keep > close, Yes, cancel it > Orders` has two controls. */
export function withCommas(whole: Piece, pieces: readonly Piece[]): Piece[] {
  const out: Piece[] = [];
  for (const piece of pieces) {
    const before = out.at(-1);
    if (!before || !goesOn(before.text, piece.text)) out.push(piece);
    else {
      const end = piece.column - whole.column + piece.text.length;
      out.splice(-1, 1, { ...before, text: whole.text.slice(before.column - whole.column, end) });
    }
  }
  return out;
}

/** Whether what stands behind a comma is the rest of a label: it leads on and has a small letter, unlike what stands before, which leads nowhere. */
export function goesOn(before: string, after: string): boolean {
  const isBegun = /^\p{Lu}[^>()"]*$/u.test(before) && labelOf(before).kind === "button";
  return isBegun && /^\p{Ll}[^>("]*>/u.test(after) && !triggerOf(after.slice(0, after.indexOf(">")).trim());
}

/** Whether an option of an element speaks of what happens when it is used. */
export function isOfLeg({ text }: Option): boolean {
  return /^(set|if) ./.test(text) || text === "hold" || text === "submit" || WAY_WORDS.has(text);
}

/**
 * Puts elements behind others. One that is said again after a condition is the same one: `Play > Player (if fact.paid), Play > Offer`; and so is one that
 * was only listed before.
 */
export function addTogether(elements: readonly ElementNode[], to: ElementNode[]): ElementNode[] {
  for (const element of elements) {
    const mayGoOn = !element.trigger && element.options.length === 0 && element.legs.length > 0;
    const i = mayGoOn ? to.findIndex((one) => !one.trigger && one.label === element.label && one.kind === element.kind) : -1;
    const first = to[i];
    if (first && (goesOnOnlyIf(first) || first.legs.length + first.options.length === 0)) to[i] = { ...first, legs: [...first.legs, ...element.legs] };
    else to.push(element);
  }
  return to;
}

/** Whether an element leads on, and only under conditions. */
function goesOnOnlyIf({ legs }: ElementNode): boolean {
  return legs.length > 0 && legs.every(({ outcome, options }) => outcome !== undefined || options.some(({ text }) => text.startsWith("if ")));
}
