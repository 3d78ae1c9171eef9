import type { Edit } from "../../core/model/edits/edit.ts";
import { problemLine, problemsAfterEdit, readProjectData } from "../../core/model/read.ts";
import type { Project } from "../../core/model/schema.ts";
import { db, type EtapeDb, type ProjectRow } from "./db.ts";

/** Versions kept for undo; older ones go. */
export const KEPT_VERSIONS = 200;

export interface Loaded {
  project: Project;
  head: number;
  revision: number;
  undoName: string | undefined;
  redoName: string | undefined;
}

/** Adds a project; gives its id in this browser. */
export async function createProject(project: Project, store: EtapeDb = db): Promise<string> {
  const id = crypto.randomUUID();
  await store.transaction("rw", store.projects, store.versions, async () => {
    await store.projects.add({ id, name: project.name, head: 0, revision: 1, updatedAt: Date.now() });
    await store.versions.add({ projectId: id, seq: 0, name: "Open", document: project });
  });
  return id;
}

/** The newest document of a project, or undefined where there is no such project. Throws where what is stored can not be read. */
export async function loadProject(id: string, store: EtapeDb = db): Promise<Loaded | undefined> {
  return store.transaction("r", store.projects, store.versions, async () => {
    const row = await store.projects.get(id);
    return row && loadVersion(row, store);
  });
}

async function loadVersion(row: ProjectRow, store: EtapeDb): Promise<Loaded> {
  const [now, next] = await Promise.all([store.versions.get([row.id, row.head]), store.versions.get([row.id, row.head + 1])]);
  const previous = row.head > 0 ? await store.versions.get([row.id, row.head - 1]) : undefined;
  return { project: parsed(now?.document), head: row.head, revision: row.revision, undoName: previous && now?.name, redoName: next?.name };
}

function parsed(document: unknown): Project {
  const result = readProjectData(document);
  if (result.ok) return result.project;
  throw new Error(`What is stored of this project can not be read: ${result.problems.map(problemLine).join("; ")}`);
}

/**
 * Applies an edit to the newest document, whichever window wrote it, and keeps the result as a new
 * version. `known` is the document of a revision that was read before; where that is still the
 * newest, it need not be read again.
 */
export async function saveEdit(id: string, edit: Edit, store: EtapeDb = db, known?: { revision: number; project: Project }): Promise<Loaded | undefined> {
  return store.transaction("rw", store.projects, store.versions, async () => {
    const row = await store.projects.get(id);
    if (!row) return undefined;
    const newest = known?.revision === row.revision ? known.project : parsed((await store.versions.get([id, row.head]))?.document);
    const project = edit.apply(newest);
    mustRead(newest, project, edit.name);
    const head = row.head + 1;
    await store.versions
      .where("projectId")
      .equals(id)
      .and((v) => v.seq >= head || v.seq < head - KEPT_VERSIONS)
      .delete();
    await store.versions.put({ projectId: id, seq: head, name: edit.name, document: project });
    const next = { ...row, name: project.name, head, revision: row.revision + 1, updatedAt: Date.now() };
    await store.projects.put(next);
    return { project, head, revision: next.revision, undoName: edit.name, redoName: undefined };
  });
}

/** A document that could not be read again is never stored: what was stored before stays the newest. */
function mustRead(before: Project, after: Project, edit: string) {
  const why = unreadable(before, after, edit);
  if (why !== undefined) throw new Error(why);
}

/** Why the result of an edit cannot be kept, as a sentence; undefined where it reads. */
export function unreadable(before: Project, after: Project, edit: string): string | undefined {
  const problems = problemsAfterEdit(before, after);
  return problems.length === 0
    ? undefined
    : `“${edit}” was not kept, because the document could not be read afterwards: ${problems.map(problemLine).join("; ")}`;
}

/** Goes one version back (-1) or forward (1); gives the document as it then is. Stays where there is none. */
export async function moveHead(id: string, by: 1 | -1, store: EtapeDb = db): Promise<Loaded | undefined> {
  return store.transaction("rw", store.projects, store.versions, async () => {
    const row = await store.projects.get(id);
    if (!row) return undefined;
    const target = await store.versions.get([id, row.head + by]);
    if (!target) return loadVersion(row, store);
    const next = { ...row, name: parsed(target.document).name, head: target.seq, revision: row.revision + 1, updatedAt: Date.now() };
    await store.projects.put(next);
    return loadVersion(next, store);
  });
}

export async function deleteProject(id: string, store: EtapeDb = db): Promise<void> {
  await store.transaction("rw", store.projects, store.versions, async () => {
    await store.projects.delete(id);
    await store.versions.where("projectId").equals(id).delete();
  });
}
