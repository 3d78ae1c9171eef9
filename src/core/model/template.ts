/** Templates (`"{param.name}, weighed"`) and address patterns (`/hives/{hiveId}`). */

export type TemplatePart = { text: string } | { hole: string };

/**
 * Splits a template into text and holes. A brace that is never closed is text.
 * Braces inside quoted text within a hole do not end it.
 */
export function templateParts(template: string): TemplatePart[] {
  const parts: TemplatePart[] = [];
  let text = "";
  let at = 0;
  while (at < template.length) {
    const end = template[at] === "{" ? holeEnd(template, at) : -1;
    if (end < 0) {
      text += template[at];
      at += 1;
      continue;
    }
    if (text !== "") parts.push({ text });
    text = "";
    parts.push({ hole: template.slice(at + 1, end) });
    at = end + 1;
  }
  if (text !== "") parts.push({ text });
  return parts;
}

function holeEnd(template: string, open: number): number {
  let quote = "";
  for (let at = open + 1; at < template.length; at++) {
    const c = template[at];
    if (quote !== "") {
      if (c === "\\") at += 1;
      else if (c === quote) quote = "";
    } else if (c === '"' || c === "'") quote = c;
    else if (c === "}") return at;
  }
  return -1;
}

/** The variables of an address pattern, in order: `/a/{x}/{+rest}` has x and rest. */
export function patternVariables(pattern: string): string[] {
  return [...pattern.matchAll(/\{\+?([A-Za-z_][A-Za-z0-9_]*)\}/g)].map((m) => m[1] ?? "");
}
