import { readProjectData } from "../../../core/model/read.ts";
import type { Session } from "../session.ts";
import { db } from "../storage/db.ts";
import { Binding, type BindingState } from "./binding.ts";
import { type Disk, handleDisk, serverDisk } from "./disk.ts";

/** How long lines of a running app are gathered before they are followed, in milliseconds. */
const GATHER = 60;

/** Keeps an open project and its file in step, where it has one; undefined where it has none. */
export async function startBinding(session: Session, tell: (state: BindingState) => void): Promise<Binding | undefined> {
  const row = await db.files.get(session.id);
  if (!row) return undefined;
  const base = readProjectData(row.base);
  const disk: Disk = row.handle ? handleDisk(row.handle) : serverDisk(row.name, gathered(session));
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
