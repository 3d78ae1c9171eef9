import { mkdir, readFile, stat, writeFile } from "node:fs/promises";
import { basename, dirname, join } from "node:path";
import { type PictureFiles, pictureFiles } from "../core/model/pictures.ts";
import type { Project } from "../core/model/schema.ts";
import { writeProject } from "../core/model/write.ts";
import { MEDIA_TYPES, PICTURE_BYTES, readHeader } from "../core/pictures/header.ts";
import { isZip, packed } from "../core/pictures/zip.ts";
import { fromZip, readBytes, readDocument, Unusable } from "./files.ts";

/** Bytes of pictures by their files, as they lie beside a document; too large ones as none. */
export type Pictures = ReadonlyMap<string, Uint8Array>;

/** What a document is called, without its ending: the folder of its pictures is called so too. */
function stem(file: string): string {
  return file.replace(/(\.etape)?\.(json|zip)$/i, "");
}

/** The pictures that a document names, from `NAME.pictures/` beside it; undefined where it came from standard input. */
export async function picturesBeside(file: string, project: Project): Promise<Pictures | undefined> {
  if (file === "-") return undefined;
  if (/\.zip$/i.test(file)) return fromZip(file, await readBytes(file)).pictures;
  const folder = `${stem(file)}.pictures`;
  const found = await Promise.all(
    pictureFiles(project).map(async (path): Promise<Array<[string, Uint8Array]>> => {
      const at = join(folder, path);
      const about = await stat(at).catch(() => undefined);
      if (!about?.isFile()) return [];
      return [[path, about.size > PICTURE_BYTES ? new Uint8Array() : new Uint8Array(await readFile(at))]];
    }),
  );
  return new Map(found.flat());
}

/** What the checker is told of pictures. */
export function filesOf(pictures: Pictures): PictureFiles {
  return Object.fromEntries(
    [...pictures].map(([file, bytes]) => {
      const header = readHeader(bytes);
      return [file, header.ok ? { size: header.size } : {}];
    }),
  );
}

/** Pictures as data addresses, as hand-offs and drawings carry them. */
export function addressesOf(pictures: Pictures): Record<string, string> {
  return Object.fromEntries(
    [...pictures].flatMap(([file, bytes]) => {
      const header = readHeader(bytes);
      return header.ok ? [[file, `data:${MEDIA_TYPES[header.kind]};base64,${Buffer.from(bytes).toString("base64")}`] as const] : [];
    }),
  );
}

/** `etape pack`: the document and its pictures as one file. */
export async function packCommand(file: string, { out }: { out: string }): Promise<number> {
  const { project } = await readDocument(file);
  const pictures = (await picturesBeside(file, project)) ?? new Map<string, Uint8Array>();
  const name = file === "-" ? "app" : basename(stem(file));
  await put(out, packed({ name, text: writeProject(project), pictures: new Map(pictures) }));
  const missing = pictureFiles(project).filter((path) => !pictures.has(path));
  for (const path of missing) process.stderr.write(`${file}: not packed: ${path} is not in ${stem(file)}.pictures\n`);
  return missing.length === 0 ? 0 : 1;
}

/** `etape unpack`: the document, and its pictures in the folder beside it. */
export async function unpackCommand(file: string, { out }: { out: string }): Promise<number> {
  const bytes = await readBytes(file);
  if (!isZip(bytes)) throw new Unusable(`${file}: it is no zip; expected NAME.etape.zip`);
  const { text, pictures } = fromZip(file, bytes);
  for (const [path, data] of pictures) await put(join(`${stem(out)}.pictures`, path), data);
  await put(out, text);
  return 0;
}

async function put(path: string, content: string | Uint8Array): Promise<void> {
  try {
    await mkdir(dirname(path), { recursive: true });
    await writeFile(path, content);
  } catch (error) {
    throw new Unusable(`etape: ${path}: can not be written (${(error as NodeJS.ErrnoException).code ?? String(error)})`);
  }
}
