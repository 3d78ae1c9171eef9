import Dexie, { type DexieOptions, type EntityTable, type Table, type Transaction } from "dexie";
import { difference } from "../../../core/model/edits/revise.ts";
import { readProjectData } from "../../../core/model/read.ts";
import type { PictureKind } from "../../../core/pictures/header.ts";
import type { FileHandle } from "../file/disk.ts";

/** A project kept in this browser. */
export interface ProjectRow {
  id: string;
  name: string;
  /** How many of the edits that are kept are made in the document; later ones can be redone. */
  head: number;
  /** Grows with each change, so that other windows notice. */
  revision: number;
  updatedAt: number;
  /** When it was last exported; milliseconds since 1970. */
  exportedAt?: number;
}
/** A project's document as it is now. */
export interface DocumentRow {
  projectId: string;
  /** As read from storage; parsed before use. */
  document: unknown;
}
/** One edit of a project's history, with the edit that takes it back; both parsed before use. */
export interface EditRow {
  projectId: string;
  seq: number;
  /** What it is called, e.g. `Add screen "Brood"`. */
  name: string;
  edit: unknown;
  inverse: unknown;
}

/** A project as it was at some time, kept under a name. */
export interface VersionRow {
  id: string;
  projectId: string;
  name: string;
  /** Milliseconds since 1970. */
  at: number;
  /** Kept by hand, by Etape before something large, or read from a file to compare with. */
  by: "hand" | "etape" | "file";
  /** As read from storage; parsed before use. */
  document: unknown;
}

/** A project that is kept in step with a file. */
export interface FileRow {
  projectId: string;
  name: string;
  /** The document as the file had it when both were last in step; parsed before use. */
  base: unknown;
  /** The file, where it was chosen in the browser; without one, `etape open` serves it. */
  handle?: FileHandle;
}

/** The file of a picture, kept apart from the document and once for all its versions: what is in a file of a name never changes here. */
export interface PictureRow {
  projectId: string;
  /** The path that documents name it by. */
  file: string;
  kind: PictureKind;
  size: [width: number, height: number];
  bytes: Blob;
  /** Small, for the map. */
  thumb: Blob;
  /** When it came in; milliseconds since 1970. */
  at: number;
  /** What the file beside the document was when it was read, where one is kept in step. */
  tag?: string;
}

export class EtapeDb extends Dexie {
  declare projects: EntityTable<ProjectRow, "id">;
  declare documents: EntityTable<DocumentRow, "projectId">;
  declare edits: Table<EditRow, [string, number]>;
  declare kept: EntityTable<VersionRow, "id">;
  declare files: EntityTable<FileRow, "projectId">;
  declare pictures: Table<PictureRow, [string, string]>;

  /** Why the browser keeps nothing, where it does not: then everything is in the page's memory alone, until it is closed. */
  refused: string | undefined;

  constructor(name = "etape", options?: DexieOptions) {
    super(name, options);
    this.version(1).stores({ projects: "id, updatedAt", versions: "[projectId+seq], projectId" });
    this.version(2).stores({ documents: "projectId", edits: "[projectId+seq], projectId" }).upgrade(fromVersions);
    this.version(3).stores({ versions: null });
    this.version(4).stores({ kept: "id, projectId" });
    this.version(5).stores({ files: "projectId" });
    this.version(6).stores({ pictures: "[projectId+file], projectId" });
  }
}

/** Before, each edit was kept as the whole document after it: what two of them differ by is the edit between. */
async function fromVersions(old: Transaction) {
  const versions: Array<{ projectId: string; seq: number; name: string; document: unknown }> = await old.table("versions").toArray();
  const heads = new Map<string, number>((await old.table<ProjectRow>("projects").toArray()).map(({ id, head }) => [id, head]));
  for (const { projectId, seq, document } of versions) if (heads.get(projectId) === seq) await old.table("documents").put({ projectId, document });
  const ordered = versions.sort((a, b) => a.seq - b.seq);
  const before = new Map<string, (typeof versions)[number]>();
  for (const version of ordered) {
    const previous = before.get(version.projectId);
    before.set(version.projectId, version);
    if (previous?.seq !== version.seq - 1) continue;
    const [was, is] = [readProjectData(previous.document), readProjectData(version.document)];
    if (!was.ok || !is.ok) continue;
    const { projectId, seq, name } = version;
    await old.table("edits").put({ projectId, seq, name, edit: difference(was.project, is.project, name), inverse: difference(is.project, was.project, name) });
  }
}

/**
 * Opens the storage of this browser. Where the browser refuses it (a private window, a policy), what is made is kept in memory, and
 * `refused` says so. Throws where a newer version of Etape wrote it: this one would not understand what it finds.
 */
export async function openStore(name?: string): Promise<EtapeDb> {
  const store = new EtapeDb(name);
  try {
    await store.open();
  } catch (error) {
    const { indexedDB, IDBKeyRange } = await import("fake-indexeddb");
    const memory = new EtapeDb(name, { indexedDB, IDBKeyRange });
    const why = (error instanceof Error ? error.message : String(error)).replace(/\.$/, "");
    memory.refused = `this browser keeps nothing for Etape (${why}). Export what you make before you close the page.`;
    return memory;
  }
  // A window of a newer version takes over: this one would write what that one no longer has.
  store.on("versionchange", ({ newVersion }) => {
    if (newVersion === null) return true;
    store.close();
    // By itself Dexie would open it again at the next question, in the newer version.
    return false;
  });
  const found = store.backendDB().version / 10;
  if (found <= store.verno) return store;
  store.close();
  throw new Error("a newer version of Etape keeps the projects of this browser. Load the page again to get that version");
}

export const db = await openStore();
