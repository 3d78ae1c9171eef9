import { type Project, TEXT_LIMIT } from "../schema.ts";

/** A named change of a document, undone in one step. `apply` gives a new project and leaves the old one as it is. */
export interface Edit {
  /** An order with the names of what it touches: `Add screen "Brood"`. */
  name: string;
  /** Whether it takes something away that people made; such an edit is offered last, and never done at one click. */
  deletes?: boolean;
  apply: (project: Project) => Project;
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
