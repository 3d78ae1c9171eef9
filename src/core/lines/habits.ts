import { folded } from "../model/names.ts";
import type { ElementNode, LegNode, Lines, Option, PlaceNode } from "./ast.ts";
import { outside, type Piece, splitAt } from "./scan.ts";
import { CONTAINER_KINDS, WAYS } from "./words.ts";

/** What people write by habit before they know the words of lines: arrows, bullets, and the names that other places have for the same things. */

/** A line with its arrows as `>`: `Home -> Settings`, `Home → Settings`. Columns stay as they are. */
export function withArrows(line: string): string {
  const letters = [...line].length === line.length ? line.split("") : undefined;
  if (!letters || !/[→⇒➔➜]|[-=]>/.test(line)) return line;
  outside(line, (letter, i, depth) => {
    if (depth !== 0) return;
    if (/[→⇒➔➜]/.test(letter)) letters[i] = ">";
    else if (letter === ">") for (let at = i - 1; /[-=]/.test(letters[at] ?? ""); at--) letters[at] = " ";
  });
  return letters.join("");
}

/** A line with commas where semicolons stand between its parts. */
export function withoutSemicolons(line: string): string {
  const letters = line.includes(";") && [...line].length === line.length ? line.split("") : undefined;
  if (!letters) return line;
  outside(line, (letter, i, depth) => {
    if (letter === ";" && depth === 0) letters[i] = ",";
  });
  return letters.join("");
}

/** How much of a line is a bullet, a number or the word *screen* before the name. */
export function bulletLength(text: string): number {
  return LOOKS_BULLETED.exec(text)?.[0].length ?? 0;
}
/** A bullet, or what would be read as one at the start of a name. */
export const LOOKS_BULLETED = /^(?:[\u2500-\u257f]|[*•·+]\s+|\d{1,4}[.)]\s+|screen\s+(?=[\p{Lu}"]))/u;

/** Other words for kinds of containers and ways. */
const OTHER_WORDS: Record<string, string> = {
  "bottom sheet": "sheet",
  "action sheet": "sheet",
  "modal sheet": "sheet",
  "modal bottom sheet": "sheet",
  overlay: "modal",
  alert: "dialog",
  "alert dialog": "dialog",
  "modal dialog": "dialog",
  confirmation: "dialog",
  "confirmation dialog": "dialog",
  "confirm dialog": "dialog",
  popup: "dialog",
  "pop-up": "dialog",
  popover: "dialog",
  fullscreen: "full screen",
  "full-screen": "full screen",
  "full modal": "full screen",
  "full screen modal": "full screen",
  "full-screen modal": "full screen",
  "fullscreen modal": "full screen",
  "full screen dialog": "full screen",
  "full-screen dialog": "full screen",
  "fullscreen dialog": "full screen",
  "side sheet": "panel",
  "side panel": "panel",
  "tab bar": "tabs",
  "bottom tabs": "tabs",
  "bottom navigation": "tabs",
  "bottom nav": "tabs",
  sidebar: "drawer",
  "hamburger menu": "drawer",
  "side menu": "drawer",
  "navigation drawer": "drawer",
  present: "open",
  "as a modal": "open",
  pop: "pop to",
  // Out of a modal onto what lies beneath it.
  close: "pop to",
  closes: "pop to",
  dismiss: "pop to",
  dismisses: "pop to",
  "go back to": "pop to",
  "clear the history": "reset",
  "clear the stack": "reset",
  "start screen": "start",
};
const KNOWN = new Set([...Object.keys(CONTAINER_KINDS), ...Object.values(WAYS).flat()]);

/** An option in the words of lines. */
export function inOurWords(option: Option): Option {
  const [, type] = /^of ([A-Z]\w*)$/.exec(option.text) ?? [];
  if (type !== undefined) return { ...option, text: `of ${typeWord(type)}` };
  const small = option.text.toLowerCase();
  const text = Object.hasOwn(OTHER_WORDS, small) ? OTHER_WORDS[small] : KNOWN.has(small) ? small : undefined;
  return text === undefined ? option : { ...option, text };
}

/** The options between parentheses. */
export function optionsIn(inside: Piece): Option[] {
  return splitAt(inside, ",").flatMap((piece) => (piece.text === "" ? [] : inOurWords(piece)));
}

/** Other names of simple types; a record type begins with a small letter. */
export function typeWord(type: string): string {
  const simple: Record<string, string> = { string: "text", str: "text", int: "integer", bool: "boolean", float: "number", double: "number" };
  const small = type.charAt(0).toLowerCase() + type.slice(1);
  return Object.hasOwn(simple, small) ? (simple[small] ?? small) : small;
}

/** A line without what is drawn or marked around its words: trees of `├──`, bold and code. Columns stay as they are. */
export function plainLine(line: string): string {
  const spaces = (text: string) => " ".repeat(text.length);
  const undrawn = line.replace(/^[\s\u2500-\u257f]+/, (drawn) => drawn.replace(/[\u2500-\u257f]/g, " "));
  if (undrawn.includes('"')) return undrawn;
  return undrawn.replace(/(?<!\w)(\*\*|`)(?=\S)([^*`]+?)(?<=\S)\1(?!\w)/g, (_, mark: string, inside: string) => spaces(mark) + inside + spaces(mark));
}

/**
 * An outline of names alone, as screens that lead to what stands beneath them: where nothing is said of controls, what stands further in is
 * gone to from what it stands in. Not where one that holds others is a container already.
 */
export function outlined(places: readonly PlaceNode[], isContainer: (name: string) => boolean): PlaceNode[] {
  if (!isOutline(places, isContainer)) return [...places];
  const flat = (place: PlaceNode): PlaceNode[] => {
    const members = place.members;
    if (kindOf(place)) return [{ ...place, members: members.flatMap((member) => lane(place, member)) }];
    const { line, column } = place;
    const elements = members.map(({ name }): ElementNode => {
      const leg: LegNode = { target: { is: "place", path: [name] }, options: [], line, column };
      return { label: name, kind: "button", options: [], legs: [leg], line, column };
    });
    return [{ ...place, members: [], elements }, ...members.flatMap(flat)];
  };
  /** What a place is in a container: in tabs and drawers, one lane. */
  const lane = (around: PlaceNode, place: PlaceNode): PlaceNode[] => {
    const all = flat(place);
    const [first] = all;
    if (kindOf(around) === "stack" || kindOf(around) === "modal" || all.length === 1 || !first) return all;
    const { name, line, column } = place;
    return [{ name, params: [], options: [], elements: [], members: all, line, column }];
  };
  return places.flatMap(flat);
}

function isOutline(places: readonly PlaceNode[], isContainer: (name: string) => boolean): boolean {
  const all = (some: readonly PlaceNode[]): PlaceNode[] => some.flatMap((one) => [one, ...all(one.members)]);
  const every = all(places);
  const holders = every.filter((one) => one.members.length > 0 && !kindOf(one));
  // A stack that is called like what it shows first.
  const isStack = (one: PlaceNode) => one.members.some(({ name }) => folded(name) === folded(one.name));
  const bare = every.every(({ elements, params }) => elements.length === 0 && params.length === 0);
  return bare && holders.length > 0 && !holders.some((one) => isContainer(one.name) || isStack(one));
}

/** Names that say what kind of container they are: `Tabs: Home, Search`. */
export const SAYS_ITS_KIND = new RegExp(
  `^(?:[\\w-]+ )?(${["tabs", "drawer", ...Object.keys(OTHER_WORDS).filter((word) => /^(tabs|drawer)$/.test(OTHER_WORDS[word] ?? ""))].join("|")})$`,
  "i",
);

/** The options of a place, with its kind where its name says it and what stands on it are no more than names. */
export function withKind({ name, options, elements }: PlaceNode): Option[] {
  const [first] = options;
  const [, kind] = SAYS_ITS_KIND.exec(name) ?? [];
  if (first || kind === undefined || !elements.every(isName)) return options;
  return [inOurWords({ text: kind.toLowerCase(), line: 1, column: 1 })];
}

/** Whether an element says no more than a name. */
export function isName({ kind, trigger, legs }: ElementNode): boolean {
  return kind === "button" && trigger === undefined && legs.length === 0;
}

/** The kind of container that a place is by its first word. */
export function kindOf(place: PlaceNode | undefined): string | undefined {
  return CONTAINER_KINDS[place?.options[0]?.text ?? ""]?.kind;
}

/** Lines in which what a leg opens as a sheet or another modal is one, also where it has a line of its own: `Filter > Filter (sheet)`. */
export function modalsNamed(lines: Lines): Lines {
  const named = new Map<string, Option>();
  const legsOf = (all: readonly PlaceNode[]): void => {
    for (const { elements, members } of all) {
      for (const { legs } of elements)
        for (const { target, options } of legs) {
          const option = options.find(({ text }) => CONTAINER_KINDS[text]?.kind === "modal");
          const key = target.is === "place" && target.path.length === 1 ? folded(target.path[0] ?? "") : undefined;
          if (option && key !== undefined && !named.has(key)) named.set(key, option);
        }
      legsOf(members);
    }
  };
  legsOf(lines.places);
  if (named.size === 0) return lines;
  const [first] = lines.places;
  const asModal = (place: PlaceNode): PlaceNode => {
    const modal = place === first || place.members.length > 0 || kindOf(place) ? undefined : named.get(folded(place.name));
    const members = place.members.map(asModal);
    return modal ? { ...place, options: [modal, ...place.options] } : { ...place, members };
  };
  return { ...lines, places: lines.places.map(asModal) };
}

/** Lines with their title as the name of the project: a name alone at their top, with space beneath it, that nothing leads to. */
export function withTitle(lines: Lines): Lines {
  const [first, second] = lines.places;
  if (lines.name !== undefined || !first || !second || first.literal || second.line < first.line + 2) return lines;
  const isAlone = first.elements.length + first.members.length + first.params.length + first.options.length === 0;
  const others = lines.places.slice(1);
  const lead = (place: PlaceNode): boolean =>
    place.members.some(lead) ||
    folded(place.name) === folded(first.name) ||
    place.elements.some(({ legs }) => legs.some(({ target }) => target.is === "place" && folded(target.path[0] ?? "") === folded(first.name)));
  const isTitle = isAlone && others.some(({ elements }) => elements.length > 0) && !others.some(lead) && lines.ways.length === 0;
  return isTitle ? { ...lines, name: first.name, places: others } : lines;
}
