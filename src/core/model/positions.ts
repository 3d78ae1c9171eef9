/** Where each value of a JSON text stands, so that a finding can point into the file. */
export interface Position {
  /** Both counted from 1. */
  line: number;
  column: number;
}

/**
 * The positions of all values in a JSON text by path (`screens[3].id`). The text is known
 * to parse; anything else gives what was found until then.
 */
export function positions(text: string): Map<string, Position> {
  const out = new Map<string, Position>();
  let at = 0;
  let line = 1;
  let lineStart = 0;

  const space = () => {
    for (; at < text.length; at++) {
      const c = text.charCodeAt(at);
      if (c === 10) {
        line += 1;
        lineStart = at + 1;
      } else if (c !== 32 && c !== 13 && c !== 9 && c !== 0xfeff) return;
    }
  };
  const string = (): string => {
    const start = at;
    for (at += 1; at < text.length && text[at] !== '"'; at++) if (text[at] === "\\") at += 1;
    at += 1;
    return JSON.parse(text.slice(start, at));
  };
  const value = (path: string) => {
    space();
    out.set(path, { line, column: at - lineStart + 1 });
    const c = text[at];
    if (c === "{") object(path);
    else if (c === "[") array(path);
    else if (c === '"') string();
    else while (at < text.length && !/[\s,\]}]/.test(text[at] ?? "")) at += 1;
    space();
  };
  const object = (path: string) => {
    at += 1;
    space();
    while (at < text.length && text[at] !== "}") {
      const key = string();
      space();
      at += 1;
      value(path === "" ? key : `${path}.${key}`);
      if (text[at] === ",") at += 1;
      space();
    }
    at += 1;
  };
  const array = (path: string) => {
    at += 1;
    space();
    for (let i = 0; at < text.length && text[at] !== "]"; i++) {
      value(`${path}[${i}]`);
      if (text[at] === ",") at += 1;
    }
    at += 1;
  };

  value("");
  return out;
}
