import * as z from "zod";
import { pictureFiles } from "../../../core/model/pictures.ts";
import type { Session } from "../session.ts";
import { db, type PictureRow } from "../storage/db.ts";
import { preparedRows } from "../storage/packed.ts";
import { keepPictures, picturesOf } from "../storage/pictures.ts";

const Listed = z.array(z.object({ file: z.string(), tag: z.string() }));
const Tagged = z.object({ tag: z.string() });
/** Milliseconds for which changes are gathered. */
const GATHER = 150;

const addressOf = (file: string) => `/live/pictures/${file.split("/").map(encodeURIComponent).join("/")}`;

/**
 * Keeps the pictures of an open project and the folder beside its file in step: what is new in either comes into the other, and what
 * changes in the folder is what holds. Gives what is called when something changed in the folder, and what ends it.
 */
export function picturesInStep(session: Session): { changed: () => void; close: () => void } {
  let timer: ReturnType<typeof setTimeout> | undefined;
  let turn: Promise<void> = Promise.resolve();
  let ended = false;
  const soon = () => {
    clearTimeout(timer);
    if (!ended) timer = setTimeout(() => (turn = turn.then(() => step(session)).catch(() => undefined)), GATHER);
  };
  const ends = [
    session.pictures.subscribe(({ rows }, before) => rows !== before.rows && soon()),
    session.document.subscribe(({ project }, before) => project !== before.project && soon()),
  ];
  soon();
  return {
    changed: soon,
    close: () => {
      ended = true;
      clearTimeout(timer);
      for (const end of ends) end();
    },
  };
}

async function step(session: Session): Promise<void> {
  const response = await fetch("/live/pictures");
  if (!response.ok) return;
  const onDisk = new Map(Listed.parse(await response.json()).map(({ file, tag }) => [file, tag]));
  const rows = new Map((await picturesOf(session.id)).map((row) => [row.file, row]));
  const named = new Set(pictureFiles(session.document.getState().project));
  await takeIn(
    [...onDisk].filter(([file, tag]) => named.has(file) && rows.get(file)?.tag !== tag),
    session,
  );
  for (const row of rows.values()) {
    if (onDisk.has(row.file) || !named.has(row.file)) continue;
    // What was in the folder and is gone was deleted there; what never was comes from here.
    if (row.tag !== undefined) await db.pictures.delete([session.id, row.file]);
    else await putOut(row);
  }
}

async function takeIn(files: Array<[file: string, tag: string]>, session: Session): Promise<void> {
  if (files.length === 0) return;
  const read = await Promise.all(
    files.map(async ([file]) => {
      const response = await fetch(addressOf(file));
      return response.ok ? ([[file, await response.blob()]] as const) : [];
    }),
  );
  const { rows } = await preparedRows(session.id, new Map(read.flat()));
  const tags = new Map(files);
  await keepPictures(rows.map((row): PictureRow => ({ ...row, tag: tags.get(row.file) ?? "" })));
}

async function putOut(row: PictureRow): Promise<void> {
  const response = await fetch(addressOf(row.file), { method: "PUT", body: row.bytes });
  if (response.ok) await db.pictures.update([row.projectId, row.file], { tag: Tagged.parse(await response.json()).tag });
}
