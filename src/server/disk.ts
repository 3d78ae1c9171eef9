import { createHash, randomBytes } from "node:crypto";
import { type FSWatcher, readFileSync, renameSync, watch } from "node:fs";
import { open, readFile, realpath, stat, unlink } from "node:fs/promises";
import { basename, dirname, join } from "node:path";

/** What a file holds, and a short text that is another one where it holds something else. */
export interface OnDisk {
  readonly text: string;
  readonly tag: string;
}

/** Milliseconds between two looks at a file, for what a watcher misses. */
const LOOK_AGAIN = 1_000;

/**
 * One file that is written whole or not at all, and only where it still is what was read. What others write is told, whoever writes it
 * and however: in place, or by putting another file there.
 */
export class FileOnDisk {
  private queue: Promise<unknown> = Promise.resolve();
  private readonly listeners = new Set<(tag: string) => void>();
  private watcher: FSWatcher | undefined;
  private timer: ReturnType<typeof setInterval> | undefined;
  private told = "";

  /** @param path the file; through a link, the file that it leads to is written */
  constructor(readonly path: string) {}

  get name(): string {
    return basename(this.path);
  }

  /** Throws where there is no file, or it is no UTF-8. */
  async read(): Promise<OnDisk> {
    const bytes = await readFile(this.path);
    return { text: new TextDecoder("utf-8", { fatal: true }).decode(bytes), tag: tagOf(bytes) };
  }

  /** Writes the text if the file is still what `tag` says; gives the new tag, or undefined where it is something else by now. */
  async write(text: string, tag: string): Promise<string | undefined> {
    return this.inTurn(async () => {
      const path = await realpath(this.path);
      const isStill = () => tagOf(readFileSync(path)) === tag;
      if (!isStill()) return undefined;
      const bytes = Buffer.from(text, "utf8");
      if (!(await putWhole(path, bytes, isStill))) return undefined;
      this.told = tagOf(bytes);
      for (const listener of this.listeners) listener(this.told);
      return this.told;
    });
  }

  /** Calls a function whenever the file holds something else, whoever wrote it; gives what ends that. */
  listen(changed: (tag: string) => void): () => void {
    this.listeners.add(changed);
    this.begin();
    return () => {
      this.listeners.delete(changed);
      if (this.listeners.size === 0) this.end();
    };
  }

  private begin() {
    if (this.timer) return;
    const look = () => void this.look();
    this.timer = setInterval(look, LOOK_AGAIN);
    this.timer.unref();
    try {
      this.watcher = watch(dirname(this.path), look);
      this.watcher.on("error", () => this.watcher?.close());
    } catch {
      // A folder that cannot be watched is looked at all the same.
    }
    look();
  }

  private end() {
    this.watcher?.close();
    clearInterval(this.timer);
    this.watcher = undefined;
    this.timer = undefined;
  }

  private look(): Promise<void> {
    return this.inTurn(async () => {
      const bytes = await readFile(this.path).catch(() => undefined);
      const tag = bytes ? tagOf(bytes) : "";
      if (tag === this.told) return;
      const first = this.told === "";
      this.told = tag;
      if (!first && tag !== "") for (const listener of this.listeners) listener(tag);
    });
  }

  private inTurn<T>(work: () => Promise<T>): Promise<T> {
    const done = this.queue.then(work);
    this.queue = done.catch(() => undefined);
    return done;
  }
}

/**
 * Writes beside the file, has it stored, and puts it in the file's place: who reads finds the old file or the new one, whole. Asked at
 * the last moment, with nothing of this program in between, whether it may still be put there; false where it may not.
 */
async function putWhole(path: string, bytes: Buffer, mayStill: () => boolean): Promise<boolean> {
  const beside = join(dirname(path), `.${basename(path)}.${randomBytes(6).toString("hex")}.tmp`);
  const { mode } = await stat(path);
  try {
    const file = await open(beside, "wx", mode);
    try {
      await file.writeFile(bytes);
      await file.sync();
    } finally {
      await file.close();
    }
    if (mayStill()) {
      renameSync(beside, path);
      return true;
    }
    await unlink(beside);
    return false;
  } catch (error) {
    await unlink(beside).catch(() => undefined);
    throw error;
  }
}

function tagOf(bytes: Uint8Array): string {
  return createHash("sha256").update(bytes).digest("base64url").slice(0, 22);
}
