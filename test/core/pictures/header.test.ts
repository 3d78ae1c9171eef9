import { describe, expect, it } from "vitest";
import { readHeader } from "../../../src/core/pictures/header.ts";
import { pngOf } from "../../pictures/png.ts";
import { seeded } from "../../random/documents.ts";

const bytes = (...parts: Array<number[] | string>) =>
  new Uint8Array(parts.flatMap((part) => (typeof part === "string" ? [...part].map((c) => c.charCodeAt(0)) : part)));
const be16 = (n: number) => [n >> 8, n & 255];
const le16 = (n: number) => [n & 255, n >> 8];
const be32 = (n: number) => [n >>> 24, (n >> 16) & 255, (n >> 8) & 255, n & 255];
const le32 = (n: number) => [...be32(n)].reverse();

const SOF = (w: number, h: number) => [0xff, 0xc0, ...be16(11), 8, ...be16(h), ...be16(w), 1, 1, 0x11, 0];
const exif = (turn: number) => {
  const tiff = [0x4d, 0x4d, 0, 42, ...be32(8), ...be16(1), ...be16(0x0112), ...be16(3), ...be32(1), ...be16(turn), 0, 0];
  return [0xff, 0xe1, ...be16(2 + 6 + tiff.length), 0x45, 0x78, 0x69, 0x66, 0, 0, ...tiff];
};
const jpeg = (w: number, h: number, before: number[] = []) => bytes([0xff, 0xd8], before, SOF(w, h));
const box = (name: string, content: number[]) => [...be32(8 + content.length), ...[...name].map((c) => c.charCodeAt(0)), ...content];
const ispe = (w: number, h: number) => box("ispe", [0, 0, 0, 0, ...be32(w), ...be32(h)]);
const avif = (...sizes: Array<[number, number]>) =>
  bytes(
    box(
      "ftyp",
      [..."avif\0\0\0\0mif1"].map((c) => c.charCodeAt(0)),
    ),
    box("meta", [
      0,
      0,
      0,
      0,
      ...box(
        "iprp",
        box(
          "ipco",
          sizes.flatMap(([w, h]) => ispe(w, h)),
        ),
      ),
    ]),
  );

const GOOD: Array<[string, Uint8Array, object]> = [
  ["a PNG", pngOf(390, 844), { kind: "png", size: [390, 844] }],
  ["a JPEG", jpeg(1170, 2532), { kind: "jpeg", size: [1170, 2532] }],
  ["a JPEG with other segments before", jpeg(40, 30, [0xff, 0xe0, ...be16(4), 1, 2, 0xff, 0xff, 0xdb, ...be16(3), 9]), { kind: "jpeg", size: [40, 30] }],
  ["a JPEG that lies on its side", jpeg(40, 30, exif(6)), { kind: "jpeg", size: [30, 40] }],
  ["a JPEG that stands as it is", jpeg(40, 30, exif(1)), { kind: "jpeg", size: [40, 30] }],
  ["a WebP with more in it", bytes("RIFF", le32(30), "WEBPVP8X", le32(10), [0, 0, 0, 0], [0x85, 1, 0], [0x4b, 3, 0]), { kind: "webp", size: [390, 844] }],
  ["a lossless WebP", bytes("RIFF", le32(20), "WEBPVP8L", le32(8), [0x2f], le32(389 | (843 << 14))), { kind: "webp", size: [390, 844] }],
  ["a lossy WebP", bytes("RIFF", le32(30), "WEBPVP8 ", le32(16), [0, 0, 0, 0x9d, 1, 0x2a], le16(390), le16(844)), { kind: "webp", size: [390, 844] }],
  ["an AVIF, of which the largest part counts", avif([64, 64], [390, 844]), { kind: "avif", size: [390, 844] }],
];

describe("the header of a picture", () => {
  for (const [what, data, expected] of GOOD)
    it(`says what it is and how large: ${what}`, () => {
      expect(readHeader(data)).toEqual({ ok: true, ...expected });
    });

  it("is refused with a sentence where it is none, or one of too many pixels or bytes", () => {
    const refused = (data: Uint8Array) => {
      const read = readHeader(data);
      return read.ok ? "taken" : read.message;
    };
    expect(refused(bytes("hello"))).toBe("It is no PNG, JPEG, WebP or AVIF.");
    expect(refused(bytes('<?xml version="1.0"?><svg xmlns="x">'))).toBe("It is an SVG; pictures are PNG, JPEG, WebP or AVIF.");
    expect(refused(bytes("GIF89a", [1, 0, 1, 0]))).toBe("It is no PNG, JPEG, WebP or AVIF.");
    expect(refused(new Uint8Array())).toBe("It is no PNG, JPEG, WebP or AVIF.");
    const bomb = pngOf(10, 10);
    bomb.writeUInt32BE(60_000, 16);
    expect(refused(bomb)).toBe("It is 60000 × 10 pixels; a picture may have 4096 a side.");
    expect(refused(new Uint8Array(5 * 2 ** 20))).toBe("It has 5.0 MiB; a picture may have 4.");
    expect(refused(jpeg(0, 30))).toBe("It does not say how large it is.");
    expect(refused(bytes([0xff, 0xd8, 0xff, 0xda, 0, 4]))).toBe("It does not say how large it is.");
  });

  it("never throws, and never goes on for ever, wherever a file ends and whatever stands in it", () => {
    for (const [, data] of GOOD) for (let end = 0; end < Math.min(data.length, 120); end++) expect(readHeader(data.slice(0, end)).ok).toBeTypeOf("boolean");
    const random = seeded(11);
    for (let i = 0; i < 4_000; i++) {
      const [, data] = GOOD[i % GOOD.length] ?? GOOD[0] ?? ["", new Uint8Array(), {}];
      const copy = new Uint8Array(data.slice(0, 200));
      for (let n = 0; n < 1 + Math.floor(random() * 6); n++) copy[Math.floor(random() * copy.length)] = Math.floor(random() * 256);
      const read = readHeader(copy);
      if (read.ok) expect(read.size.every((side) => side >= 1 && side <= 4096)).toBe(true);
      else expect(read.message).toMatch(/\.$/);
    }
  });
});
