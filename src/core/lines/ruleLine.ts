import type { RuleNode, ThingNode } from "./ast.ts";
import { optionsIn } from "./habits.ts";
import { cutAt, cutAtWords, endingOf, type Piece, shown, splitAt, unquoted } from "./scan.ts";
import { pathOf } from "./targets.ts";

/** The words between what a rule speaks of, and which of them a rule of each kind has. */
const RULE_WORDS = ["never", "first", "only", "reach", "after", "until", "before", "while", "within", "of"];
const RULE_PARTS: Record<RuleNode["kind"], string[]> = { never: ["after", "until"], first: ["before"], only: ["while"], reach: ["within", "of"] };
/** Names that have to be quoted in a rule. */
export const TAKEN_IN_RULE = new RegExp(`(^|\\s)(${RULE_WORDS.join("|")})(\\s|$)|^way in `);

/** `Sent is final (warning): never Form after Sent until New order`, `Help is near: reach Help within 3 taps of Home` */
export function ruleLine(piece: Piece, wrong: (piece: Piece, message: string) => void): RuleNode | undefined {
  const [head, body] = cutAt(piece, ":");
  const { before, inside, attached } = endingOf(head);
  const named = inside && !attached ? before : head;
  const [first, ...others] = body ? cutAtWords(body, RULE_WORDS) : [];
  const kind = (["never", "first", "only", "reach"] as const).find((one) => one === first?.word);
  if (!kind || !first || named.text === "" || !body?.text.startsWith(kind)) {
    wrong(
      piece,
      `found “${shown(piece.text)}”, expected a rule such as Sent is final: never Form after Sent, Address first: first Address before Pay, Members: only Home, Help while !fact.member or Help is near: reach Help within 3 taps`,
    );
    return undefined;
  }
  const node: RuleNode = {
    name: unquoted(named.text),
    options: inside && !attached ? optionsIn(inside) : [],
    kind,
    things: { [kind]: thingsOf(first.behind) },
    line: piece.line,
    column: piece.column,
  };
  for (const { word, behind } of others) {
    const [, taps] = word === "within" ? (/^(\d+) taps?$/.exec(behind.text) ?? []) : [];
    if (!RULE_PARTS[kind].includes(word)) wrong(behind, `found “${word}”, expected ${RULE_PARTS[kind].join(" or ")} in a rule that begins with ${kind}`);
    else if (word === "while") node.while = behind.text;
    else if (word !== "within") node.things[word] = thingsOf(behind);
    else if (taps === undefined) wrong(behind, `found “${shown(behind.text)}”, expected a number of taps such as 3 taps`);
    else node.taps = Number(taps);
  }
  return node;
}

/** `Form, "Send" on Form, way in "Offer"` */
function thingsOf(piece: Piece): ThingNode[] {
  return splitAt(piece, ",").flatMap((one): ThingNode[] => {
    if (one.text === "") return [];
    const at = { line: one.line, column: one.column };
    const [, label, on] = /^("(?:[^"\\]|\\.)*") on (.+)$/.exec(one.text) ?? [];
    if (label !== undefined && on !== undefined) return [{ ...at, is: "legs", label: unquoted(label), on: pathOf(on) }];
    const [, way] = /^way in (.+)$/.exec(one.text) ?? [];
    return [way === undefined ? { ...at, is: "place", path: pathOf(one.text) } : { ...at, is: "way in", name: unquoted(way) }];
  });
}
