import { useLiveQuery } from "dexie-react-hooks";
import { useEffect, useState } from "react";
import type { Binding, BindingState } from "../session/file/binding.ts";
import { inStep } from "../session/file/start.ts";
import { useDocument, useSession } from "../session/hooks.ts";
import { db } from "../session/storage/db.ts";
import { asSentence } from "../session/storage/trouble.ts";
import { Button } from "../ui/Button.tsx";
import { Dialog } from "../ui/Dialog.tsx";

/** Edits after which a project is worth a word where it is in this browser alone, and days after which an export is old. */
const WORTH = 30;
const OLD = 7;
const DAY = 86_400_000;

/** Where the project is kept: the file that it is in step with, or how long ago it was exported. */
export function FileState() {
  const { id } = useSession();
  const file = useLiveQuery(async () => ({ name: (await db.files.get(id))?.name }), [id]);
  return (
    <>
      <Unsaved />
      {file && (file.name === undefined ? <LastExport id={id} /> : <Bound key={file.name} name={file.name} />)}
    </>
  );
}

/** What helps where the browser does not store what is shown; and a question before the page is left with something that is not stored. */
function Unsaved() {
  const session = useSession();
  const { unsaved, saving, error, undoName, again } = useDocument();
  const told = unsaved && error;
  useEffect(() => {
    if (told) session.notices.getState().say(asSentence(told));
  }, [session, told]);
  const lossy = saving || unsaved !== undefined || (db.refused !== undefined && undoName !== undefined);
  useEffect(() => {
    if (!lossy) return;
    const ask = (event: BeforeUnloadEvent) => event.preventDefault();
    window.addEventListener("beforeunload", ask);
    return () => window.removeEventListener("beforeunload", ask);
  }, [lossy]);
  if (unsaved === undefined) return null;
  return (
    <Button tone="link" onClick={again}>
      {unsaved === "gone" ? "Keep it again" : "Try again"}
    </Button>
  );
}

/** A quiet word where much was done since the last export; browsers may clear what they keep. */
function LastExport({ id }: { id: string }) {
  const session = useSession();
  const row = useLiveQuery(() => db.projects.get(id), [id]);
  useEffect(() => {
    const stop = session.document.subscribe(({ project }, before) => {
      if (project === before.project) return;
      stop();
      // So that the browser does not clear it when it needs room.
      void navigator.storage?.persist?.();
    });
    return stop;
  }, [session]);
  if (!row || row.head < WORTH) return null;
  const days = row.exportedAt === undefined ? undefined : Math.floor((Date.now() - row.exportedAt) / DAY);
  if (days !== undefined && days < OLD) return null;
  return (
    <span
      data-testid="exported"
      className="min-w-0 truncate text-[11.5px] text-ink-2"
      title="This project is in this browser alone. Export it, or keep it in a file (Find, do… › Keep in a file)."
    >
      {days === undefined ? "never exported" : `exported ${days} days ago`}
    </span>
  );
}

const SAYS: Record<BindingState["status"], string> = { saving: "…", saved: "✓", unreadable: "can not be read", failed: "is not saved" };

/** The file that the project is kept in step with: whether it is saved, and what to choose where both were changed. */
function Bound({ name }: { name: string }) {
  const session = useSession();
  const [state, setState] = useState<BindingState>();
  const [binding, setBinding] = useState<Binding>();
  useEffect(() => inStep(session, setState, setBinding), [session]);
  // The head has room for a few words; all of it is said where there is more.
  const message = state?.message;
  useEffect(() => {
    if (message !== undefined) session.notices.getState().say(message);
  }, [session, message]);
  if (!state || !binding)
    return (
      <span data-testid="file" title={`Another window keeps ${name} in step`} className="min-w-0 truncate font-mono text-[11px] text-ink-2">
        {name}
      </span>
    );
  const wrong = state.status === "failed" || state.status === "unreadable";
  return (
    <>
      <span
        role="status"
        data-testid="file"
        title={state.message ?? `Every edit is written to ${state.name}; what changes in it comes in`}
        className={`min-w-0 max-w-[260px] truncate font-mono text-[11px] ${wrong ? "text-urgent" : "text-ink-2"}`}
      >
        {state.name} {SAYS[state.status]}
      </span>
      {state.status === "failed" && (
        <Button tone="link" onClick={() => void binding.allow()}>
          Try again
        </Button>
      )}
      {state.differing && <Differing binding={binding} name={state.name} differing={state.differing} />}
    </>
  );
}

/** What was changed here and in the file, and differently. */
function Differing({ binding, name, differing: { conflicts } }: { binding: Binding; name: string; differing: NonNullable<BindingState["differing"]> }) {
  return (
    <Dialog title={`Changed here and in ${name}`} open wide onClose={() => binding.keepOurs()}>
      <p className="m-0 mb-2 text-[12.5px] text-ink-2">
        All else is merged. Where both changed the same and differently, what is here stands until you choose.
      </p>
      <ul className="m-0 mb-3 max-h-56 list-none overflow-y-auto border-hairline border-y p-0 text-[12.5px]">
        {conflicts.map(({ where, field, says }) => (
          <li key={`${where} ${field} ${says}`} className="border-hairline border-b py-1 last:border-b-0">
            <span className="font-semibold">
              {where}
              {field === "" ? "" : `, ${field}`}
            </span>
            <span className="block text-ink-2">{says}</span>
          </li>
        ))}
      </ul>
      <div className="flex gap-2">
        <Button tone="main" onClick={() => binding.keepOurs()}>
          Keep what is here
        </Button>
        <Button onClick={() => binding.takeTheirs()}>Take what the file had</Button>
      </div>
    </Dialog>
  );
}
