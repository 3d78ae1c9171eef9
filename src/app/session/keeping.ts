import { liveQuery, type Subscription } from "dexie";
import type { Edit } from "../../core/model/edits/edit.ts";
import { applyEdit } from "../../core/model/edits/kinds.ts";
import { sameValue } from "../../core/model/json.ts";
import type { Project } from "../../core/model/schema.ts";
import { db, type EtapeDb } from "./storage/db.ts";
import { createProject, type Loaded, loadProject, moveHead, saveEdit, unreadable } from "./storage/projects.ts";
import { ofStorage, storageWords } from "./storage/trouble.ts";

/** What is known of a project's document while it is open. */
export interface Kept {
  project: Project | undefined;
  status: "loading" | "ready" | "missing" | "failed";
  saving: boolean;
  /** What is shown is not all stored: the storage failed, or has this project no more. `again` stores it. */
  unsaved: "failed" | "gone" | undefined;
  error: string | undefined;
  undoName: string | undefined;
  redoName: string | undefined;
}

const OPENING: Kept = { project: undefined, status: "loading", saving: false, unsaved: undefined, error: undefined, undoName: undefined, redoName: undefined };

/**
 * The document of one open project: what is shown, the saves that are still to be made, and what other windows did to it.
 * Everything that is queued belongs to it, so that nothing of one project can be shown or stored as another's.
 */
export class Keeping {
  state: Kept = OPENING;
  /** The document of the newest revision that was read or saved here. */
  private newest: Loaded | undefined;
  /** Edits that are shown and not stored yet, oldest first. */
  private waiting: Edit[] = [];
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
        if (this.pending === 0 && this.newest && row?.revision !== this.newest.revision) this.inTurn(() => loadProject(id, store));
      },
      error: (error: unknown) => this.set({ error: `not saved: ${storageWords(error)}` }),
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
    this.waiting.push(edit);
    this.inTurn(() => this.save());
  }

  /** Stores what waits, in order. What the storage could not take still waits afterwards; what can't be made on the newest document does not. */
  private async save(): Promise<Loaded | undefined> {
    let saved: Loaded | undefined = this.newest;
    for (let edit = this.waiting[0]; edit; edit = this.waiting[0]) {
      try {
        const made = await saveEdit(this.id, edit, this.store, this.newest);
        if (!made) return undefined;
        if (!made.made) this.set({ error: `“${edit.name}” was not made: another window changed or deleted what it is about` });
        saved = made;
        this.newest = made;
      } catch (error) {
        if (!ofStorage(error)) this.waiting.shift();
        throw error;
      }
      this.waiting.shift();
    }
    return saved;
  }

  /** Stores what is shown, after the storage failed or lost the project. */
  again() {
    const { unsaved, project } = this.state;
    if (unsaved === "failed") this.inTurn(() => this.save());
    if (unsaved !== "gone" || !project) return;
    this.waiting = [];
    this.inTurn(async () => {
      await createProject(project, this.store, this.id);
      return loadProject(this.id, this.store);
    });
  }

  private made(edit: Edit, project: Project): Project | undefined {
    try {
      return applyEdit(project, edit);
    } catch (error) {
      this.set({ error: `“${edit.name}” could not be made: ${storageWords(error)}` });
      return undefined;
    }
  }

  undo() {
    if (this.state.unsaved !== undefined) this.forgetLast();
    else if (this.state.undoName !== undefined) this.inTurn(() => moveHead(this.id, -1, this.store, this.newest));
  }

  redo() {
    if (this.state.redoName !== undefined) this.inTurn(() => moveHead(this.id, 1, this.store, this.newest));
  }

  /** Takes back the last edit that is not stored. */
  private forgetLast() {
    this.waiting.pop();
    if (this.newest) this.set({ project: this.ahead(this.newest.project), undoName: this.waiting.at(-1)?.name });
  }

  /** A document with what waits to be stored; an edit that can't be made on it is left out. */
  private ahead(project: Project): Project {
    return this.waiting.reduce((made, edit) => this.made(edit, made) ?? made, project);
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
      // What is shown is the last that there is of it.
      this.set(this.newest ? { unsaved: "gone", error: GONE, undoName: undefined, redoName: undefined } : { status: "missing" });
      return;
    }
    this.newest = loaded;
    if (this.pending > 1) return;
    const shown = this.state.project;
    const now = this.ahead(loaded.project);
    // What was saved is what is shown already, except for edits of another window: then nothing needs drawing or checking again.
    const project = shown && sameValue(shown, now) ? shown : now;
    const stored = this.waiting.length === 0 ? { unsaved: undefined, ...(this.state.unsaved && { error: undefined }) } : {};
    this.set({ project, status: "ready", undoName: this.waiting.at(-1)?.name ?? loaded.undoName, redoName: loaded.redoName, ...stored });
  }

  /**
   * After a save that failed: where the storage failed, what is shown stays, and waits to be stored. Else what is stored is shown again,
   * with what went wrong; it is the last good document.
   */
  private async recover(error: unknown) {
    const told = `not saved: ${storageWords(error)}`;
    if (ofStorage(error) && this.newest) {
      this.set({ unsaved: "failed", error: told, redoName: undefined });
      return;
    }
    const stored = this.newest && (await loadProject(this.id, this.store).catch(() => undefined));
    if (stored) this.take(stored);
    this.set(stored ? { error: told } : { status: this.state.project ? "ready" : "failed", error: told });
  }
}

const GONE = "not saved: this project was deleted in another window, or the browser cleared it. It is still on this page: keep it again, or export it.";
