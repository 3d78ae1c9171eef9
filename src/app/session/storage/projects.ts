import type { Edit } from "../../../core/model/edits/edit.ts";
import { applyEdit, readEdit } from "../../../core/model/edits/kinds.ts";
import { difference } from "../../../core/model/edits/revise.ts";
import { problemLine, problemsAfterEdit, readProjectData } from "../../../core/model/read.ts";
import type { Project } from "../../../core/model/schema.ts";
import { db, type EditRow, type EtapeDb, type ProjectRow } from "./db.ts";

/** Edits kept for undo; older ones go. */
export const KEPT_EDITS = 1000;

export interface Loaded {
  project: Project;
  head: number;
  revision: number;
  undoName: string | undefined;
  redoName: string | undefined;
}
/** What became of an edit: the document with it, or the newest one where another window left nothing for it to change. */
export interface Saved extends Loaded {
  made: boolean;
}

/** Adds a project; gives its id in this browser, a new one unless one is given. */
export async function createProject(project: Project, store: EtapeDb = db, id: string = crypto.randomUUID()): Promise<string> {
  await store.transaction("rw", store.projects, store.documents, async () => {
    await store.projects.add({ id, name: project.name, head: 0, revision: 1, updatedAt: Date.now() });
    await store.documents.add({ projectId: id, document: project });
  });
  return id;
}

/** What the list of projects shows of one. */
export interface Listed {
  id: string;
  name: string;
  /** Milliseconds since 1970, as all times here. */
  updatedAt: number | undefined;
  exportedAt: number | undefined;
}

/** All projects, newest first. What a row lacks, or has wrongly, is left out: one that is damaged hides no other. */
export async function listProjects(store: EtapeDb = db): Promise<Listed[]> {
  const rows: Record<string, unknown>[] = await store.table("projects").toArray();
  const number = (value: unknown) => (typeof value === "number" ? value : undefined);
  const listed = rows.map(({ id, name, updatedAt, exportedAt }) => ({
    id: String(id),
    name: typeof name === "string" ? name : "",
    updatedAt: number(updatedAt),
    exportedAt: number(exportedAt),
  }));
  return listed.sort((a, b) => (b.updatedAt ?? 0) - (a.updatedAt ?? 0));
}

/** The newest document of a project, or undefined where there is no such project. Throws where what is stored can not be read. */
export async function loadProject(id: string, store: EtapeDb = db): Promise<Loaded | undefined> {
  return store.transaction("r", store.projects, store.documents, store.edits, async () => {
    const row = await store.projects.get(id);
    return row && loadRow(row, store);
  });
}

async function loadRow(row: ProjectRow, store: EtapeDb): Promise<Loaded> {
  return named(row, parsed((await store.documents.get(row.id))?.document), store);
}

async function named(row: ProjectRow, project: Project, store: EtapeDb): Promise<Loaded> {
  const [last, next] = await Promise.all([store.edits.get([row.id, row.head]), store.edits.get([row.id, row.head + 1])]);
  return { project, head: row.head, revision: row.revision, undoName: last?.name, redoName: next?.name };
}

function parsed(document: unknown): Project {
  const result = readProjectData(document);
  if (result.ok) return result.project;
  const [shown, others] = [result.problems.slice(0, 3), result.problems.length - 3];
  const more = others > 0 ? `; and ${others} more` : "";
  throw new Error(`What is stored of this project can not be read: ${shown.map(problemLine).join("; ")}${more}`);
}

/**
 * Makes an edit on the newest document, whichever window wrote it, and keeps both. `known` is the document of a revision that was
 * read before; where that is still the newest, it need not be read again. Undefined where there is no such project.
 */
export async function saveEdit(id: string, edit: Edit, store: EtapeDb = db, known?: { revision: number; project: Project }): Promise<Saved | undefined> {
  return store.transaction("rw", store.projects, store.documents, store.edits, async () => {
    const row = await store.projects.get(id);
    if (!row) return undefined;
    const newest = await newestOf(row, store, known);
    const project = applyEdit(newest, edit);
    mustRead(newest, project, edit.name);
    const inverse = difference(project, newest, edit.name);
    if (changesNothing(inverse)) return { ...(await named(row, newest, store)), made: false };
    const head = row.head + 1;
    await store.edits
      .where("projectId")
      .equals(id)
      .and(({ seq }) => seq >= head || seq <= head - KEPT_EDITS)
      .delete();
    await store.edits.put({ projectId: id, seq: head, name: edit.name, edit, inverse });
    const next = await put({ ...row, head }, project, store);
    return { project, head, revision: next.revision, undoName: edit.name, redoName: undefined, made: true };
  });
}

async function newestOf(row: ProjectRow, store: EtapeDb, known: { revision: number; project: Project } | undefined): Promise<Project> {
  return known?.revision === row.revision ? known.project : parsed((await store.documents.get(row.id))?.document);
}

async function put(row: ProjectRow, project: Project, store: EtapeDb): Promise<ProjectRow> {
  const next = { ...row, name: project.name, revision: row.revision + 1, updatedAt: Date.now() };
  await store.projects.put(next);
  await store.documents.put({ projectId: row.id, document: project });
  return next;
}

function changesNothing({ lists, fields, without }: Edit): boolean {
  return [lists, fields, without].every((part) => Object.keys(part as object).length === 0);
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

/** Takes the last edit back (-1) or makes the next again (1); gives the document as it then is. Stays where there is none. */
export async function moveHead(id: string, by: 1 | -1, store: EtapeDb = db, known?: { revision: number; project: Project }): Promise<Loaded | undefined> {
  return store.transaction("rw", store.projects, store.documents, store.edits, async () => {
    const row = await store.projects.get(id);
    if (!row) return undefined;
    const newest = await newestOf(row, store, known);
    const step = await store.edits.get([id, by === -1 ? row.head : row.head + 1]);
    if (!step) return named(row, newest, store);
    const project = applyEdit(newest, editOf(step, by));
    mustRead(newest, project, step.name);
    const next = await put({ ...row, head: row.head + by }, project, store);
    return named(next, project, store);
  });
}

function editOf(row: EditRow, by: 1 | -1): Edit {
  const read = readEdit(by === 1 ? row.edit : row.inverse);
  if (read.ok) return read.edit;
  throw new Error(`“${row.name}” can not be ${by === 1 ? "made again" : "taken back"}. ${read.message}`);
}

export async function deleteProject(id: string, store: EtapeDb = db): Promise<void> {
  await store.transaction("rw", [store.projects, store.documents, store.edits, store.kept, store.files, store.pictures], async () => {
    await store.kept.where("projectId").equals(id).delete();
    await store.files.delete(id);
    await store.pictures.where("projectId").equals(id).delete();
    await store.projects.delete(id);
    await store.documents.delete(id);
    await store.edits.where("projectId").equals(id).delete();
  });
}
