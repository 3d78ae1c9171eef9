import * as z from "zod";

/** A file as the page can read and write it. */
export interface Disk {
  readonly name: string;
  /** What it holds, with a tag that is another one where it holds something else. Rejects where it cannot be read. */
  read(): Promise<{ text: string; tag: string }>;
  /** Writes it whole if it still is what the tag says; undefined where it is not. */
  write(text: string, tag: string): Promise<string | undefined>;
  /** Calls a function when it may hold something else; gives what ends that. */
  watch(changed: () => void): () => void;
  /** Asks the person to allow it again, where the browser wants that after a reload. */
  allow?(): Promise<void>;
}

const Served = z.object({ id: z.string(), name: z.string(), text: z.string(), tag: z.string() });
export type Served = z.infer<typeof Served>;

/** The file that the server has open; undefined where it has none, or this page was not opened with its address. */
export async function servedFile(): Promise<Served | undefined> {
  const response = await fetch("/live/file");
  if (response.status === 403 || response.status === 404) return undefined;
  if (!response.ok || !response.headers.get("content-type")?.includes("json")) throw new Error(await response.text());
  return Served.parse(await response.json());
}

/** The file that `etape open` serves. `entry` is called with each line that a running app tells. */
export function serverDisk(name: string, entry: (line: string) => void, pictures: () => void = () => undefined): Disk {
  return {
    name,
    async read() {
      const file = await servedFile();
      if (!file) throw new Error("etape open has ended, or serves another file; start it again");
      return file;
    },
    async write(text, tag) {
      const response = await fetch("/live/file", { method: "PUT", body: text, headers: { "if-match": tag, "content-type": "application/json" } });
      if (response.status === 412) return undefined;
      if (!response.ok) throw new Error(await response.text());
      return z.object({ tag: z.string() }).parse(await response.json()).tag;
    },
    watch(changed) {
      const source = new EventSource("/live/changes");
      source.addEventListener("ready", changed);
      source.addEventListener("file", changed);
      source.addEventListener("pictures", pictures);
      source.addEventListener("entry", (event: MessageEvent<string>) => entry(event.data));
      return () => source.close();
    },
  };
}

/** The parts of a file handle that are used; browsers that have it can write files that people choose. */
export interface FileHandle {
  readonly name: string;
  getFile(): Promise<File>;
  createWritable(): Promise<{ write(text: string): Promise<void>; close(): Promise<void> }>;
  requestPermission?(asked: { mode: "readwrite" }): Promise<string>;
}

/** Milliseconds between two looks at a file that only the browser knows. */
const LOOK_AGAIN = 1_000;

/** A file that was chosen in the browser. It is written whole: what is written takes its place when it is closed. */
export function handleDisk(handle: FileHandle): Disk {
  const read = async () => {
    const file = await handle.getFile().catch((error: unknown) => {
      const asks = error instanceof DOMException && error.name === "NotAllowedError";
      throw asks ? new Error("the browser has to be allowed to use it again") : error;
    });
    const text = await file.text();
    return { text, tag: text };
  };
  return {
    name: handle.name,
    read,
    async allow() {
      await handle.requestPermission?.({ mode: "readwrite" });
    },
    async write(text, tag) {
      if ((await read()).text !== tag) return undefined;
      const writable = await handle.createWritable();
      await writable.write(text);
      await writable.close();
      return text;
    },
    watch(changed) {
      let last: number | undefined;
      const look = async () => {
        const at = (await handle.getFile().catch(() => undefined))?.lastModified;
        if (at !== last) changed();
        last = at;
      };
      void look();
      const timer = setInterval(() => void look(), LOOK_AGAIN);
      return () => clearInterval(timer);
    },
  };
}
