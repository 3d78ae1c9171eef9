import { readFile, writeFile } from "node:fs/promises";
import { problemLine, readProject } from "../core/model/read.ts";
import type { Project } from "../core/model/schema.ts";
import { decodeUtf8, utf8Problem } from "../core/model/utf8.ts";

/** Input that can not be used: the command ends with status 2 and this message on standard error. */
export class Unusable extends Error {}

/** The text of a file, or of standard input for `-`. */
export async function readText(file: string): Promise<string> {
  try {
    const decoded = decodeUtf8(file === "-" ? await standardInput() : await readFile(file));
    if (decoded.ok) return decoded.text;
    throw new Unusable(`${file}: ${problemLine(utf8Problem(decoded))}\n`);
  } catch (error) {
    if (error instanceof Unusable) throw error;
    throw new Unusable(`etape: ${file}: can not be read (${(error as NodeJS.ErrnoException).code ?? String(error)}); expected a file`);
  }
}

async function standardInput(): Promise<Buffer> {
  const chunks: Buffer[] = [];
  for await (const chunk of process.stdin) chunks.push(chunk as Buffer);
  return Buffer.concat(chunks);
}

/** Reads a project document; all its problems, each with file and path, where there are any. */
export async function readDocument(file: string): Promise<{ project: Project; text: string }> {
  const text = await readText(file);
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
