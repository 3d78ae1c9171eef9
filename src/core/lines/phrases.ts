// What a line says of one thing: its words, as the reader of lines takes them.
import type { Container, Element, Leg, Param, Project } from "../model/schema.ts";
import { idleKindOf, isBackLabel, labelOf, triggerOf } from "./elements.ts";
import { TAKEN_LINE, TAKEN_PLAIN } from "./parse.ts";
import { quotedIfNeeded } from "./scan.ts";
import { barWord, CONTAINER_FLAGS, CONTAINER_KINDS, usualEdge } from "./words.ts";

/** `plain` where nothing behind the name says what it is. */
export function placeName(name: string, plain: boolean): string {
  return quotedIfNeeded(name, plain ? TAKEN_PLAIN : TAKEN_LINE);
}

export function flags<T>(of: T, list: ReadonlyArray<{ word: string; has: (of: T) => boolean }>): string[] {
  return list.filter(({ has }) => has(of)).map(({ word }) => word);
}

export function saids<T>(of: T, list: ReadonlyArray<{ word: string; get: (of: T) => string | undefined }>): string[] {
  return list.flatMap(({ word, get }) => {
    const value = get(of);
    return value === undefined ? [] : [`${word} ${EXPRESSIONS.includes(word) ? value : valueText(value)}`];
  });
}

/** What stands behind these words is an expression, and written as it is. */
const EXPRESSIONS = ["if", "shown if", "enabled if", "of"];

function valueText(value: string): string {
  return /[,()|"\\\n`]|\*\*|^\s|\s$|(^|[^\w])'/.test(value) || value === "" ? JSON.stringify(value).replace(/\\n/g, " ") : value;
}

export function inParentheses(words: readonly string[]): string {
  return words.length === 0 ? "" : ` (${words.join(", ")})`;
}

export function argsText(args: Record<string, string> | undefined): string {
  return args === undefined || Object.keys(args).length === 0
    ? ""
    : `(${Object.entries(args)
        .map(([name, value]) => `${name} = ${value}`)
        .join(", ")})`;
}

export function paramsText(params: readonly Param[]): string {
  if (params.length === 0) return "";
  const one = ({ name, type, required, default: value }: Param) => {
    const typed = `${name}${required || value !== undefined ? "" : "?"}${type === "text" ? "" : `: ${type}`}`;
    return value === undefined ? typed : `${typed} = ${JSON.stringify(value)}`;
  };
  return `(${params.map(one).join(", ")})`;
}

/** `bare` where nothing but names is told: then a stack has to say that it is one. */
export function containerWords(container: Container, starts: boolean, apart: boolean, bare: boolean): string[] {
  const kind =
    Object.entries(CONTAINER_KINDS).find(
      ([word, one]) => word !== "modal" && one.kind === container.kind && (container.kind !== "modal" || one.shape === container.shape),
    )?.[0] ?? container.kind;
  const bar = [barWord(container)].flatMap((word) => word ?? []);
  const rest = [...flags(container, CONTAINER_FLAGS), ...modalWords(container), ...bar, ...(starts ? ["start"] : []), ...(apart ? ["apart"] : [])];
  return container.kind === "stack" && rest.length === 0 && container.members.length > 0 && !bare ? [] : [kind, ...rest];
}

function modalWords(container: Container): string[] {
  if (container.kind !== "modal") return [];
  const { shape, edge, align, extent } = container;
  const large = { fit: "as large as it needs", half: "half the page", most: "most of the page" };
  return [
    ...(edge === usualEdge(shape) ? [] : [`from the ${edge}`]),
    ...(align === undefined ? [] : [`aligned to the ${align}`]),
    ...(extent === undefined ? [] : [large[extent]]),
  ];
}

/** A label with its kind, such that it is read as the two again; `leads` where legs start at it. */
export function labelText({ label, kind, id }: Element, leads: boolean): string {
  const text = label || id;
  const plain = quotedIfNeeded(text);
  if (kind === "list") return plain === text && labelOf(text).kind === "list" ? text : plain === text ? text : `${plain} list`;
  if (kind !== "button") return `${plain} ${kind}`;
  const read = labelOf(plain);
  if (!leads && plain === text && read.kind === "button" && read.label === text && (idleKindOf(text) || isBackLabel(text)) && !triggerOf(text))
    return `${plain} button`;
  return plain !== text || (read.kind === "button" && read.label === text && !triggerOf(text)) ? plain : JSON.stringify(text);
}

/** The kind of an element where its label does not tell it. */
export function kindWords({ label, kind, id }: Element): string[] {
  const text = label || id;
  return kind === "list" && quotedIfNeeded(text) === text && labelOf(text).kind !== "list" ? ["list"] : [];
}

export function triggerText(on: Leg["on"]): string {
  switch (on.kind) {
    case "arrive":
      return "on arriving";
    case "depart":
      return "on leaving";
    case "after":
      return `after ${on.ms} ms`;
    case "swipe":
      return `swipe ${on.to}`;
    default:
      return on.kind;
  }
}

export function factLine({ id, name, type, values, initial, source, persists }: Project["facts"][number]): string {
  const words = [...(source === "outside" ? ["outside"] : []), ...(persists ? ["persists"] : [])];
  const choices =
    type === "choice"
      ? [String(initial), ...(values ?? []).filter((value) => value !== initial)].map((value) =>
          value === "true" || value === "false" ? JSON.stringify(value) : quotedIfNeeded(value),
        )
      : [];
  const is = type === "boolean" ? (initial === true ? " = true" : "") : ` = ${choices.join(" | ")}`;
  return `fact ${id}${name === undefined ? "" : ` ${JSON.stringify(name)}`}${is}${inParentheses(words)}`;
}

export function rowsLine({ id, fields, samples }: Project["types"][number]): string {
  const cell = (value: unknown) => (typeof value === "string" ? quotedIfNeeded(value) : JSON.stringify(value ?? ""));
  const rows = samples.map((row) => fields.map(({ name }) => cell(row[name])).join(", "));
  return `rows ${id}(${fields.map(({ name, type }) => (type === "text" ? name : `${name}: ${type}`)).join(", ")})${rows.length > 0 ? `: ${rows.join(" | ")}` : ""}`;
}
