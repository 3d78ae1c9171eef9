import { deflateSync } from "node:zlib";

type Colour = readonly [red: number, green: number, blue: number];
export interface Box {
  at: readonly [x: number, y: number, width: number, height: number];
  colour: Colour;
}

/** The bytes of a PNG of a size: a ground, and boxes on it. */
export function pngOf(width: number, height: number, ground: Colour = [245, 243, 238], boxes: readonly Box[] = []): Buffer {
  const rows = Buffer.alloc(height * (1 + width * 3));
  const paint = ([x0, y0, w, h]: Box["at"], [r, g, b]: Colour) => {
    for (let y = y0; y < Math.min(height, y0 + h); y++) for (let x = x0; x < Math.min(width, x0 + w); x++) rows.set([r, g, b], y * (1 + width * 3) + 1 + x * 3);
  };
  paint([0, 0, width, height], ground);
  for (const { at, colour } of boxes) paint(at, colour);
  const head = Buffer.alloc(13);
  head.writeUInt32BE(width, 0);
  head.writeUInt32BE(height, 4);
  head.set([8, 2, 0, 0, 0], 8);
  const signature = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
  return Buffer.concat([signature, chunk("IHDR", head), chunk("IDAT", deflateSync(rows)), chunk("IEND", Buffer.alloc(0))]);
}

function chunk(name: string, data: Buffer): Buffer {
  const out = Buffer.alloc(data.length + 12);
  out.writeUInt32BE(data.length, 0);
  out.write(name, 4, "latin1");
  data.copy(out, 8);
  out.writeUInt32BE(crc(out.subarray(4, data.length + 8)), data.length + 8);
  return out;
}

function crc(bytes: Uint8Array): number {
  let value = 0xffffffff;
  for (const byte of bytes) {
    value ^= byte;
    for (let i = 0; i < 8; i++) value = value & 1 ? (value >>> 1) ^ 0xedb88320 : value >>> 1;
  }
  return (value ^ 0xffffffff) >>> 0;
}
