import type { ElementNode, Option, PlaceTriggerNode } from "./ast.ts";
import { isQuoted, unquoted } from "./scan.ts";
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

export function triggerOf(text: string): PlaceTriggerNode | undefined {
  if (text === "on arriving") return { kind: "arrive" };
  if (text === "on leaving") return { kind: "depart" };
  const [, count, unit] = /^after (\d+(?:\.\d+)?) ?(ms|s)$/.exec(text) ?? [];
  if (count !== undefined) return { kind: "after", ms: Number(count) * (unit === "s" ? 1000 : 1) };
  const [, to] = /^swipe (left|right|up|down)$/.exec(text) ?? [];
  return to === undefined ? undefined : { kind: "swipe", to: to as "left" };
}

/** Whether an option of an element speaks of what happens when it is used. */
export function isOfLeg({ text }: Option): boolean {
  return /^(set|if) ./.test(text) || text === "hold" || text === "submit" || WAY_WORDS.has(text);
}

/** Puts elements behind others; one that is said again after a condition is the same one: `Play > Player (if fact.paid), Play > Offer`. */
export function addTogether(elements: readonly ElementNode[], to: ElementNode[]): ElementNode[] {
  for (const element of elements) {
    const mayGoOn = !element.trigger && element.options.length === 0 && element.legs.length > 0;
    const i = mayGoOn ? to.findIndex((one) => !one.trigger && one.label === element.label && one.kind === element.kind) : -1;
    const first = to[i];
    if (first && goesOnOnlyIf(first)) to[i] = { ...first, legs: [...first.legs, ...element.legs] };
    else to.push(element);
  }
  return to;
}

/** Whether an element leads on, and only under conditions. */
function goesOnOnlyIf({ legs }: ElementNode): boolean {
  return legs.length > 0 && legs.every(({ outcome, options }) => outcome !== undefined || options.some(({ text }) => text.startsWith("if ")));
}
