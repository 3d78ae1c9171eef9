import { pictureFiles } from "../../../core/model/pictures.ts";
import type { Project } from "../../../core/model/schema.ts";
import { writeProject } from "../../../core/model/write.ts";
import { freshFile } from "../../../core/pictures/naming.ts";
import { PictureWorkers } from "../../worker/pictures.ts";
import { db, type PictureRow } from "./db.ts";
import { keepPictures, noRoomFor, picturesOf } from "./pictures.ts";
import { createProject } from "./projects.ts";

/** Pictures looked at, made small and ready to be kept; and the files that were refused, each with a sentence. */
export async function preparedRows(projectId: string, pictures: ReadonlyMap<string, Blob>): Promise<{ rows: PictureRow[]; refused: string[] }> {
  const workers = new PictureWorkers();
  const refused: string[] = [];
  try {
    const all = await Promise.all(
      [...pictures].map(async ([file, bytes]): Promise<PictureRow[]> => {
        const answer = await workers.prepare(bytes);
        if (answer.ok) return [{ projectId, file, ...answer.prepared, bytes, at: Date.now() }];
        refused.push(`The picture ${file}: ${answer.message}`);
        return [];
      }),
    );
    return { rows: all.flat(), refused };
  } finally {
    workers.close();
  }
}

/** Adds a project with its pictures; gives its id, and what was refused. Nothing is added where there is no room for them. */
export async function createWithPictures(project: Project, pictures: ReadonlyMap<string, Blob>): Promise<{ id: string; refused: string[] }> {
  const full = await noRoomFor([...pictures.values()].reduce((sum, { size }) => sum + size, 0));
  if (full !== undefined) throw new Error(full);
  const id = crypto.randomUUID();
  const named = new Set(pictureFiles(project));
  const { rows, refused } = await preparedRows(id, new Map([...pictures].filter(([file]) => named.has(file))));
  await keepPictures(rows);
  await createProject(project, db, id);
  return { id, refused };
}

/**
 * A document from elsewhere with its pictures kept in a project that is there; see {@link keptUnderFreeNames}. What was refused is told.
 */
export async function withPicturesKept(
  projectId: string,
  project: Project,
  pictures: ReadonlyMap<string, Blob>,
): Promise<{ project: Project; refused: string[] }> {
  const named = new Set(pictureFiles(project));
  const { rows, refused } = await preparedRows(projectId, new Map([...pictures].filter(([file]) => named.has(file))));
  const names = await keptUnderFreeNames(projectId, rows);
  return { project: withFiles(project, (file) => names.get(file) ?? file), refused };
}

/**
 * Keeps pictures of elsewhere in a project: under another name where another picture has theirs, so that what the project shows now stays.
 * Gives the names, by those that they had.
 */
export async function keptUnderFreeNames(projectId: string, rows: readonly PictureRow[]): Promise<Map<string, string>> {
  const there = new Map((await picturesOf(projectId)).map((row) => [row.file, row]));
  const taken = new Set(there.keys());
  const names = new Map<string, string>();
  const fresh: PictureRow[] = [];
  for (const { tag: _, ...row } of rows) {
    const old = there.get(row.file);
    const same = old !== undefined && (await sameBytes(old.bytes, row.bytes));
    const file = same ? row.file : freshFile(taken, row.file);
    taken.add(file);
    names.set(row.file, file);
    if (!same) fresh.push({ ...row, projectId, file, at: Date.now() });
  }
  await keepPictures(fresh);
  return names;
}

/** A document whose pictures are in other files; those for which there is none are left out. */
export function withFiles(project: Project, fileFor: (file: string) => string | undefined): Project {
  const screens = project.screens.map((screen) => {
    const { pictures, ...rest } = screen;
    const kept = (pictures ?? []).flatMap((picture) => {
      const file = fileFor(picture.file);
      return file === undefined ? [] : [{ ...picture, file }];
    });
    return kept.length > 0 ? { ...screen, pictures: kept } : rest;
  });
  return { ...project, screens };
}

async function sameBytes(a: Blob, b: Blob): Promise<boolean> {
  if (a.size !== b.size) return false;
  const [x, y] = [new Uint8Array(await a.arrayBuffer()), new Uint8Array(await b.arrayBuffer())];
  return x.every((byte, i) => byte === y[i]);
}

/** The file `NAME.etape.zip` of a project, with those of its pictures that are kept. */
export async function packedProject(projectId: string, name: string, project: Project): Promise<Uint8Array<ArrayBuffer>> {
  const { packed } = await import("../../../core/pictures/zip.ts");
  const named = new Set(pictureFiles(project));
  const rows = (await picturesOf(projectId)).filter(({ file }) => named.has(file));
  const bytes = await Promise.all(rows.map(async (row) => [row.file, new Uint8Array(await row.bytes.arrayBuffer())] as const));
  return new Uint8Array(packed({ name, text: writeProject(project), pictures: new Map(bytes) }));
}
