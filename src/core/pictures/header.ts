import { PICTURE_SIDE } from "../model/schema.ts";

/** The most bytes that the file of a picture may have: 4 MiB. */
export const PICTURE_BYTES = 4 * 2 ** 20;

export type PictureKind = "png" | "jpeg" | "webp" | "avif";
export type Header = { ok: true; kind: PictureKind; size: [width: number, height: number] } | { ok: false; message: string };

/** The ending of files of a kind. */
export const ENDINGS: Record<PictureKind, string> = { png: "png", jpeg: "jpg", webp: "webp", avif: "avif" };
export const MEDIA_TYPES: Record<PictureKind, string> = { png: "image/png", jpeg: "image/jpeg", webp: "image/webp", avif: "image/avif" };

/**
 * Reads what a file of a picture is and how large, from its first bytes, without decoding it: a small file can stand for very many
 * pixels. Says in a sentence why it is not taken.
 */
export function readHeader(bytes: Uint8Array): Header {
  if (bytes.length > PICTURE_BYTES) return { ok: false, message: `It has ${(bytes.length / 2 ** 20).toFixed(1)} MiB; a picture may have 4.` };
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let found: { kind: PictureKind; size: [number, number] | undefined } | undefined;
  try {
    found = png(view) ?? jpeg(view) ?? webp(view) ?? avif(view);
  } catch (error) {
    // The file ends in the middle of what says how large it is.
    if (!(error instanceof RangeError)) throw error;
    return { ok: false, message: "It ends in the middle." };
  }
  if (!found) return { ok: false, message: isSvg(bytes) ? "It is an SVG; pictures are PNG, JPEG, WebP or AVIF." : "It is no PNG, JPEG, WebP or AVIF." };
  const { kind, size } = found;
  if (!size || size[0] < 1 || size[1] < 1) return { ok: false, message: "It does not say how large it is." };
  if (size[0] > PICTURE_SIDE || size[1] > PICTURE_SIDE)
    return { ok: false, message: `It is ${size[0]} × ${size[1]} pixels; a picture may have ${PICTURE_SIDE} a side.` };
  return { ok: true, kind, size };
}

type Found = { kind: PictureKind; size: [number, number] | undefined };

const text = (view: DataView, at: number, length: number) => String.fromCharCode(...Array.from({ length }, (_, i) => view.getUint8(at + i)));
const begins = (view: DataView, bytes: readonly number[]) => view.byteLength >= bytes.length && bytes.every((byte, i) => view.getUint8(i) === byte);

/** ISO/IEC 15948: the signature, then IHDR with width and height. */
function png(view: DataView): Found | undefined {
  if (!begins(view, [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a])) return undefined;
  return { kind: "png", size: text(view, 12, 4) === "IHDR" ? [view.getUint32(16), view.getUint32(20)] : undefined };
}

/** ITU-T T.81: segments up to a start of frame, which has height and width; Exif turns of 90 degrees change the two over. */
function jpeg(view: DataView): Found | undefined {
  if (!begins(view, [0xff, 0xd8, 0xff])) return undefined;
  let turned = false;
  for (let at = 2; ; ) {
    if (view.getUint8(at) !== 0xff) return { kind: "jpeg", size: undefined };
    const marker = view.getUint8(at + 1);
    if (marker === 0xff || (marker >= 0xd0 && marker <= 0xd8) || marker === 0x01) {
      at += marker === 0xff ? 1 : 2;
      continue;
    }
    const length = view.getUint16(at + 2);
    if (length < 2 || marker === 0xd9 || marker === 0xda) return { kind: "jpeg", size: undefined };
    if (marker === 0xe1 && length > 16 && text(view, at + 4, 4) === "Exif") turned = turnedByExif(view, at + 10, length - 8);
    if (marker >= 0xc0 && marker <= 0xcf && marker !== 0xc4 && marker !== 0xc8 && marker !== 0xcc) {
      const [height, width] = [view.getUint16(at + 5), view.getUint16(at + 7)];
      return { kind: "jpeg", size: turned ? [height, width] : [width, height] };
    }
    at += 2 + length;
  }
}

/** Whether the orientation that Exif gives lays the picture on its side. */
function turnedByExif(view: DataView, at: number, length: number): boolean {
  const end = Math.min(view.byteLength, at + length);
  if (at + 8 > end) return false;
  const little = view.getUint16(at) === 0x4949;
  const list = at + view.getUint32(at + 4, little);
  if (list + 2 > end) return false;
  for (let i = 0, entry = list + 2; i < view.getUint16(list, little) && entry + 12 <= end; i++, entry += 12)
    if (view.getUint16(entry, little) === 0x0112) return view.getUint16(entry + 8, little) >= 5;
  return false;
}

/** RIFF with VP8X, VP8L or VP8 first (RFC 9649). */
function webp(view: DataView): Found | undefined {
  if (view.byteLength < 16 || text(view, 0, 4) !== "RIFF" || text(view, 8, 4) !== "WEBP") return undefined;
  const of = text(view, 12, 4);
  const three = (at: number) => view.getUint16(at, true) + view.getUint8(at + 2) * 65536;
  if (of === "VP8X") return { kind: "webp", size: [three(24) + 1, three(27) + 1] };
  if (of === "VP8L") {
    const bits = view.getUint32(21, true);
    return { kind: "webp", size: view.getUint8(20) === 0x2f ? [(bits & 0x3fff) + 1, ((bits >>> 14) & 0x3fff) + 1] : undefined };
  }
  if (of === "VP8 ") return { kind: "webp", size: [view.getUint16(26, true) & 0x3fff, view.getUint16(28, true) & 0x3fff] };
  return { kind: "webp", size: undefined };
}

/** ISO/IEC 14496-12 and 23008-12: an ftyp that names avif, and the largest ispe within meta, iprp and ipco. */
function avif(view: DataView): Found | undefined {
  if (view.byteLength < 16 || text(view, 4, 4) !== "ftyp") return undefined;
  const brands = Math.min(view.getUint32(0), view.byteLength, 256);
  const names = Array.from({ length: Math.max(0, Math.floor((brands - 8) / 4)) }, (_, i) => text(view, 8 + 4 * i, 4));
  if (!names.some((name) => name === "avif" || name === "avis")) return undefined;
  let size: [number, number] | undefined;
  const visit = (from: number, to: number, depth: number) => {
    for (let at = from; at + 8 <= to && depth < 6; ) {
      const length = view.getUint32(at);
      const end = length === 0 ? to : at + length;
      if (length !== 0 && length < 8) return;
      const name = text(view, at + 4, 4);
      if (name === "meta") visit(at + 12, Math.min(end, to), depth + 1);
      else if (name === "iprp" || name === "ipco") visit(at + 8, Math.min(end, to), depth + 1);
      else if (name === "ispe" && at + 20 <= to) {
        const [width, height] = [view.getUint32(at + 12), view.getUint32(at + 16)];
        if (!size || width * height > size[0] * size[1]) size = [width, height];
      }
      at = end;
    }
  };
  visit(view.getUint32(0), view.byteLength, 0);
  return { kind: "avif", size };
}

function isSvg(bytes: Uint8Array): boolean {
  return /<svg[\s>]/i.test(new TextDecoder().decode(bytes.subarray(0, 1024)));
}
