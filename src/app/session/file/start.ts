import { readProjectData } from "../../../core/model/read.ts";
import type { Session } from "../session.ts";
import { db, type FileRow } from "../storage/db.ts";
import { Binding, type BindingState } from "./binding.ts";
import { type Disk, handleDisk, serverDisk } from "./disk.ts";

/** How long lines of a running app are gathered before they are followed, in milliseconds. */
const GATHER = 60;

/**
 * Keeps an open project and its file in step, in one of the windows that have it open: they share the document, so one is enough. When
 * that window is closed another goes on. Gives what ends it.
 */
export function inStep(session: Session, tell: (state: BindingState) => void, begun: (binding: Binding | undefined) => void): () => void {
  const waiting = new AbortController();
  let end = () => waiting.abort();
  const work = async () => {
    const ended = new Promise<void>((done) => {
      end = done;
    });
    const row = await db.files.get(session.id);
    const pictures = row && !row.handle ? (await import("./pictures.ts")).picturesInStep(session) : undefined;
    const binding = row && startBinding(session, row, tell, () => pictures?.changed());
    begun(binding);
    await ended;
    pictures?.close();
    await binding?.close();
  };
  const asked = { signal: waiting.signal };
  // Who no longer waits is told by a rejection.
  void navigator.locks.request(`etape file ${session.id}`, asked, work).catch(() => undefined);
  return () => end();
}

function startBinding(session: Session, row: FileRow, tell: (state: BindingState) => void, pictures: () => void): Binding {
  const base = readProjectData(row.base);
  const disk: Disk = row.handle ? handleDisk(row.handle) : serverDisk(row.name, gathered(session), pictures);
  const keep = (project: unknown) => void db.files.update(session.id, { base: project });
  const document = session.document.getState().project;
  return new Binding(session.document, disk, base.ok ? base.project : document, keep, tell);
}

/** Lines of a running app, some at a time. */
function gathered(session: Session): (line: string) => void {
  let lines: string[] = [];
  return (line) => {
    if (lines.length === 0)
      setTimeout(() => {
        const some = lines;
        lines = [];
        const { choice, choose } = session.lensing.getState();
        if (choice.lens !== "followed") choose({ lens: "followed" });
        session.following.getState().take("the running app", some);
      }, GATHER);
    lines.push(line);
  };
}
