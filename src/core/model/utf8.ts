export type Decoded = { ok: true; text: string } | { ok: false; byte: number; line: number };

/**
 * The text of a file's bytes, which have to be UTF-8 (RFC 3629). Where they are not, the position of the first byte that does not
 * fit, counted from 0, and its line, counted from 1; nothing is ever replaced silently. A byte order mark is left out.
 */
export function decodeUtf8(bytes: Uint8Array): Decoded {
  const text = decoded(bytes, false);
  if (text !== undefined) return { ok: true, text: text.replace(/^\uFEFF/, "") };
  // The longest beginning that reads; an unfinished character at its end is no fault of the beginning.
  let [reads, fails] = [0, bytes.length + 1];
  while (fails - reads > 1) {
    const middle = (reads + fails) >> 1;
    if (decoded(bytes.subarray(0, middle), true) === undefined) fails = middle;
    else reads = middle;
  }
  // Whole characters alone count as read.
  const byte = new TextEncoder().encode(decoded(bytes.subarray(0, reads), true)).length;
  const line = bytes.subarray(0, byte).reduce((count, one) => count + (one === 10 ? 1 : 0), 1);
  return { ok: false, byte, line };
}

/** Where the bytes of a file are not UTF-8, in words. */
export function utf8Problem({ byte, line }: { byte: number; line: number }): { path: string; found: string; expected: string } {
  return { path: `byte ${byte} (line ${line})`, found: "bytes that are not UTF-8", expected: "a file saved as UTF-8" };
}

function decoded(bytes: Uint8Array, unfinished: boolean): string | undefined {
  try {
    return new TextDecoder("utf-8", { fatal: true, ignoreBOM: true }).decode(bytes, { stream: unfinished });
  } catch {
    return undefined;
  }
}
