import type { Clip } from "../../../core/model/edits/clip.ts";
import { pictureFiles } from "../../../core/model/pictures.ts";
import { freshFile } from "../../../core/pictures/naming.ts";
import type { Session } from "../session.ts";
import type { PictureRow } from "../storage/db.ts";
import { keepPictures, picturesOf } from "../storage/pictures.ts";

/** A clip of another project with its pictures brought here, under other names where theirs are taken; those that are not in this browser stay behind. */
export async function withPicturesHere(session: Session, clip: Clip): Promise<{ clip: Clip; says: string[] }> {
  const there = new Map((clip.from === undefined ? [] : await picturesOf(clip.from)).map((row) => [row.file, row]));
  const taken = new Set((await picturesOf(session.id)).map(({ file }) => file));
  const files = new Map<string, string>();
  const rows: PictureRow[] = [];
  for (const file of pictureFiles(clip.document)) {
    const row = there.get(file);
    if (!row) continue;
    const name = freshFile(taken, file);
    taken.add(name);
    files.set(file, name);
    const { tag: _, ...rest } = row;
    rows.push({ ...rest, projectId: session.id, file: name, at: Date.now() });
  }
  await keepPictures(rows);
  const missing = pictureFiles(clip.document).length - files.size;
  const screens = clip.document.screens.map((screen) => {
    const { pictures, ...rest } = screen;
    const kept = pictures?.flatMap((picture) => {
      const file = files.get(picture.file);
      return file === undefined ? [] : [{ ...picture, file }];
    });
    return kept && kept.length > 0 ? { ...screen, pictures: kept } : rest;
  });
  const says = [
    ...(rows.length > 0 ? [`${rows.length === 1 ? "One picture" : `${rows.length} pictures`} came along.`] : []),
    ...(missing > 0 ? [`${missing === 1 ? "One picture is" : `${missing} pictures are`} not in this browser and stayed behind.`] : []),
  ];
  return { clip: { ...clip, document: { ...clip.document, screens } }, says };
}
