import { useEffect, useState } from "react";
import { lookup, nameOf } from "../../../core/model/lookup.ts";
import { picturesIn, takeFiles } from "../../session/actions/takingPictures.ts";
import { useDocument, usePictures, useSession } from "../../session/hooks.ts";
import { placeOf } from "../../session/selection.ts";
import { sweepPictures } from "../../session/storage/pictures.ts";

/** Takes in pictures that are dropped anywhere on an open project, or pasted; tells where a drop would go, and how far it has come. */
export function TakesPictures() {
  const session = useSession();
  const project = useDocument((d) => d.project);
  const taking = usePictures((p) => p.taking);
  const [over, setOver] = useState<{ place: string | undefined }>();
  useEffect(() => {
    void sweepPictures(session.id).catch(() => undefined);
  }, [session]);
  useEffect(() => {
    const hasFiles = (event: DragEvent) => event.dataTransfer?.types.includes("Files") === true;
    const screenAt = (event: Event): string | undefined => {
      const place = event.target instanceof Element ? event.target.closest("[data-place]")?.getAttribute("data-place") : undefined;
      return place && lookup(session.document.getState().project).screens.has(place) ? place : undefined;
    };
    const dragged = (event: DragEvent) => {
      if (!hasFiles(event)) return;
      event.preventDefault();
      setOver({ place: screenAt(event) });
    };
    const left = (event: DragEvent) => event.relatedTarget === null && setOver(undefined);
    const dropped = (event: DragEvent) => {
      if (!hasFiles(event)) return;
      event.preventDefault();
      setOver(undefined);
      const files = picturesIn(event.dataTransfer);
      if (files.length > 0) void takeFiles(session, files, { onto: screenAt(event) });
      else
        session.notices.getState().say("Nothing was taken in: a project takes pictures (PNG, JPEG, WebP or AVIF). Open documents from the list of projects.");
    };
    const pasted = (event: ClipboardEvent) => {
      const files = picturesIn(event.clipboardData);
      if (files.length === 0) return;
      event.preventDefault();
      const { project: now } = session.document.getState();
      // The picture of the chosen screen, where that has none; else a screen of its own, so that one after another can be pasted.
      const chosen = lookup(now).screens.get(placeOf(now, session.selection.getState().selected) ?? "");
      const onto = chosen && !chosen.pictures ? chosen.id : undefined;
      const known = new Set(now.screens.map(({ name }) => name));
      const named = files.map((file) => withName(file, known));
      void takeFiles(session, named, { onto });
    };
    window.addEventListener("dragover", dragged);
    window.addEventListener("dragleave", left);
    window.addEventListener("drop", dropped);
    window.addEventListener("paste", pasted, { capture: true });
    return () => {
      window.removeEventListener("dragover", dragged);
      window.removeEventListener("dragleave", left);
      window.removeEventListener("drop", dropped);
      window.removeEventListener("paste", pasted, { capture: true });
    };
  }, [session]);
  const says = taking
    ? `Taking in pictures: ${taking.done} of ${taking.of}…`
    : over?.place !== undefined
      ? `Drop here: the picture of “${nameOf(project, over.place)}”. Several go to the screens of their names.`
      : over
        ? "Drop anywhere: each picture becomes a screen of its name, or the picture of the screen that has it. On a screen: its picture."
        : undefined;
  if (says === undefined) return null;
  return (
    <div role="status" className="pointer-events-none fixed inset-x-0 top-14 z-40 flex justify-center">
      <p className="m-0 border border-accent bg-sheet px-3 py-2 text-[13px] shadow-[0_8px_24px_var(--lift)]">{says}</p>
    </div>
  );
}

/** A picture on the clipboard has no name of its own: it gets one that no screen has. */
function withName(file: File, known: Set<string>): File {
  if (!/^image\.\w+$/.test(file.name)) return file;
  let n = 1;
  while (known.has(`Screen ${n}`)) n += 1;
  known.add(`Screen ${n}`);
  return new File([file], `Screen ${n}.${file.name.split(".").at(-1)}`, { type: file.type });
}
