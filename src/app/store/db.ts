import Dexie, { type EntityTable, type Table } from "dexie";

/** A project kept in this browser. */
export interface ProjectRow {
  id: string;
  name: string;
  /** The version that is the document now; later ones can be redone. */
  head: number;
  /** Grows with each change, so that other windows notice. */
  revision: number;
  updatedAt: number;
}
/** The document after one edit. Version 0 is the document as it was opened first. */
export interface VersionRow {
  projectId: string;
  seq: number;
  /** The edit that led here, e.g. `Add screen "Brood"`. */
  name: string;
  /** As read from storage; parsed before use. */
  document: unknown;
}

export class EtapeDb extends Dexie {
  declare projects: EntityTable<ProjectRow, "id">;
  declare versions: Table<VersionRow, [string, number]>;

  constructor(name = "etape") {
    super(name);
    this.version(1).stores({ projects: "id, updatedAt", versions: "[projectId+seq], projectId" });
  }
}

export const db = new EtapeDb();
