import * as z from "zod";
import { type Project, TEXT_LIMIT } from "../schema.ts";

/**
 * A change of a document as data: its kind, an order that names what it touches (`Add screen "Brood"`), and the arguments of its kind.
 * It can be stored, sent to a worker, shown, and made on a document that somebody else has changed meanwhile; `applyEdit` makes it.
 */
export interface Edit {
  readonly kind: string;
  /** Written when the edit is made, because what it names may be gone afterwards. */
  readonly name: string;
  readonly [argument: string]: unknown;
}

/** A kind of edit: what its arguments are, and what it makes of a document. It gives a new project and leaves the old one as it is. */
export interface EditKind<A extends object = object> {
  readonly kind: string;
  readonly args: z.ZodType<A>;
  /** Whether it takes something away that people made; such an edit is offered last, and never made at one click. */
  readonly deletes: boolean;
  readonly apply: (project: Project, args: A) => Project;
  /** An edit of this kind under a name. */
  readonly make: (name: string, args: A) => Edit;
}

/** Declares a kind of edit. */
export function editKind<A extends object>(kind: string, args: z.ZodType<A>, apply: (project: Project, args: A) => Project, deletes = false): EditKind<A> {
  return { kind, args, deletes, apply, make: (name, given) => ({ ...given, kind, name }) };
}

/** A list in which the entry of an id is changed. */
export function changed<T extends { id: string }>(list: T[], id: string, change: (entry: T) => T): T[] {
  return list.map((entry) => (entry.id === id ? change(entry) : entry));
}

/** Fields of something that are changed, and those that are left out of the document afterwards. */
export const parts = <T extends z.ZodType>(change: T) => z.strictObject({ id: z.string(), change, without: z.array(z.string()) });

/** A change in which a field that is given as undefined is one to leave out, so that it can be written down. */
export function split<T extends object>(change: T): { change: T; without: string[] } {
  const entries = Object.entries(change);
  return {
    change: Object.fromEntries(entries.filter(([, value]) => value !== undefined)) as T,
    without: entries.flatMap(([key, value]) => (value === undefined ? [key] : [])),
  };
}

/** Something with its changed fields, without those that are left out. */
export function merged<T extends object>(whole: T, { change, without }: { change: object; without: readonly string[] }): T {
  return Object.fromEntries(Object.entries({ ...whole, ...change }).filter(([key, value]) => value !== undefined && !without.includes(key))) as T;
}

/**
 * An id made from a name: letters and digits in camel case, starting small, at most 64 long,
 * with a number where it is taken.
 */
export function freshId(name: string, taken: { has(id: string): boolean }, fallback = "item"): string {
  const words = name
    .normalize("NFKD")
    .replace(/[\u0300-\u036f]/g, "")
    .split(/[^A-Za-z0-9]+/)
    .filter((word) => word !== "");
  const joined = words.map((word, i) => (i === 0 ? word.charAt(0).toLowerCase() : word.charAt(0).toUpperCase()) + word.slice(1)).join("");
  const base = (/^[a-z]/.test(joined) ? joined : fallback + joined.charAt(0).toUpperCase() + joined.slice(1)).slice(0, 60);
  const reserved = ["auto", "none", "beneath", "text", "integer", "number", "boolean", "date"];
  if (!taken.has(base) && !reserved.includes(base)) return base;
  for (let n = 2; ; n++) if (!taken.has(`${base}${n}`)) return `${base}${n}`;
}

/** A text that was put together from others, cut to what a document can hold. */
export function fitting(text: string): string {
  return text.length <= TEXT_LIMIT
    ? text
    : [...text]
        .slice(0, TEXT_LIMIT - 1)
        .join("")
        .concat("…");
}

export function quoted(name: string): string {
  return `"${name}"`;
}
