import type { Project } from "../model/schema.ts";

/** Whether a text is meant as quick lines, and not as names of screens. */
export function isLines(text: string): boolean {
  return /[:>]|\((?:tabs|stack|drawer|sheet|modal|dialog|panel|full screen)\b/.test(text.replace(/"(?:[^"\\]|\\.)*"/g, ""));
}

/** Whether nothing has been built yet: then lines make the whole project. */
export function isUntouched({ screens, containers, legs, entrances, facts, types, walks }: Project): boolean {
  const nothing = [containers, legs, entrances, facts, types, walks].every((list) => list.length === 0);
  return nothing && screens.length <= 1 && screens.every(({ elements, params, name }) => elements.length === 0 && params.length === 0 && name === "Home");
}
