import { liveQuery, type Subscription } from "dexie";
import type { Edit } from "../../core/model/edits/edit.ts";
import { applyEdit } from "../../core/model/edits/kinds.ts";
import { sameValue } from "../../core/model/json.ts";
import type { Project } from "../../core/model/schema.ts";
import { db, type EtapeDb } from "./storage/db.ts";
import { type Loaded, loadProject, moveHead, saveEdit, unreadable } from "./storage/projects.ts";

/** What is known of a project's document while it is open. */
export interface Kept {
  project: Project | undefined;
  status: "loading" | "ready" | "missing" | "failed";
  saving: boolean;
  error: string | undefined;
  undoName: string | undefined;
  redoName: string | undefined;
}

const OPENING: Kept = { project: undefined, status: "loading", saving: false, error: undefined, undoName: undefined, redoName: undefined };

/**
 * The document of one open project: what is shown, the saves that are still to be made, and what other windows did to it.
 * Everything that is queued belongs to it, so that nothing of one project can be shown or stored as another's.
 */
export class Keeping {
  state: Kept = OPENING;
  /** The document of the newest revision that was read or saved here. */
  private newest: Loaded | undefined;
  private pending = 0;
  private queue: Promise<void> = Promise.resolve();
  private readonly subscription: Subscription;
  private closed = false;

  /**
   * @param id the project's id in the browser's storage
   * @param tell is given the state whenever it changes, until it is closed
   * @param loaded the document, where it was read already
   */
  constructor(
    readonly id: string,
    private readonly tell: (state: Kept) => void,
    private readonly store: EtapeDb = db,
    loaded?: Loaded,
  ) {
    if (loaded) this.take(loaded);
    else this.inTurn(() => loadProject(id, store));
    this.subscription = liveQuery(() => store.projects.get(id)).subscribe({
      next: (row) => {
        if (row && this.pending === 0 && this.newest && row.revision !== this.newest.revision) this.inTurn(() => loadProject(id, store));
      },
      error: (error: unknown) => this.set({ error: `not saved: ${words(error)}` }),
    });
  }

  /** Makes an edit at once and saves it; where another window was faster, it is made on that window's document. An edit that changes nothing is none. */
  apply(edit: Edit) {
    const { project } = this.state;
    if (!project || this.state.status !== "ready") return;
    const next = this.made(edit, project);
    if (!next || sameValue(next, project)) return;
    const why = unreadable(project, next, edit.name);
    if (why !== undefined) {
      this.set({ error: why });
      return;
    }
    this.set({ project: next, undoName: edit.name, redoName: undefined, error: undefined });
    this.inTurn(async () => {
      const saved = await saveEdit(this.id, edit, this.store, this.newest);
      if (saved && !saved.made) this.set({ error: `“${edit.name}” was not made: another window changed or deleted what it is about` });
      return saved;
    });
  }

  private made(edit: Edit, project: Project): Project | undefined {
    try {
      return applyEdit(project, edit);
    } catch (error) {
      this.set({ error: `“${edit.name}” could not be made: ${words(error)}` });
      return undefined;
    }
  }

  undo() {
    if (this.state.undoName !== undefined) this.inTurn(() => moveHead(this.id, -1, this.store, this.newest));
  }

  redo() {
    if (this.state.redoName !== undefined) this.inTurn(() => moveHead(this.id, 1, this.store, this.newest));
  }

  /** What is queued is still saved; nothing more is told. Settles when all of it is stored. */
  close(): Promise<void> {
    this.closed = true;
    this.subscription.unsubscribe();
    return this.queue;
  }

  private set(part: Partial<Kept>) {
    this.state = { ...this.state, ...part };
    if (!this.closed) this.tell(this.state);
  }

  private inTurn(work: () => Promise<Loaded | undefined>) {
    this.pending += 1;
    if (this.newest) this.set({ saving: true });
    this.queue = this.queue
      .then(work)
      .then((loaded) => this.take(loaded))
      .catch((error: unknown) => this.recover(error))
      .finally(() => {
        this.pending -= 1;
        this.set({ saving: this.pending > 0 });
      });
  }

  /** What was saved is shown when nothing else waits to be saved; until then the page is ahead of it. */
  private take(loaded: Loaded | undefined) {
    if (!loaded) {
      this.set({ status: "missing" });
      return;
    }
    this.newest = loaded;
    if (this.pending > 1) return;
    const shown = this.state.project;
    // What was saved is what is shown already, but for edits of another window: then nothing needs drawing or checking again.
    const project = shown && sameValue(shown, loaded.project) ? shown : loaded.project;
    this.set({ project, status: "ready", undoName: loaded.undoName, redoName: loaded.redoName });
  }

  /** After a save that failed, what is stored is shown again, with what went wrong; it is the last good document. */
  private async recover(error: unknown) {
    const stored = this.newest && (await loadProject(this.id, this.store).catch(() => undefined));
    if (stored) this.take(stored);
    const told = `not saved: ${words(error)}`;
    this.set(stored ? { error: told } : { status: this.state.project ? "ready" : "failed", error: told });
  }
}

function words(error: unknown): string {
  return error instanceof Error ? error.message : String(error);
}
