import useSWR from "swr";
import { pictureFiles } from "../../../core/model/pictures.ts";
import type { Project } from "../../../core/model/schema.ts";
import { usePictures, useSession } from "../../session/hooks.ts";
import type { PictureRow } from "../../session/storage/db.ts";
import { PictureWorkers } from "../../worker/pictures.ts";

type Addresses = Readonly<Record<string, string>>;
const NONE: Addresses = {};

/**
 * The pictures of a project as data addresses, each at most so many pixels wide. `drawn` has them where they are wanted, undefined while they
 * are made, and none where they are not; `draw` makes them whether or not.
 */
export function useHandedPictures(project: Project, width: number, wanted: boolean): { drawn: Addresses | undefined; draw: () => Promise<Addresses> } {
  const { id } = useSession();
  const rows = usePictures((p) => p.rows);
  const kept = pictureFiles(project).flatMap((file) => rows?.get(file) ?? []);
  const key = !wanted || kept.length === 0 ? null : ["handed pictures", id, width, ...kept.map(({ file, at }) => `${file} ${at}`)];
  const { data } = useSWR(key, () => shrunk(kept, width), { revalidateOnFocus: false });
  return { drawn: key === null ? NONE : data, draw: async () => data ?? (await shrunk(kept, width)) };
}

async function shrunk(rows: readonly PictureRow[], width: number): Promise<Addresses> {
  const workers = new PictureWorkers();
  try {
    const all = await Promise.all(rows.map(async ({ file, bytes }) => [file, await workers.shrink(bytes, width)] as const));
    return Object.fromEntries(all.flatMap(([file, address]) => (address === undefined ? [] : [[file, address] as const])));
  } finally {
    workers.close();
  }
}
