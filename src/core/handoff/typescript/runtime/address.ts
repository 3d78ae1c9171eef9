import type { Args, Json } from "./plan.ts";

const segments = (address: string) =>
  address
    .replace(/^[a-z][a-z0-9+.-]*:\/\/[^/]*/i, "")
    .replace(/^\//, "")
    .replace(/\/$/, "")
    .split("/");

function decoded(text: string): string | undefined {
  try {
    return decodeURIComponent(text);
  } catch {
    return undefined;
  }
}

/** What a pattern's variables stand for in an address, or undefined where it does not match. */
export function matchPattern(pattern: string, address: string): Record<string, string> | undefined {
  const wanted = segments(pattern);
  const found = segments(address.replace(/[?#].*$/s, ""));
  const out: Record<string, string> = {};
  for (const [i, segment] of wanted.entries()) {
    const rest = /^\{\+([A-Za-z_]\w*)\}$/.exec(segment);
    const text = rest && i === wanted.length - 1 ? found.slice(i).join("/") : found[i];
    if (text === undefined || text === "") return undefined;
    const [, before = "", name, after = ""] = rest ? ["", "", rest[1], ""] : (/^([^{]*)\{([A-Za-z_]\w*)\}([^}]*)$/.exec(segment) ?? []);
    if (name === undefined) {
      if (decoded(text) !== decoded(segment)) return undefined;
      continue;
    }
    if (text.length <= before.length + after.length || !text.startsWith(before) || !text.endsWith(after)) return undefined;
    const value = decoded(text.slice(before.length, text.length - after.length));
    if (value === undefined) return undefined;
    out[name] = value;
    if (rest) return out;
  }
  return wanted.length === found.length ? out : undefined;
}

/** The address of a pattern, or undefined where a variable has no value. */
export function buildPattern(pattern: string, values: Args): string | undefined {
  let whole = true;
  const address = pattern.replace(/\{(\+?)([A-Za-z_]\w*)\}/g, (_, plus: string, name: string) => {
    const value: Json | undefined = values[name];
    if (value === undefined || value === null || value === "" || typeof value === "object") whole = false;
    // Half a pair of surrogates is no text that an address can hold.
    const written = String(value).replace(/[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/g, "\uFFFD");
    const text = encodeURIComponent(written).replace(/[!'()*]/g, (c) => `%${c.charCodeAt(0).toString(16).toUpperCase()}`);
    return plus ? text.replaceAll("%2F", "/") : text;
  });
  return whole ? address : undefined;
}
