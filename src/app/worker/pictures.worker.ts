import "../policy/noEval.ts";
import { MEDIA_TYPES, readHeader } from "../../core/pictures/header.ts";
import type { PictureAnswer, PictureRequest } from "./pictureProtocol.ts";

/** Pixels that a small picture is wide: twice as many as a face on the map. */
const THUMB = 220;
/** The least step of heights that a long picture is cut at on the map. */
const TALLEST = 2.4;

self.addEventListener("message", async ({ data }: MessageEvent<PictureRequest>) => {
  const { id, is, file, width } = data;
  try {
    const answer = is === "prepare" ? await prepared(file) : is === "luma" ? await lumaOf(file) : await shrunk(file, width ?? Number.POSITIVE_INFINITY);
    self.postMessage({ id, ...answer } satisfies PictureAnswer, { transfer: "values" in answer ? [answer.values.buffer] : [] });
  } catch {
    self.postMessage({ id, is: "refused", message: "It is damaged: it cannot be drawn." } satisfies PictureAnswer);
  }
});

async function prepared(file: Blob) {
  const bytes = new Uint8Array(await file.arrayBuffer());
  const header = readHeader(bytes);
  if (!header.ok) return { is: "refused" as const, message: header.message };
  const image = await createImageBitmap(file);
  const [width, height] = [image.width, image.height];
  const scale = Math.min(1, THUMB / width);
  const canvas = new OffscreenCanvas(Math.max(1, Math.round(width * scale)), Math.max(1, Math.round(Math.min(height, width * TALLEST) * scale)));
  const context = canvas.getContext("2d");
  if (!context) throw new Error("no canvas");
  context.imageSmoothingQuality = "high";
  context.drawImage(image, 0, 0, Math.round(width * scale), Math.round(height * scale));
  image.close();
  const thumb = await canvas.convertToBlob({ type: "image/webp", quality: 0.82 });
  return { is: "prepared" as const, kind: header.kind, size: [width, height] as [number, number], thumb };
}

/** The picture as a data address; as it is where it need not be smaller. */
async function shrunk(file: Blob, most: number) {
  const bytes = new Uint8Array(await file.arrayBuffer());
  const header = readHeader(bytes);
  if (!header.ok) return { is: "refused" as const, message: header.message };
  const [width, height] = header.size;
  if (width <= most) return { is: "shrunk" as const, address: await addressOf(new Blob([bytes], { type: MEDIA_TYPES[header.kind] })) };
  const image = await createImageBitmap(file);
  const canvas = new OffscreenCanvas(most, Math.max(1, Math.round((height * most) / width)));
  const context = canvas.getContext("2d");
  if (!context) throw new Error("no canvas");
  context.imageSmoothingQuality = "high";
  context.drawImage(image, 0, 0, canvas.width, canvas.height);
  image.close();
  return { is: "shrunk" as const, address: await addressOf(await canvas.convertToBlob({ type: "image/webp", quality: 0.85 })) };
}

function addressOf(blob: Blob): Promise<string> {
  return new Promise((done, failed) => {
    const reader = new FileReader();
    reader.addEventListener("load", () => done(String(reader.result)));
    reader.addEventListener("error", () => failed(reader.error));
    reader.readAsDataURL(blob);
  });
}

/** Brightness of each pixel: the weights of ITU-R BT.601. */
async function lumaOf(file: Blob) {
  const image = await createImageBitmap(file);
  const { width, height } = image;
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext("2d", { willReadFrequently: true });
  if (!context) throw new Error("no canvas");
  context.drawImage(image, 0, 0);
  image.close();
  const { data } = context.getImageData(0, 0, width, height);
  const values = new Uint8Array(width * height);
  for (let i = 0, at = 0; i < values.length; i++, at += 4) values[i] = ((data[at] ?? 0) * 77 + (data[at + 1] ?? 0) * 150 + (data[at + 2] ?? 0) * 29) >> 8;
  return { is: "luma" as const, width, height, values };
}
