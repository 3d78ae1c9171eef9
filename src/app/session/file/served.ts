import { problemLine, readProject } from "../../../core/model/read.ts";
import { db } from "../storage/db.ts";
import { createProject, type Loaded, loadProject } from "../storage/projects.ts";
import { servedFile } from "./disk.ts";

/** Begins a project from the file that `etape open` serves, under the id that stands for it; undefined where it serves another one, or none. */
export async function loadServed(id: string): Promise<Loaded | undefined> {
  const file = await servedFile();
  if (file?.id !== id) return undefined;
  const read = readProject(file.text);
  if (!read.ok) throw new Error(`${file.name} can not be read: ${read.problems.slice(0, 3).map(problemLine).join("; ")}`);
  await createProject(read.project, db, id);
  await db.files.put({ projectId: id, name: file.name, base: read.project });
  return loadProject(id);
}
