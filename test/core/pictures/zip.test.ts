import { strToU8, zipSync } from "fflate";
import { describe, expect, it } from "vitest";
import { isZip, packed, unpacked } from "../../../src/core/pictures/zip.ts";
import { pngOf } from "../../pictures/png.ts";
import { seeded } from "../../random/documents.ts";

const picture = new Uint8Array(pngOf(4, 4));
const project = {
  name: "shop",
  text: '{"format": "etape/1"}\n',
  pictures: new Map([
    ["home.png", picture],
    ["wide/home.png", picture],
  ]),
};

describe("a document with its pictures in one file", () => {
  it("comes back as it was, and is the same bytes each time, in whatever order the pictures were given", () => {
    const bytes = packed(project);
    expect(isZip(bytes)).toBe(true);
    expect(unpacked(bytes)).toEqual({ ok: true, packed: project });
    expect(packed({ ...project, pictures: new Map([...project.pictures].reverse()) })).toEqual(bytes);
  });

  it("is refused with a sentence where it is something else", () => {
    const why = (files: Record<string, Uint8Array>) => {
      const read = unpacked(zipSync(files));
      return read.ok ? read.packed : read.message;
    };
    const document = strToU8("{}");
    expect(why({ "a.txt": document })).toBe("There is no NAME.etape.json in it.");
    expect(why({ "a.etape.json": document, "b.etape.json": document })).toBe("There are 2 documents in it, a.etape.json and b.etape.json; expected one.");
    expect(why({ "a.etape.json": new Uint8Array([0xff, 0xfe, 0xff]) })).toBe("a.etape.json in it is not UTF-8.");
    expect(why({ "a.etape.json": document, "a.pictures/big.png": new Uint8Array(5 * 2 ** 20) })).toBe(
      "a.pictures/big.png in it is larger than a file of its kind may be.",
    );
    expect(unpacked(strToU8("PK\u0003\u0004 no zip"))).toMatchObject({ ok: false });
  });

  it("gives no picture that would lead out of its folder, nor those of another document", () => {
    const read = unpacked(
      zipSync({
        "a.etape.json": strToU8("{}"),
        "a.pictures/../../evil.png": picture,
        "a.pictures\\x.png": picture,
        "b.pictures/b.png": picture,
        "a.pictures/ok.png": picture,
      }),
    );
    expect(read.ok && [...read.packed.pictures.keys()]).toEqual(["ok.png"]);
  });

  it("never throws, wherever it ends and whatever is changed in it", () => {
    const bytes = packed(project);
    for (let end = 0; end < bytes.length; end += 7) expect(unpacked(bytes.slice(0, end)).ok).toBe(false);
    const random = seeded(3);
    for (let i = 0; i < 500; i++) {
      const copy = new Uint8Array(bytes);
      for (let n = 0; n < 3; n++) copy[Math.floor(random() * copy.length)] = Math.floor(random() * 256);
      expect(unpacked(copy).ok).toBeTypeOf("boolean");
    }
  });
});
