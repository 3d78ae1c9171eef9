import type { Project } from "../model/schema.ts";
import { bulletLength, inOurWords } from "./habits.ts";
import { barOf, CONTAINER_KINDS, SCREEN_FLAGS } from "./words.ts";

/** Whether a text is meant as quick lines, and not as names of screens. */
export function isLines(text: string): boolean {
  const plain = text.replace(/"(?:[^"\\]|\\.)*"/g, "");
  return (
    /[:>→⇒➔➜]/.test(plain) ||
    bulletLength(plain) > 0 ||
    plain.startsWith("- ") ||
    [...plain.matchAll(/ \(([^()]*)\)/g)].some(([, inside = ""]) => isOptions(inside))
  );
}

/** Whether what stands in parentheses are words of lines, and not a part of a name: `(hub)`, and not `(old)`. */
function isOptions(inside: string): boolean {
  const [first = ""] = inside.split(",");
  const { text } = inOurWords({ text: first.trim(), line: 1, column: 1 });
  return (
    Object.hasOwn(CONTAINER_KINDS, text) || text === "tab" || text === "start" || SCREEN_FLAGS.some(({ word }) => word === text) || barOf(text) !== undefined
  );
}

/** Whether nothing has been built yet: then lines make the whole project. */
export function isUntouched({ screens, containers, legs, entrances, facts, types, walks }: Project): boolean {
  const nothing = [containers, legs, entrances, facts, types, walks].every((list) => list.length === 0);
  return nothing && screens.length <= 1 && screens.every(({ elements, params, name }) => elements.length === 0 && params.length === 0 && name === "Home");
}
