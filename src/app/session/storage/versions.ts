import { problemLine, readProjectData } from "../../../core/model/read.ts";
import type { Project } from "../../../core/model/schema.ts";
import { db, type EtapeDb, type VersionRow } from "./db.ts";

/** What is told of a version where its document is not needed. */
export type VersionHead = Omit<VersionRow, "document">;

/** Keeps a project as it is, under a name; gives the version's id. */
export async function keepVersion(projectId: string, name: string, project: Project, by: VersionRow["by"], store: EtapeDb = db): Promise<string> {
  const id = crypto.randomUUID();
  await store.kept.add({ id, projectId, name, at: Date.now(), by, document: project });
  return id;
}

/** The versions of a project, the newest first. */
export async function versionsOf(projectId: string, store: EtapeDb = db): Promise<VersionHead[]> {
  const rows = await store.kept.where("projectId").equals(projectId).toArray();
  return rows.map(({ document: _, ...head }) => head).sort((a, b) => b.at - a.at);
}

/** The document of a version. Throws a sentence where there is none, or where it cannot be read. */
export async function documentOf(id: string, store: EtapeDb = db): Promise<Project> {
  const row = await store.kept.get(id);
  if (!row) throw new Error("This version is no longer kept in this browser.");
  const read = readProjectData(row.document);
  if (read.ok) return read.project;
  throw new Error(`The version “${row.name}” cannot be read: ${read.problems.map(problemLine).join("; ")}`);
}

export async function renameVersion(id: string, name: string, store: EtapeDb = db): Promise<void> {
  await store.kept.update(id, { name });
}

export async function deleteVersion(id: string, store: EtapeDb = db): Promise<void> {
  await store.kept.delete(id);
}
