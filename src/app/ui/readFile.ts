import { problemLine, readProject, SIZE_LIMIT } from "../../core/model/read.ts";
import type { Project } from "../../core/model/schema.ts";
import { decodeUtf8, utf8Problem } from "../../core/model/utf8.ts";

/** A project from a file of a person's, with its pictures where it has any in it; or a sentence that says why it is none. */
export async function readFile(file: File): Promise<{ ok: true; project: Project; pictures: Map<string, Blob> } | { ok: false; message: string }> {
  if (/\.zip$/i.test(file.name)) {
    const { unpacked } = await import("../../core/pictures/zip.ts");
    const { packed, message } = { packed: undefined, message: "", ...unpacked(new Uint8Array(await file.arrayBuffer())) };
    if (!packed) return { ok: false, message: `${file.name}: ${message}` };
    const pictures = new Map([...packed.pictures].map(([path, data]) => [path, new Blob([new Uint8Array(data)])]));
    return readText(file.name, packed.text, pictures);
  }
  if (file.size > SIZE_LIMIT) return { ok: false, message: `${file.name} has ${file.size} bytes; a project has at most 20 MiB.` };
  const decoded = decodeUtf8(new Uint8Array(await file.arrayBuffer()));
  if (!decoded.ok) return { ok: false, message: `${file.name}: ${problemLine(utf8Problem(decoded))}` };
  return readText(file.name, decoded.text, new Map());
}

function readText(name: string, text: string, pictures: Map<string, Blob>): Awaited<ReturnType<typeof readFile>> {
  const read = readProject(text);
  if (read.ok) return { ok: true, project: read.project, pictures };
  const rest = read.problems.length - 3;
  return { ok: false, message: `${name} is no project: ${read.problems.slice(0, 3).map(problemLine).join("; ")}${rest > 0 ? `; and ${rest} more` : ""}` };
}
