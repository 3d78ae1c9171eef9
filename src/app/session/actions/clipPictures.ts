import type { Clip } from "../../../core/model/edits/clip.ts";
import { pictureFiles } from "../../../core/model/pictures.ts";
import type { Session } from "../session.ts";
import { keptUnderFreeNames, withFiles } from "../storage/packed.ts";
import { picturesOf } from "../storage/pictures.ts";

/** A clip of another project with its pictures brought here, under other names where theirs are taken; those that are not in this browser stay behind. */
export async function withPicturesHere(session: Session, clip: Clip): Promise<{ clip: Clip; says: string[] }> {
  const named = new Set(pictureFiles(clip.document));
  const rows = (clip.from === undefined ? [] : await picturesOf(clip.from)).filter(({ file }) => named.has(file));
  const names = await keptUnderFreeNames(session.id, rows);
  const missing = named.size - names.size;
  const says = [
    ...(names.size > 0 ? [`${names.size === 1 ? "One picture" : `${names.size} pictures`} came along.`] : []),
    ...(missing > 0 ? [`${missing === 1 ? "One picture is" : `${missing} pictures are`} not in this browser and stayed behind.`] : []),
  ];
  return { clip: { ...clip, document: withFiles(clip.document, (file) => names.get(file)) }, says };
}
