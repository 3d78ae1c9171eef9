import { strToU8, type UnzipFileInfo, unzipSync, type Zippable, zipSync } from "fflate";
import { SIZE_LIMIT } from "../model/read.ts";
import { decodeUtf8 } from "../model/utf8.ts";
import { PICTURE_BYTES } from "./header.ts";

/** The most pictures, and the most bytes of all together, that are taken out of one file. */
const MOST_PICTURES = 3_000;
const MOST_BYTES = 600 * 2 ** 20;
/** The most bytes that a file with a document and its pictures may have. */
export const ZIP_LIMIT = MOST_BYTES;

/** A project with its pictures, as it is sent around in one file. */
export interface Packed {
  /** What the document's file is called, without its ending. */
  name: string;
  /** The document. */
  text: string;
  /** Bytes by the paths of the pictures below their folder. */
  pictures: Map<string, Uint8Array>;
}

/** The file `NAME.etape.zip`: the document, and its pictures in `NAME.pictures/`. The same project gives the same bytes. */
export function packed({ name, text, pictures }: Packed): Uint8Array {
  // Pictures are compressed as they are; a time would make each file another one.
  const mtime = new Date(1980, 0, 1);
  const files: Zippable = { [`${name}.etape.json`]: [strToU8(text), { level: 6, mtime }] };
  for (const [file, bytes] of [...pictures].sort(([a], [b]) => (a < b ? -1 : 1))) files[`${name}.pictures/${file}`] = [bytes, { level: 0, mtime }];
  return zipSync(files);
}

/** Whether bytes begin like a zip. */
export function isZip(bytes: Uint8Array): boolean {
  return bytes[0] === 0x50 && bytes[1] === 0x4b && (bytes[2] === 0x03 || bytes[2] === 0x05);
}

/** Takes a project with its pictures out of a file; says in a sentence why it cannot. Nothing is inflated that says it is too large. */
export function unpacked(bytes: Uint8Array): { ok: true; packed: Packed } | { ok: false; message: string } {
  const fail = (message: string) => ({ ok: false as const, message });
  try {
    const documents: string[] = [];
    let [count, total] = [0, 0];
    let tooLarge: string | undefined;
    const listed = (file: UnzipFileInfo) => {
      if (file.name.endsWith("/")) return;
      if (/^[^/]+\.etape\.json$/.test(file.name)) documents.push(file.name);
      if (isPicture(file.name)) {
        count += 1;
        total += file.originalSize;
      }
      const most = file.name.endsWith(".json") ? SIZE_LIMIT : PICTURE_BYTES;
      if (isPicture(file.name) || file.name.endsWith(".etape.json")) if (file.originalSize > most) tooLarge ??= file.name;
    };
    unzipSync(bytes, {
      filter: (file) => {
        listed(file);
        return false;
      },
    });
    const [document] = documents;
    if (document === undefined) return fail("There is no NAME.etape.json in it.");
    if (documents.length > 1) return fail(`There are ${documents.length} documents in it, ${documents.join(" and ")}; expected one.`);
    if (tooLarge !== undefined) return fail(`${tooLarge} in it is larger than a file of its kind may be.`);
    if (count > MOST_PICTURES || total > MOST_BYTES)
      return fail(`There are ${count} pictures of ${Math.round(total / 2 ** 20)} MiB in it, more than are taken.`);
    const name = document.slice(0, -".etape.json".length);
    const folder = `${name}.pictures/`;
    const files = unzipSync(bytes, { filter: (file) => file.name === document || (file.name.startsWith(folder) && isPicture(file.name)) });
    const text = decodeUtf8(files[document] ?? new Uint8Array());
    if (!text.ok) return fail(`${document} in it is not UTF-8.`);
    const pictures = Object.entries(files).filter(([file]) => file !== document);
    return { ok: true, packed: { name, text: text.text, pictures: new Map(pictures.map(([file, data]) => [file.slice(folder.length), data])) } };
  } catch (error) {
    return fail(`It is no zip that can be read (${error instanceof Error ? error.message : String(error)}).`);
  }
}

/** A file in a folder of pictures; none that would lead out of it. */
function isPicture(path: string): boolean {
  return /^[^/]+\.pictures\/./.test(path) && !path.endsWith("/") && !path.includes("\\") && !path.split("/").includes("..");
}
