import { nameOf } from "../../../core/model/lookup.ts";
import { PICTURE_BYTES } from "../../../core/pictures/header.ts";
import { type Incoming, takePictures, type Where } from "../../../core/pictures/take.ts";
import type { Prepared } from "../../worker/pictureProtocol.ts";
import { PictureWorkers } from "../../worker/pictures.ts";
import { placeOf } from "../selection.ts";
import type { Session } from "../session.ts";
import type { PictureRow } from "../storage/db.ts";
import { keepPictures, noRoomFor } from "../storage/pictures.ts";

/** Milliseconds for which it is said that all went well. */
const SAID = 4_000;

/** Takes in pictures that were dropped, pasted or chosen, onto a screen or each for the screen of its name; says what was refused. */
export async function takeFiles(session: Session, files: readonly File[], where: Where = {}): Promise<void> {
  const { say } = session.notices.getState();
  const sorted = [...files].sort((a, b) => a.name.localeCompare(b.name, undefined, { numeric: true }));
  const refused: string[] = [];
  const able = sorted.filter((file) => {
    const small = file.size <= PICTURE_BYTES;
    if (!small) refused.push(`${file.name}: It has ${(file.size / 2 ** 20).toFixed(1)} MiB; a picture may have 4.`);
    return small;
  });
  const full = await noRoomFor(able.reduce((sum, file) => sum + file.size, 0));
  if (full !== undefined) return say("The pictures were not taken in.", [full]);
  const ready = await prepareAll(session, able, refused);
  const shown = refused.slice(0, 8);
  if (refused.length > shown.length) shown.push(`And ${refused.length - shown.length} more.`);
  if (ready.length === 0) return say(refused.length === 1 ? "The file was not taken in." : "No file was taken in.", shown);
  const { project, apply } = session.document.getState();
  const incoming = ready.map(({ file, prepared }): Incoming => ({ name: file.name, kind: prepared.kind, size: prepared.size }));
  const taken = takePictures(project, incoming, {
    ...where,
    beside: placeOf(project, session.selection.getState().selected),
    taken: session.pictures.getState().rows?.keys() ?? [],
  });
  await nextFrame();
  const at = Date.now();
  const rows = ready.flatMap(({ file, prepared }, i): PictureRow[] => {
    const name = taken.files[i];
    return name === undefined ? [] : [{ projectId: session.id, file: name, ...prepared, bytes: file.slice(0, file.size, file.type), at }];
  });
  try {
    await keepPictures(rows);
  } catch (error) {
    return say("The pictures were not taken in.", [error instanceof Error ? error.message : String(error)]);
  }
  await nextFrame();
  apply(taken.edit);
  // With the first pictures the map shows faces: so they are recognised at once.
  if (!project.screens.some((screen) => screen.pictures)) session.seeing.getState().draw("faces");
  const first = taken.made[0] ?? taken.given[0];
  if (first !== undefined && rows.length === 1) session.selection.getState().select({ kind: "place", id: first });
  const parts = [
    ...(taken.made.length > 0 ? [`${counted(taken.made.length, "new screen")}`] : []),
    ...(taken.given.length > 0
      ? [
          taken.given.length === 1
            ? `a picture for “${nameOf(session.document.getState().project, taken.given[0] ?? "")}”`
            : `pictures for ${taken.given.length} screens`,
        ]
      : []),
  ];
  const title = `Taken in: ${parts.join(" and ")}.`;
  const lines = [...taken.says, ...shown.map((line) => `Not taken in: ${line}`)];
  say(title, lines);
  // What can be seen anyway need not be closed by hand.
  if (lines.length === 0) setTimeout(() => session.notices.getState().title === title && session.notices.getState().close(), SAID);
}

/** Lets the page draw between two pieces of work. */
function nextFrame(): Promise<void> {
  return new Promise((done) => setTimeout(done, 16));
}

function counted(n: number, what: string): string {
  return n === 1 ? `one ${what}` : `${n} ${what}s`;
}

async function prepareAll(session: Session, files: readonly File[], refused: string[]): Promise<Array<{ file: File; prepared: Prepared }>> {
  const workers = new PictureWorkers();
  let done = 0;
  const tell = () => session.pictures.setState({ taking: { done, of: files.length } });
  tell();
  try {
    const all = await Promise.all(
      files.map(async (file) => {
        const answer = await workers.prepare(file);
        done += 1;
        tell();
        if (answer.ok) return [{ file, prepared: answer.prepared }];
        refused.push(`${file.name}: ${answer.message}`);
        return [];
      }),
    );
    return all.flat();
  } finally {
    workers.close();
    session.pictures.setState({ taking: undefined });
  }
}

/** Files that are dropped or pasted: all that could be meant as pictures. Of others, and of text, there are none. */
export function picturesIn(data: DataTransfer | null): File[] {
  return [...(data?.files ?? [])].filter((file) => file.type.startsWith("image/") || /\.(png|jpe?g|webp|avif|svg|gif|bmp|heic|tiff?)$/i.test(file.name));
}

/** Lets a person choose pictures, and takes them in. */
export function choosePictures(session: Session, where: Where = {}): Promise<void> {
  const input = document.createElement("input");
  input.type = "file";
  input.multiple = true;
  input.accept = "image/png,image/jpeg,image/webp,image/avif";
  return new Promise((done) => {
    input.addEventListener("change", () => void takeFiles(session, [...(input.files ?? [])], where).finally(done));
    input.addEventListener("cancel", () => done());
    input.click();
  });
}
