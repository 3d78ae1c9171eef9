import type { Project } from "../../core/model/schema.ts";

/**
 * What makes one project of another that somebody else has: the fields that differ. Of a list that differs, what was there before is
 * named by its place in the old list, so that little crosses to a worker at an edit, and what is the same stays the same object there.
 */
export interface Patch {
  fields: Record<string, unknown>;
  lists: Record<string, Array<number | { is: unknown }>>;
  gone: string[];
}

type Fields = Record<string, unknown>;

/** Compares by identity: whatever was not edited must be the same object in both. */
export function patchOf(before: Project, after: Project): Patch {
  const [old, now] = [before as unknown as Fields, after as unknown as Fields];
  const out: Patch = { fields: {}, lists: {}, gone: Object.keys(old).filter((key) => !(key in now)) };
  for (const [key, value] of Object.entries(now)) {
    const was = old[key];
    if (value === was) continue;
    if (!Array.isArray(value) || !Array.isArray(was)) {
      out.fields[key] = value;
      continue;
    }
    const places = new Map(was.map((entry, i) => [entry as unknown, i]));
    out.lists[key] = value.map((entry) => places.get(entry) ?? { is: entry });
  }
  return out;
}

/** The project that a patch makes of the one that it was made for. */
export function patched(before: Project, { fields, lists, gone }: Patch): Project {
  const out: Fields = { ...(before as unknown as Fields), ...fields };
  for (const key of gone) delete out[key];
  for (const [key, entries] of Object.entries(lists)) {
    const was = (before as unknown as Fields)[key] as unknown[];
    out[key] = entries.map((entry) => (typeof entry === "number" ? was[entry] : entry.is));
  }
  return out as unknown as Project;
}
