import type { Project } from "../../../core/model/schema.ts";
import { download, fileName, save } from "../../ui/download.ts";
import { db } from "../storage/db.ts";

/** Hands the document to the browser as a file, with its pictures where it has any, and remembers when. */
export async function exported(id: string, project: Project): Promise<void> {
  await handOut(id, project);
  await db.projects.update(id, { exportedAt: Date.now() });
}

/** Hands a document of a project, now or as it was, to the browser as a file; with the pictures that it names. */
export async function handOut(id: string, project: Project): Promise<void> {
  if (project.screens.some((screen) => screen.pictures)) {
    const { packedProject } = await import("../storage/packed.ts");
    const name = fileName(project.name);
    save(`${name}.etape.zip`, await packedProject(id, name, project), "application/zip");
  } else download(project);
}
