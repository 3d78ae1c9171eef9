/** Addresses by RFC 6570 level 1 (Gregorio and others, 2012), one variable a segment; the last may take the rest of the path. */
import type { Json } from "./schema.ts";

/**
 * The variables that a pattern finds in an address, decoded, or undefined where it does not match.
 * A query or fragment of the address is left aside, as is a slash at its end.
 */
export function matchAddress(pattern: string, address: string): Record<string, string> | undefined {
  const wanted = segmentsOf(pattern);
  const found = segmentsOf(address.replace(/[?#].*$/s, ""));
  const out: Record<string, string> = {};
  for (let i = 0; i < wanted.length; i++) {
    const segment = wanted[i] ?? "";
    const rest = /^\{\+([A-Za-z_]\w*)\}$/.exec(segment);
    const text = rest && i === wanted.length - 1 ? found.slice(i).join("/") : found[i];
    if (text === undefined || text === "") return undefined;
    if (rest) {
      const value = decoded(text);
      if (value === undefined) return undefined;
      out[rest[1] ?? ""] = value;
      return out;
    }
    const hole = /^([^{]*)\{([A-Za-z_]\w*)\}([^}]*)$/.exec(segment);
    if (!hole) {
      if (decoded(text) !== decoded(segment)) return undefined;
      continue;
    }
    const [, before = "", name = "", after = ""] = hole;
    if (text.length <= before.length + after.length || !text.startsWith(before) || !text.endsWith(after)) return undefined;
    const value = decoded(text.slice(before.length, text.length - after.length));
    if (value === undefined) return undefined;
    out[name] = value;
  }
  return wanted.length === found.length ? out : undefined;
}

/**
 * Which of two patterns goes first where both match an address: below 0 the first, above 0 the second, 0 neither. Segment by segment
 * from the left, fixed text goes before a variable, and a variable before the rest of the path.
 */
export function comparePatterns(a: string, b: string): number {
  const [x, y] = [segmentsOf(a), segmentsOf(b)];
  for (let i = 0; i < Math.max(x.length, y.length); i++) {
    const difference = openness(x[i]) - openness(y[i]);
    if (difference !== 0) return difference;
  }
  return 0;
}

function openness(segment: string | undefined): number {
  return segment === undefined || !segment.includes("{") ? 0 : segment.includes("{+") ? 2 : 1;
}

/** Of all that have a pattern, the one that an address belongs to, with the values of its variables. */
export function findByAddress<T extends { readonly pattern?: string | undefined }>(
  all: Iterable<T>,
  address: string,
): { one: T; values: Record<string, string> } | undefined {
  let first: { one: T; values: Record<string, string> } | undefined;
  for (const one of all) {
    const values = one.pattern === undefined ? undefined : matchAddress(one.pattern, address);
    if (values && (!first || comparePatterns(one.pattern ?? "", first.one.pattern ?? "") < 0)) first = { one, values };
  }
  return first;
}

/** The address of a pattern with its variables filled in, or undefined where one has no value. */
export function buildAddress(pattern: string, values: Readonly<Record<string, Json>>): string | undefined {
  let complete = true;
  const address = pattern.replace(/\{(\+?)([A-Za-z_]\w*)\}/g, (_, plus: string, name: string) => {
    const value = values[name];
    if (value === undefined || value === null || value === "" || typeof value === "object") complete = false;
    // Half a pair of surrogates is no text that an address can hold.
    const whole = String(value).replace(/[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/g, "\uFFFD");
    const text = encodeURIComponent(whole).replace(/[!'()*]/g, (c) => `%${c.charCodeAt(0).toString(16).toUpperCase()}`);
    return plus ? text.replaceAll("%2F", "/") : text;
  });
  return complete ? address : undefined;
}

/** The segments of an address or a pattern, without what stands for the app itself: scheme and host. */
export function segmentsOf(path: string): string[] {
  return path
    .replace(/^[a-z][a-z0-9+.-]*:\/\/[^/]*/i, "")
    .replace(/^\//, "")
    .replace(/\/$/, "")
    .split("/");
}

function decoded(text: string): string | undefined {
  try {
    return decodeURIComponent(text);
  } catch {
    return undefined;
  }
}
