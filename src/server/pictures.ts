import { randomBytes } from "node:crypto";
import { mkdir, readdir, readFile, realpath, rename, stat, unlink, writeFile } from "node:fs/promises";
import { dirname, join, sep } from "node:path";

/** A picture in the folder, with a short text that is another one where the file is. */
export interface PictureOnDisk {
  file: string;
  tag: string;
}

/** Milliseconds between two looks at the folder. */
const LOOK_AGAIN = 1_000;
/** Files that are listed, and how deep. */
const MOST = 3_000;
const DEEPEST = 4;

/** The folder `NAME.pictures` beside a document. No path leads out of it, not by a link either. */
export class FolderOfPictures {
  private readonly folder: string;
  private readonly listeners = new Set<() => void>();
  private timer: ReturnType<typeof setInterval> | undefined;
  private told = "";

  /** @param stem the document's path without its ending */
  constructor(stem: string) {
    this.folder = `${stem}.pictures`;
  }

  /** All pictures in it; none where there is no such folder. */
  async list(): Promise<PictureOnDisk[]> {
    const out: PictureOnDisk[] = [];
    const visit = async (below: string, depth: number): Promise<void> => {
      for (const entry of await readdir(join(this.folder, below), { withFileTypes: true }).catch(() => [])) {
        const file = below === "" ? entry.name : `${below}/${entry.name}`;
        if (out.length >= MOST || entry.name.startsWith(".")) continue;
        if (entry.isDirectory() && depth < DEEPEST) await visit(file, depth + 1);
        if (!entry.isFile()) continue;
        const tag = await this.tagOf(file);
        if (tag !== undefined) out.push({ file, tag });
      }
    };
    await visit("", 0);
    return out;
  }

  /** The bytes of a picture; undefined where there is none. */
  async read(file: string): Promise<Buffer | undefined> {
    const path = await this.inside(file);
    return path === undefined ? undefined : readFile(path).catch(() => undefined);
  }

  /** Writes a picture, whole; gives its tag, or undefined where the path is none in the folder. */
  async write(file: string, bytes: Uint8Array): Promise<string | undefined> {
    if (!isBelow(file)) return undefined;
    const path = join(this.folder, file);
    await mkdir(dirname(path), { recursive: true });
    const [root, at] = await Promise.all([realpath(this.folder), realpath(dirname(path))]);
    if (at !== root && !at.startsWith(root + sep)) return undefined;
    const beside = join(at, `.${randomBytes(6).toString("hex")}.tmp`);
    try {
      await writeFile(beside, bytes, { flag: "wx" });
      await rename(beside, path);
    } catch (error) {
      await unlink(beside).catch(() => undefined);
      throw error;
    }
    return this.tagOf(file);
  }

  /** Calls a function whenever a picture comes, goes or changes; gives what ends that. */
  listen(changed: () => void): () => void {
    this.listeners.add(changed);
    this.timer ??= setInterval(() => void this.look(), LOOK_AGAIN);
    this.timer.unref();
    return () => {
      this.listeners.delete(changed);
      if (this.listeners.size > 0) return;
      clearInterval(this.timer);
      this.timer = undefined;
    };
  }

  private async look(): Promise<void> {
    const now = JSON.stringify(await this.list());
    if (now === this.told) return;
    this.told = now;
    for (const listener of this.listeners) listener();
  }

  private async tagOf(file: string): Promise<string | undefined> {
    const path = await this.inside(file);
    const about = path === undefined ? undefined : await stat(path).catch(() => undefined);
    return about?.isFile() ? `${about.size}-${Math.round(about.mtimeMs * 1000)}` : undefined;
  }

  /** Where a file really is; undefined where that is not in the folder. */
  private async inside(file: string): Promise<string | undefined> {
    if (!isBelow(file)) return undefined;
    const [root, path] = await Promise.all([realpath(this.folder), realpath(join(this.folder, file))]).catch(() => [undefined, undefined]);
    return root !== undefined && path?.startsWith(root + sep) ? path : undefined;
  }
}

/** Whether a path leads to a file below a folder, and nowhere else. */
function isBelow(file: string): boolean {
  return file !== "" && !/[\\:\0]/.test(file) && file.split("/").every((part) => part !== "" && part !== "." && part !== "..");
}
