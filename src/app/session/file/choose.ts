import type { Project } from "../../../core/model/schema.ts";
import { writeProject } from "../../../core/model/write.ts";
import { fileName } from "../../ui/download.ts";
import { db } from "../storage/db.ts";
import type { FileHandle } from "./disk.ts";

type Picker = (options: object) => Promise<FileHandle>;

/** Lets a person choose the file that a project is kept in from now on, and writes it there. Says why not, as a sentence, where it cannot be. */
export async function bindToFile(id: string, project: Project): Promise<string | undefined> {
  const picker = (globalThis as { showSaveFilePicker?: Picker }).showSaveFilePicker;
  if (!picker) return "This browser does not let a page keep a file. Export the document instead, or run “etape open FILE”.";
  try {
    const handle = await picker({ suggestedName: `${fileName(project.name)}.etape.json`, types: [{ accept: { "application/json": [".json"] } }] });
    const writable = await handle.createWritable();
    await writable.write(writeProject(project));
    await writable.close();
    await db.files.put({ projectId: id, name: handle.name, base: project, handle });
    return undefined;
  } catch (error) {
    return error instanceof DOMException && error.name === "AbortError"
      ? undefined
      : `The file was not written: ${error instanceof Error ? error.message : String(error)}`;
  }
}
