import { problemLine, readProject, SIZE_LIMIT } from "../../core/model/read.ts";
import type { Project } from "../../core/model/schema.ts";
import { decodeUtf8, utf8Problem } from "../../core/model/utf8.ts";

/** A document's text with its pictures, by their files. */
export interface Unzipped {
  name: string;
  text: string;
  pictures: Map<string, Blob>;
}
type Refused = { ok: false; message: string };

/** Whether a file of a person's is a document with its pictures. */
export const isZipFile = ({ name }: File): boolean => /\.zip$/i.test(name);

/** Takes a document and its pictures out of a file, or says in a sentence why it cannot. */
export async function unzip(file: File): Promise<({ ok: true } & Unzipped) | Refused> {
  const { unpacked, ZIP_LIMIT } = await import("../../core/pictures/zip.ts");
  if (file.size > ZIP_LIMIT) return { ok: false, message: `It has ${file.size} bytes; a project with its pictures has at most ${ZIP_LIMIT / 2 ** 20} MiB.` };
  const read = unpacked(new Uint8Array(await file.arrayBuffer()));
  if (!read.ok) return read;
  const { name, text, pictures } = read.packed;
  return { ok: true, name, text, pictures: new Map([...pictures].map(([path, data]) => [path, new Blob([new Uint8Array(data)])])) };
}

/** A project from a file of a person's, with its pictures where it has any in it; or a sentence that says why it is none. */
export async function readFile(file: File): Promise<{ ok: true; project: Project; pictures: Map<string, Blob> } | Refused> {
  const given = isZipFile(file) ? await unzip(file) : await textOf(file);
  if (!given.ok) return { ok: false, message: `${file.name}: ${given.message}` };
  const read = readProject(given.text);
  if (read.ok) return { ok: true, project: read.project, pictures: given.pictures };
  const rest = read.problems.length - 3;
  return { ok: false, message: `${file.name} is no project: ${read.problems.slice(0, 3).map(problemLine).join("; ")}${rest > 0 ? `; and ${rest} more` : ""}` };
}

async function textOf(file: File): Promise<({ ok: true } & Unzipped) | Refused> {
  if (file.size > SIZE_LIMIT) return { ok: false, message: `It has ${file.size} bytes; a project has at most 20 MiB.` };
  const decoded = decodeUtf8(new Uint8Array(await file.arrayBuffer()));
  if (!decoded.ok) return { ok: false, message: problemLine(utf8Problem(decoded)) };
  return { ok: true, name: file.name, text: decoded.text, pictures: new Map() };
}
