import type { Json, Tree } from "../../../plan/data.ts";
import { type Expression, expressionOf, type Values } from "../../../plan/expression.ts";
import type { Motions } from "../../../semantics/motion.ts";
import { isSource } from "../../../semantics/reach.ts";
import { branchNode, currentScreen, topBranch, visiblePath } from "../../../semantics/state.ts";
import type { App, Shown, State } from "../../../semantics/types.ts";
import { valuesFor } from "../../../semantics/values.ts";

/** A text with holes: fixed text, and trees of expressions. */
export type TextData = ReadonlyArray<string | Tree>;

/** What a design says of how things look, beside how they move about. */
export interface LooksData {
  /** By screen its title. */
  readonly titles: Readonly<Record<string, TextData>>;
  /** By place its elements: where they are hidden, where they are disabled, and their text. */
  readonly elements: Readonly<Record<string, Readonly<Record<string, ElementData>>>>;
  readonly motions: Motions;
}
export interface ElementData {
  readonly shown?: Tree;
  readonly enabled?: Tree;
  /** Screens that do not show it. */
  readonly except?: readonly string[];
  readonly text?: TextData;
}

/** How an element stands now. */
export interface ElementNow {
  /** It is not on the screen, or its condition for being shown does not hold. */
  readonly hidden: boolean;
  readonly disabled: boolean;
  /** Its text with what it tells of filled in; undefined where it has none of its own. */
  readonly text: string | undefined;
}

const expressions = new WeakMap<object, Expression>();
function expressionFor(tree: Tree): Expression {
  const known = expressions.get(tree) ?? expressionOf(tree);
  expressions.set(tree, known);
  return known;
}

/** A text with its holes filled in; a hole that has no value is a dash. */
export function filledText(text: TextData, values: Values): string {
  return text.map((part) => (typeof part === "string" ? part : shownValue(expressionFor(part).run(values)))).join("");
}

function shownValue(value: Json | undefined): string {
  if (value === undefined) return "–";
  return String(typeof value === "object" && value !== null ? (Object.values(value)[0] ?? "") : value);
}

/** The title of a screen in a state. */
export function titleOf(app: App, looks: LooksData, state: State, screen: Shown): string {
  return filledText(looks.titles[screen.at] ?? [screen.at], valuesFor(app, state, screen));
}

/** How an element of a place stands in a state, on the topmost branch that shows the place. */
export function elementNow(app: App, looks: LooksData, state: State, place: string, id: string): ElementNow {
  const element = looks.elements[place]?.[id];
  for (let branch = topBranch(state); element && branch >= 0; branch--) {
    const around = visiblePath(branchNode(state, branch)).some((node) => node.at === place) || state.layers[branch - 1]?.at === place;
    if (!around) continue;
    const screen = currentScreen(state, branch);
    const values = valuesFor(app, state, screen);
    const holds = (tree: Tree | undefined) => tree === undefined || expressionFor(tree).run(values) === true;
    return {
      hidden: !isSource(app, state, branch, place) || element.except?.includes(screen.at) === true || !holds(element.shown),
      disabled: !holds(element.enabled),
      text: element.text && filledText(element.text, values),
    };
  }
  return { hidden: true, disabled: true, text: undefined };
}
