import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { decodeUtf8 } from "../../../src/core/model/utf8.ts";

const bytes = (text: string) => new TextEncoder().encode(text);

describe("bytes as text", () => {
  it("gives back any text", () => {
    fc.assert(
      fc.property(fc.string({ unit: "grapheme" }), (text) => {
        expect(decodeUtf8(bytes(text))).toEqual({ ok: true, text: text.replace(/^\uFEFF/, "") });
      }),
    );
  });

  it("names the first byte that does not fit, and its line", () => {
    const latin1 = Uint8Array.from([...bytes('{\n  "name": "Caf'), 0xe9, ...bytes('"}')]);
    expect(decodeUtf8(latin1)).toEqual({ ok: false, byte: 16, line: 2 });
    expect(decodeUtf8(Uint8Array.from([0xff]))).toEqual({ ok: false, byte: 0, line: 1 });
  });

  it("refuses a character that is cut off at the end", () => {
    expect(decodeUtf8(bytes("né").subarray(0, 2))).toMatchObject({ ok: false, line: 1 });
  });
});
