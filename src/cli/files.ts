import { readFile, writeFile } from "node:fs/promises";
import { problemLine, readProject } from "../core/model/read.ts";
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

/** Reads a project document, by itself or packed with its pictures; all its problems, each with file and path, where there are any. */
export async function readDocument(file: string): Promise<{ project: Project; text: string }> {
  const bytes = await readBytes(file);
  const text = isZip(bytes) ? fromZip(file, bytes).text : textOf(file, bytes);
  const result = readProject(text);
  if (result.ok) return { project: result.project, text };
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
