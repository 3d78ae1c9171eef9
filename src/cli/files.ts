import { readFile, writeFile } from "node:fs/promises";
import { basename } from "node:path";
import { readLines } from "../core/lines/build.ts";
import { type Position, positions } from "../core/model/positions.ts";
import { problemLine, readProject, SIZE_LIMIT } from "../core/model/read.ts";
import type { Project } from "../core/model/schema.ts";
import { decodeUtf8, utf8Problem } from "../core/model/utf8.ts";
import { isZip, type Packed, unpacked } from "../core/pictures/zip.ts";

/** Input that can not be used: the command ends with status 2 and this message on standard error. */
export class Unusable extends Error {}

/** The bytes of a file, or of standard input for `-`. */
export async function readBytes(file: string): Promise<Uint8Array> {
  try {
    return file === "-" ? await standardInput() : await readFile(file);
  } catch (error) {
    throw new Unusable(`etape: ${file}: can not be read (${(error as NodeJS.ErrnoException).code ?? String(error)}); expected a file`);
  }
}

/** The text of a file, or of standard input for `-`. */
export async function readText(file: string): Promise<string> {
  return textOf(file, await readBytes(file));
}

function textOf(file: string, bytes: Uint8Array): string {
  const decoded = decodeUtf8(bytes);
  if (decoded.ok) return decoded.text;
  throw new Unusable(`${file}: ${problemLine(utf8Problem(decoded))}\n`);
}

/** A project with its pictures, taken out of a zip. */
export function fromZip(file: string, bytes: Uint8Array): Packed {
  const read = unpacked(bytes);
  if (read.ok) return read.packed;
  throw new Unusable(`${file}: ${read.message}`);
}

async function standardInput(): Promise<Buffer> {
  const chunks: Buffer[] = [];
  for await (const chunk of process.stdin) chunks.push(chunk as Buffer);
  return Buffer.concat(chunks);
}

/** A project as it was read from a file: its text, and where its parts stand in it by their paths, such as `screens[3]`. */
export interface Document {
  project: Project;
  text: string;
  at: () => ReadonlyMap<string, Position>;
}

/**
 * Reads a project: a document, one that is packed with its pictures, or quick lines where the file is called `.lines`. All its problems, each with
 * the file and where in it, where there are any.
 */
export async function readDesign(file: string): Promise<Document> {
  return /\.lines$/i.test(file) ? readQuickLines(file) : readDocument(file);
}

async function readQuickLines(file: string): Promise<Document> {
  const text = await readText(file);
  if (text.length > SIZE_LIMIT) throw new Unusable(`${file}: ${text.length} characters; expected at most ${SIZE_LIMIT} (20 MiB)`);
  const read = readLines(text, basename(file).replace(/\.[^.]*$/, ""));
  if (!read.ok) throw new Unusable(read.problems.map(({ line, column, message }) => `${file}:${line}: column ${column}: ${message}\n`).join(""));
  const { project, at, legsAt } = read;
  const places = (kind: "screens" | "containers") => project[kind].flatMap(({ id }, i): Array<[string, Position]> => paired(`${kind}[${i}]`, at.get(id)));
  const legs = project.legs.flatMap(({ id }, i): Array<[string, Position]> => paired(`legs[${i}]`, legsAt.get(id)));
  return { project, text, at: () => new Map([...places("screens"), ...places("containers"), ...legs]) };
}

const paired = (path: string, at: Position | undefined): Array<[string, Position]> => (at ? [[path, at]] : []);

/** Reads a project document, by itself or packed with its pictures; all its problems, each with file and path, where there are any. */
export async function readDocument(file: string): Promise<Document> {
  if (/\.lines$/i.test(file)) throw new Unusable(`${file}: quick lines; expected a project document, which etape import --from lines makes of them\n`);
  const bytes = await readBytes(file);
  const text = isZip(bytes) ? fromZip(file, bytes).text : textOf(file, bytes);
  const result = readProject(text);
  if (result.ok) return { project: result.project, text, at: () => positions(text) };
  throw new Unusable(result.problems.map((problem) => `${file}: ${problemLine(problem)}\n`).join(""));
}

/** Writes a result to a file, or to standard output for `-`. */
export async function writeOut(file: string, text: string): Promise<void> {
  try {
    if (file === "-") process.stdout.write(text);
    else await writeFile(file, text);
  } catch (error) {
    throw new Unusable(
      `etape: ${file}: can not be written (${(error as NodeJS.ErrnoException).code ?? String(error)}); expected a file in a folder that is there`,
    );
  }
}
