import { pictureFiles } from "../../../core/model/pictures.ts";
import { readProjectData } from "../../../core/model/read.ts";
import { db, type EtapeDb, type PictureRow } from "./db.ts";

/** Milliseconds that a picture which nothing names is kept all the same: another window may be about to name it. */
const GRACE = 60 * 60_000;

/** All pictures that are kept of a project. */
export function picturesOf(projectId: string, store: EtapeDb = db): Promise<PictureRow[]> {
  return store.pictures.where("projectId").equals(projectId).toArray();
}

/** Why so many bytes cannot be kept, as a sentence; undefined where they can, or where the browser does not say. */
export async function noRoomFor(bytes: number): Promise<string | undefined> {
  const { usage, quota } = (await navigator.storage?.estimate?.().catch(() => undefined)) ?? {};
  if (usage === undefined || quota === undefined || usage + bytes * 1.1 <= quota) return undefined;
  return `This browser has room for ${inMiB(quota - usage)} more, and the pictures need ${inMiB(bytes)}. Nothing was taken in. Delete projects that you no longer need, after exporting them, or free space on this device.`;
}

function inMiB(bytes: number): string {
  return `${Math.max(0, Math.round((bytes / 2 ** 20) * 10) / 10)} MiB`;
}

/** Keeps pictures, all or none. Rejects with a sentence where there is no room. */
export async function keepPictures(rows: readonly PictureRow[], store: EtapeDb = db): Promise<void> {
  try {
    await store.transaction("rw", store.pictures, () => store.pictures.bulkPut(rows));
  } catch (error) {
    if (!isFull(error)) throw error;
    throw new Error(
      "There is no room left in this browser for the pictures. Nothing was taken in; delete projects that you no longer need, after exporting them.",
    );
  }
}

/** Whether an error, or one that it stands for, says that there is no room. */
function isFull(error: unknown, depth = 0): boolean {
  if (typeof error !== "object" || error === null || depth > 5) return false;
  const { name, inner, failures } = error as { name?: string; inner?: unknown; failures?: unknown[] };
  return name === "QuotaExceededError" || [inner, ...(failures ?? [])].some((one) => isFull(one, depth + 1));
}

/** Deletes the pictures that neither the document nor any edit or version that is kept names; gives their files. */
export async function sweepPictures(projectId: string, now: number = Date.now(), store: EtapeDb = db): Promise<string[]> {
  return store.transaction("rw", store.documents, store.edits, store.kept, store.pictures, async () => {
    const keys = (await store.pictures
      .where("projectId")
      .equals(projectId)
      .filter(({ at }) => at < now - GRACE)
      .primaryKeys()) as Array<[string, string]>;
    if (keys.length === 0) return [];
    const document = readProjectData((await store.documents.get(projectId))?.document);
    const named = new Set(document.ok ? pictureFiles(document.project) : []);
    const others = [
      ...(await store.edits.where("projectId").equals(projectId).toArray()),
      ...(await store.kept.where("projectId").equals(projectId).toArray()),
    ];
    const text = document.ok ? JSON.stringify(others) : undefined;
    // What a document that cannot be read names is not known: everything stays.
    const gone = keys.filter(([, file]) => text !== undefined && !named.has(file) && !text.includes(JSON.stringify(file)));
    await store.pictures.bulkDelete(gone);
    return gone.map(([, file]) => file);
  });
}
