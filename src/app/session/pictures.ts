import { liveQuery } from "dexie";
import { createStore, type StoreApi } from "zustand";
import type { PictureFiles } from "../../core/model/pictures.ts";
import { db, type PictureRow } from "./storage/db.ts";

/** Addresses of pictures as the page can draw them, by their files. */
export interface PictureUrls {
  /** The picture itself; undefined where it is not kept here. */
  url: (file: string) => string | undefined;
  /** A small one. */
  thumb: (file: string) => string | undefined;
}

export interface PicturesState extends PictureUrls {
  /** What is kept, by file; undefined until it was read. */
  rows: ReadonlyMap<string, PictureRow> | undefined;
  /** Pictures that are being taken in. */
  taking: { done: number; of: number } | undefined;
}

/** The pictures of an open project, as they are kept in this browser, whichever window keeps them. */
export function createPictures(projectId: string, changed: () => void): { store: StoreApi<PicturesState>; close: () => void } {
  const made = new Map<string, { row: PictureRow; url?: string; thumb?: string }>();
  const address = (file: string, of: "url" | "thumb"): string | undefined => {
    const row: PictureRow | undefined = store.getState().rows?.get(file);
    if (!row) return undefined;
    const known = made.get(file);
    const one: NonNullable<typeof known> = known?.row.at === row.at ? known : { row };
    made.set(file, one);
    one[of] ??= URL.createObjectURL(of === "url" ? row.bytes : row.thumb);
    return one[of];
  };
  const reader = (): PictureUrls => ({ url: (file: string) => address(file, "url"), thumb: (file: string) => address(file, "thumb") });
  const store: StoreApi<PicturesState> = createStore<PicturesState>(() => ({ rows: undefined, taking: undefined, ...reader() }));
  const subscription = liveQuery(() => db.pictures.where("projectId").equals(projectId).toArray()).subscribe({
    // Who draws pictures is told by another reader.
    next: (rows) => {
      store.setState({ rows: new Map(rows.map((row) => [row.file, row])), ...reader() });
      changed();
    },
    error: () => undefined,
  });
  return {
    store,
    close: () => {
      subscription.unsubscribe();
      for (const { url, thumb } of made.values()) for (const one of [url, thumb]) if (one !== undefined) URL.revokeObjectURL(one);
    },
  };
}

/** What the checker is told of the files; undefined until they were read. */
export function filesKept({ rows }: PicturesState): PictureFiles | undefined {
  return rows && Object.fromEntries([...rows].map(([file, { size }]) => [file, { size }]));
}
