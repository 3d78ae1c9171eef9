import { problemLine, readProject, SIZE_LIMIT } from "../../core/model/read.ts";
import type { Project } from "../../core/model/schema.ts";
import { decodeUtf8, utf8Problem } from "../../core/model/utf8.ts";

/** A project from a file of a person's, or a sentence that says why it is none. */
export async function readFile(file: File): Promise<{ ok: true; project: Project } | { ok: false; message: string }> {
  if (file.size > SIZE_LIMIT) return { ok: false, message: `${file.name} has ${file.size} bytes; a project has at most 20 MiB.` };
  const decoded = decodeUtf8(new Uint8Array(await file.arrayBuffer()));
  if (!decoded.ok) return { ok: false, message: `${file.name}: ${problemLine(utf8Problem(decoded))}` };
  const read = readProject(decoded.text);
  if (read.ok) return { ok: true, project: read.project };
  const rest = read.problems.length - 3;
  return { ok: false, message: `${file.name} is no project: ${read.problems.slice(0, 3).map(problemLine).join("; ")}${rest > 0 ? `; and ${rest} more` : ""}` };
}
